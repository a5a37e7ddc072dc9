import { router } from "expo-router";
import { Button } from "../../../ui/input/button";
import { PageHead } from "../../../ui/page-head";
import { Screen } from "../../../ui/screen";
import { Text } from "../../../ui/text";

/** The address names a walk that this device does not have. */
export function NoSuchWalk() {
  return (
    <Screen
      actions={
        <Button tone="primary" className="min-h-16" testID="primary" onPress={() => router.replace("/")}>
          To the aircraft
        </Button>
      }
    >
      <PageHead className="mt-8 text-2xl" title="No such preflight">
        This device has no such preflight
      </PageHead>
      <Text className="mt-2">It may have been begun on another one.</Text>
    </Screen>
  );
}
