import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { View } from "react-native";
import { Button } from "../../../ui/input/button";
import { useShortcuts } from "../../../ui/input/use-shortcuts";
import type { Acts, LoadedPreflight } from "../../open-preflight";

interface PullAnswerProps {
  preflight: LoadedPreflight;
  item: Item;
  acts: Acts;
  onFound: (preset?: string) => void;
  hint: string | undefined;
}

/** Pulling the propeller through: each blade is recorded, and resistance stops everything. */
export function PullAnswer({ preflight, item, acts, onFound, hint }: PullAnswerProps) {
  const expected = item.expected ?? 1;
  const blade = (preflight.state.blades[item.id] ?? 0) + 1;
  const through = () => (blade < expected ? acts.blade(item, blade) : acts.checked(item, String(expected)));
  useShortcuts({ Enter: through });
  return (
    <View className="flex-row gap-3">
      <Button
        tone="deck"
        className="min-h-28 flex-1"
        testID="resists"
        onPress={() =>
          onFound(
            `Blade ${blade} of ${expected} resists: possible hydraulic lock. Do not force it. A mechanic must remove the spark plugs.`,
          )
        }
      >
        Resistance: stop
      </Button>
      <Button
        tone="primary"
        className="min-h-28 flex-[1.7]"
        textClassName="text-2xl"
        hint={hint}
        testID="primary"
        onPress={through}
      >
        {`Blade ${blade} of ${expected} moved freely`}
      </Button>
    </View>
  );
}
