import { router } from "expo-router";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Screen } from "../../ui/screen";
import { Text } from "../../ui/text";

/** The address names nothing that there is. */
export function NoSuchPage() {
  return (
    <Screen
      actions={
        <Button tone="primary" className="min-h-16" testID="primary" onPress={() => router.replace("/")}>
          To the aircraft
        </Button>
      }
    >
      <PageHead className="mt-8 text-2xl" title="No such page">
        There is no such page
      </PageHead>
      <Text className="mt-2">
        The link may be an old one. Nothing is lost: an open preflight waits at its aircraft.
      </Text>
    </Screen>
  );
}
