import { router } from "expo-router";
import { Button } from "../../../ui/input/button";
import { Screen } from "../../../ui/screen";
import { Heading, Text } from "../../../ui/text";

/** The address names a walk that this device does not have. */
export function NoSuchWalk() {
  return (
    <Screen
      actions={
        <Button tone="primary" onPress={() => router.replace("/")}>
          To the aircraft
        </Button>
      }
    >
      <Heading level={1} className="mt-8 text-2xl">
        This device has no such walk.
      </Heading>
      <Text className="mt-2">It may have been begun on another one.</Text>
    </Screen>
  );
}
