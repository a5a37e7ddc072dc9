import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { confirmOptions } from "@cravix/core/checklist/list/confirm-options";
import { useMemo } from "react";
import { View } from "react-native";
import { Button } from "../../../ui/input/button";
import { useShortcuts } from "../../../ui/input/use-shortcuts";
import { Text } from "../../../ui/text";
import type { Acts, LoadedPreflight } from "../../open-preflight";

/** Choice of a value that must be read from the plate. */
export function ConfirmAnswer({
  preflight,
  item,
  acts,
  onFound,
  hint,
}: {
  preflight: LoadedPreflight;
  item: Item;
  acts: Acts;
  onFound: (preset?: string) => void;
  hint: (key: string) => string | undefined;
}) {
  const fact = item.confirm && preflight.list.facts?.[item.confirm.fact];
  const options = useMemo(
    () => (fact ? confirmOptions(fact, `${preflight.state.id}:${item.id}`) : []),
    [fact, preflight.state.id, item.id],
  );
  const say = (value: string) =>
    value === fact
      ? acts.checked(item, value)
      : onFound(`${item.title}: reads ${value}, record says ${fact}`);
  const other = () => onFound(`${item.title}: different reading, record says ${fact}`);
  useShortcuts(
    fact
      ? { ...Object.fromEntries(options.map((option, i) => [String(i + 1), () => say(option)])), "0": other }
      : { Enter: () => acts.checked(item) },
  );
  if (!fact)
    return (
      <View className="gap-2">
        <Text className="text-sm text-deck-ink">No value on file to compare with.</Text>
        <View className="flex-row gap-3">
          <Button tone="deck" className="min-h-24 flex-1" onPress={() => onFound()}>
            Found something
          </Button>
          <Button
            tone="primary"
            className="min-h-24 flex-[1.7]"
            textClassName="text-2xl"
            testID="primary"
            onPress={() => acts.checked(item)}
          >
            {item.done ?? "Read and correct"}
          </Button>
        </View>
      </View>
    );
  return (
    <View className="gap-2">
      <Text className="text-sm text-deck-ink">{item.confirm?.ask}</Text>
      <View className="flex-row flex-wrap gap-2">
        {options.map((option, i) => (
          <Button
            key={option}
            tone="primary"
            className="min-h-16 min-w-[40%] flex-1"
            textClassName="text-2xl"
            testID={`confirm-${option}`}
            hint={hint(String(i + 1))}
            onPress={() => say(option)}
          >
            {option}
          </Button>
        ))}
      </View>
      <Button tone="deck" hint={hint("0")} onPress={other}>
        None of these
      </Button>
    </View>
  );
}
