import { router } from "expo-router";
import { Button } from "../../ui/input/button";
import { Screen } from "../../ui/screen";
import { Heading, Text } from "../../ui/text";

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
      <Heading level={1} className="mt-8 text-2xl">
        There is no such page.
      </Heading>
      <Text className="mt-2">
        The link may be an old one. Nothing is lost: an open walk waits at its aircraft.
      </Text>
    </Screen>
  );
}
