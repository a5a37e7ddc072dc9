import type { TraceColumn, UnitQuestion } from "@cravix/contract/trace";
import { type UnitKind, unitsFor } from "@cravix/contract/trace-columns";
import { View } from "react-native";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";
import { isOf } from "./confirmed-units";

const NAMES: Partial<Record<UnitKind, string>> = {
  egt: "EGT",
  cht: "CHT",
  oilTemperature: "oil temperature",
  oilPressure: "oil pressure",
  map: "manifold pressure",
  suction: "suction",
};

/** Asks for an ambiguous unit of a monitor; remembered for it. */
export function AmbiguousUnit({
  question: { kind, why, could, taken },
  columns,
  onTell,
}: {
  question: UnitQuestion;
  columns: readonly TraceColumn[];
  onTell: (kind: UnitKind, unit: string) => void;
}) {
  const name = NAMES[kind] ?? kind;
  const own = columns.find((column) => isOf(column, kind));
  const units = unitsFor(own?.field ?? "rpm");
  return (
    <View className="gap-2 border-l-4 border-chock pl-2" testID={`unit-asked-${kind}`}>
      <Heading className="text-lg">{`Which unit is used for ${name}?`}</Heading>
      <Text>
        {why === "no unit"
          ? `The file gives no unit, and the numbers could be ${could.join(" or ")}. Check the engine monitor. Your answer is saved for it.`
          : `The file says ${taken}, but the numbers look like ${could.join(" or ")}. Check the engine monitor. Your answer is saved for it.`}
      </Text>
      <View className="flex-row flex-wrap gap-1.5">
        {units.map((unit) => (
          <Toggle
            key={unit}
            on={own?.told === true && own.unit === unit}
            className="min-h-14 px-4"
            onPress={() => onTell(kind, unit)}
          >
            {unit}
          </Toggle>
        ))}
      </View>
    </View>
  );
}
