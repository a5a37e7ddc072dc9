import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { View } from "react-native";
import { TextField } from "../../../ui/input/text-field";
import { Heading, Text } from "../../../ui/text";

/** New measure of a known discrepancy: only a number shows whether it has grown. */
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
        {seen === "same" ? "The same: measure again" : "Grown: measure again"}
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
          ? "Nothing to measure? Log it without a measurement."
          : "A discrepancy that has grown must be asked about before the flight, whatever its grade was."}
      </Text>
    </View>
  );
}
