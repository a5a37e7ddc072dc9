import { usedAmpereHours } from "@cravix/core/electrical/battery";
import { formatQuantity } from "@cravix/core/units/format";
import { View } from "react-native";
import { Text } from "../../ui/text";
import type { LoadedPreflight } from "../open-preflight";
import { useLoads } from "./use-loads";

/** While the battery is on: time used, charge used, and time left for a safe start. */
export function BatteryBar({ preflight }: { preflight: LoadedPreflight }) {
  const { on, onSince, amps, spans, battery, now } = useLoads(preflight);
  const { electrical } = preflight.list.type;
  if (onSince === undefined || !electrical || preflight.phase === "run-up" || preflight.phase === "line-up")
    return null;
  const seconds = Math.max(0, Math.round((now - onSince) / 1000));
  const clock = `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
  const late = seconds > electrical.lapMin * 60 || (battery && battery.marginAh <= 0);
  const left = battery?.minutesLeft;
  return (
    <View
      testID="battery"
      role="status"
      className={`flex-row flex-wrap items-center gap-x-3 rounded-lg px-3 py-1 ${late ? "bg-chock" : "bg-stone"}`}
    >
      <Text className={`font-strong ${late ? "text-on-chock" : ""}`}>{`Battery on ${clock}`}</Text>
      <Text className={`text-sm ${late ? "text-on-chock" : ""}`}>
        {`${amps.toFixed(amps < 10 ? 1 : 0)} A · ${formatQuantity({ value: usedAmpereHours(spans), unit: "Ah" })} used`}
      </Text>
      <Text className={`shrink text-sm ${late ? "text-on-chock" : ""}`}>
        {late
          ? `On longer than planned: ${on.map((load) => load.name).join(", ")}. Switch off as soon as you can.`
          : left === undefined
            ? "Outside temperature not entered: engine start not checked."
            : `enough battery to start for another ${formatQuantity({ value: Math.floor(left), unit: "min" })}`}
      </Text>
    </View>
  );
}
