import { View } from "react-native";
import { Button } from "../../ui/button";
import { Screen } from "../../ui/screen";
import { Heading, Text } from "../../ui/text";
import type { Acts } from "./use-acts";
import type { Walk } from "./use-preflight";

/** Back from an interruption: where you were, what you had answered last, and one step back. */
export function InterruptedPanel({ walk, acts }: { walk: Walk; acts: Acts }) {
  const { list, state, item } = walk;
  const station = list.stations.find((s) => s.id === item?.station);
  const lastId = state.undoable.at(-1);
  const last = list.items.find((i) => state.answers[i.id]?.eventId === lastId);
  return (
    <Screen
      actions={
        <>
          <Button
            tone="primary"
            className="min-h-24"
            textClassName="text-xl"
            testID="primary"
            onPress={() => acts.resume(true)}
          >
            {`Again from the start of: ${station?.name ?? "this station"}`}
          </Button>
          <Button tone="deck" onPress={() => acts.resume(false)}>
            Go on where I was
          </Button>
        </>
      }
    >
      <Heading level={1} className="mt-6 text-3xl">
        Interrupted
      </Heading>
      <View className="mt-4 gap-4">
        <View>
          <Text className="text-sm text-voice">You were at</Text>
          <Text className="font-strong text-lg">{item?.title}</Text>
        </View>
        {last && (
          <View>
            <Text className="text-sm text-voice">The last thing you answered</Text>
            <Text className="font-strong text-lg">{last.title}</Text>
          </View>
        )}
        <Text>
          An interruption is where lines get lost. One station back costs a minute; what you found stays
          written up.
        </Text>
      </View>
    </Screen>
  );
}
