import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { formatNumber } from "@cravix/core/units/format";
import { settling } from "@cravix/core/verdict/judges/judge-settling";
import { View } from "react-native";
import { GradeMark } from "../../ui/grade-mark";
import { Text } from "../../ui/text";
import type { Acts, LoadedPreflight } from "../open-preflight";
import { DrainClock } from "./drain-answer";
import type { Drain } from "./use-drain";
import { VialTray } from "./vial-tray";

/** After refuelling: water needs time to settle to the drains. */
function Sinking({ preflight }: { preflight: LoadedPreflight }) {
  const sinking = settling(preflight.list, preflight.state);
  if (!sinking) return null;
  const waited = Math.floor((Date.now() - Date.parse(sinking.since)) / 60_000);
  const left = Math.ceil(sinking.neededMin - waited);
  if (left <= 0 || waited < 0) return null;
  return (
    <Text className="font-mid text-sm">
      {`Refuelled ${waited} min ago: water needs about ${left} min more to settle. Dip first and drain later, or drain once more before start.`}
    </Text>
  );
}

const FATE: Record<string, string> = {
  discarded: "Clean or not: into the waste container.",
  "poured back": "Perfectly clean: back into the tank. Anything else: into the waste container.",
  kept: "Clean: keep for the mechanic. Anything else: into the waste container.",
};

/** Samples so far, and the next step. */
export function DrainCard({
  preflight,
  item,
  acts,
  drain,
}: {
  preflight: LoadedPreflight;
  item: Item;
  acts: Acts;
  drain: Drain;
}) {
  const { advice, asking, draining } = drain;
  const stop = advice.step === "maintenance";
  return (
    <View className="gap-2">
      {advice.step !== "take" && (
        <View
          className={`gap-1 rounded-xl px-3 py-2 ${stop ? "border-l-8 border-clay bg-stone" : "bg-stone"}`}
          testID={`drain-${advice.step}`}
          role={stop ? "alert" : undefined}
        >
          <View className="flex-row items-center gap-2">
            <GradeMark grade={stop ? "stop" : advice.step === "clean" ? "note" : "ask"} size={22} />
            <Text className={`shrink font-strong ${stop ? "text-clay" : ""}`}>{advice.words}</Text>
          </View>
          <Text>{advice.why}</Text>
          {draining && asking.since !== undefined && (
            <DrainClock since={asking.since} before={advice.seconds} />
          )}
          {!draining && advice.seconds > 0 && (
            <Text className="text-sm text-voice">{`Drained here for ${formatNumber(advice.seconds)} s so far. If it is not clean after about a minute, call maintenance.`}</Text>
          )}
        </View>
      )}
      <VialTray preflight={preflight} item={item} acts={acts} />
      <Sinking preflight={preflight} />
      <Text className="text-sm text-voice">{FATE[preflight.list.preferences?.sample ?? "discarded"]}</Text>
    </View>
  );
}
