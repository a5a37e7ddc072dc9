import type { AircraftSummary } from "@cravix/contract/client";
import { View } from "react-native";
import { useBundle } from "../../store/server/server-state";
import { PlanView } from "../../ui/aircraft/plan-view";
import { ListRow } from "../../ui/input/list-row";
import { Text } from "../../ui/text";
import { StatusMark } from "./status-mark";
import { ago, fuelUnits, oilText } from "./status-text";
import type { Known } from "./use-aircraft-status";

/** Summary of one aircraft: status, reasons, fuel and oil, last flight, open discrepancies. */
export function AircraftCard({
  aircraft,
  known: { standing, open },
  chosen,
  plan,
  walking,
  onPress,
}: {
  aircraft: AircraftSummary;
  known: Known;
  chosen: boolean;
  /** Whether to draw the plan view. */
  plan: boolean;
  /** Unfinished work on this device. */
  walking: string | undefined;
  onPress: () => void;
}) {
  const { registration, typeName, stub, fluids, lastFlown } = aircraft;
  const [first, ...more] = standing?.reasons ?? [];
  const fuel = fuelUnits(fluids);
  const oil = oilText(fluids);
  const facts = [
    fuel && `Fuel ${fuel}`,
    oil && `Oil ${oil}`,
    lastFlown ? `Last flown ${ago(lastFlown.at)}` : stub === null && "No flight on record",
    open.length > 0 && `${open.length} open ${open.length === 1 ? "discrepancy" : "discrepancies"}`,
  ].filter(Boolean);
  return (
    <ListRow chosen={chosen} onPress={onPress} className="gap-1" testID={`aircraft-${registration}`}>
      <View className="flex-row flex-wrap items-baseline gap-x-2">
        <Text className="font-strong text-lg">{registration}</Text>
        <Text className="shrink text-sm text-voice">{typeName}</Text>
      </View>
      <StatusMark standing={standing} none={stub === null ? "Not assessed yet" : "No checklist yet"} />
      {chosen && plan && <Plan registration={registration} />}
      {walking !== undefined && <Text className="font-strong">{walking}</Text>}
      {stub !== null && <Text className="text-sm text-voice">{stub}</Text>}
      {first && (
        <Text numberOfLines={chosen ? 3 : 1} className="text-base">
          {first.text}
        </Text>
      )}
      {more.length > 0 && (
        <Text className="text-sm text-voice">{`and ${more.length} more reason${more.length > 1 ? "s" : ""}`}</Text>
      )}
      {stub === null && <Text className="text-sm text-voice">{facts.join(" · ")}</Text>}
    </ListRow>
  );
}

/** Reserves its space while loading, so that buttons do not move. */
function Plan({ registration }: { registration: string }) {
  const plan = useBundle(registration)?.type.plan;
  return (
    <View className="h-[140px]" aria-hidden>
      {plan && <PlanView plan={plan} beads={[]} />}
    </View>
  );
}
