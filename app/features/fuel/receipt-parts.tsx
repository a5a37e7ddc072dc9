import type { CsvFault, Receipt } from "@cravix/contract/client";
import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import type { EventData } from "@cravix/core/checklist/stream/events";
import { litresOfFuel } from "@cravix/core/fuel/grade/fuel-amount";
import { fuelDensity, fuelGrade } from "@cravix/core/fuel/grade/fuel-grades";
import { formatNumber } from "@cravix/core/units/format";
import { View } from "react-native";
import { Text } from "../../ui/text";

export type Uplift = Omit<EventData["fuel.uplifted"], "registration">;

/** What each way of logging an uplift needs. */
export interface WayProps {
  registration: string;
  tank: NonNullable<AircraftType["fuel"]>["tanks"][number];
  grade: string;
  onUplift: (uplift: Uplift) => void;
}

export const toUplift = (receipt: Receipt, tankId: string, from: Uplift["from"]): Uplift => ({
  tankId: receipt.tankId ?? tankId,
  amount: receipt.amount,
  unit: receipt.unit,
  grade: receipt.grade,
  ...(receipt.receipt && { receipt: receipt.receipt }),
  from,
});

/** Warning for an amount the tank cannot hold: probably another unit. */
export function moreThanItHolds(
  { amount, unit, grade }: Pick<Receipt, "amount" | "unit" | "grade">,
  tank: WayProps["tank"],
): string | undefined {
  const litres = litresOfFuel(amount, unit, fuelDensity(grade));
  if (litres <= tank.capacityL + 0.5) return undefined;
  return `${formatNumber(litres)} L is more than the ${tank.name} holds (${formatNumber(tank.capacityL)} L). Check the unit.`;
}

export function ReceiptCard({ receipt }: { receipt: Receipt }) {
  return (
    <View className="rounded-xl border-2 border-dashed border-ink px-4 py-3" testID="receipt">
      <Text className="text-sm text-voice">{`Receipt ${receipt.receipt || "without a number"}`}</Text>
      <Text className="font-strong text-2xl">{`${formatNumber(receipt.amount, 1)} ${receipt.unit}`}</Text>
      <Text>{`${fuelGrade(receipt.grade)?.name ?? receipt.grade}${receipt.tankId ? `, ${receipt.tankId}` : ""}`}</Text>
    </View>
  );
}

/** Faults of a CSV file with line and column. */
export function CsvFaults({ name, faults }: { name: string; faults: CsvFault[] }) {
  if (faults.length === 0) return null;
  return (
    <View role="alert" className="rounded-lg border-2 border-clay px-3 py-2" testID="csv-faults">
      <Text className="font-mid text-clay">{`${name}: ${faults.length} ${faults.length === 1 ? "line" : "lines"} not imported.`}</Text>
      {faults.slice(0, 12).map((fault) => (
        <Text key={`${fault.row}${fault.column}${fault.expected}`} className="text-sm">
          {`Line ${fault.row}${fault.column ? `, ${fault.column}` : ""}: expected ${fault.expected}`}
        </Text>
      ))}
      {faults.length > 12 && <Text className="text-sm">and {faults.length - 12} more</Text>}
    </View>
  );
}

export function Trouble({ children }: { children: string }) {
  return (
    <View role="alert" className="rounded-lg border-2 border-clay px-3 py-2" testID="trouble">
      <Text className="font-mid text-clay">{children}</Text>
    </View>
  );
}
