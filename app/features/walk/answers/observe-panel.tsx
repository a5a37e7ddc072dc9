import type { Item } from "@cravix/core";
import { View } from "react-native";
import { TextField } from "../../../ui/input/text-field";
import { Heading, Text } from "../../../ui/text";

/** Measuring a known discrepancy again: only a number tells whether it has grown. */
export function ObservePanel({
  item,
  seen,
  measure,
  onMeasure,
}: {
  item: Item;
  seen: "same" | "grown";
  measure: string;
  onMeasure: (text: string) => void;
}) {
  return (
    <View className="gap-3">
      <Heading level={1} className="text-2xl">
        {seen === "same" ? "The same: measure it again" : "Grown: how much is it now?"}
      </Heading>
      <Text>{item.title}</Text>
      <Text className="font-mid">{item.good}</Text>
      <TextField
        label="Count or measure now"
        hideLabel
        large
        value={measure}
        onChange={onMeasure}
        maxLength={200}
        autoFocus={seen === "grown"}
        placeholder="4 mm, 3 drops a minute …"
      />
      <Text className="text-sm text-voice">
        {seen === "same"
          ? "Nothing to measure? Log it as it is."
          : "A thing that grows is asked about before the flight, whatever it was before."}
      </Text>
    </View>
  );
}
