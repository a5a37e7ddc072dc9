import type { RunwayChoice } from "@cravix/core/runways/compare-runways";
import { formatNumber } from "@cravix/core/units/format";
import { Pressable, View } from "react-native";
import Svg, { G, Path, Rect } from "react-native-svg";
import { usePalette } from "../../ui/paint/use-palette";
import { Text } from "../../ui/text";

/** Each runway in today's worst wind, best first; selecting one uses it for the calculation. */
export function RunwaysTable({
  choice,
  chosen,
  onChoose,
}: {
  choice: RunwayChoice;
  chosen: string | undefined;
  onChoose: (id: string) => void;
}) {
  return (
    <View className="gap-2" testID="runways">
      <Text className="font-mid">{choice.why}</Text>
      {choice.runways.map(({ runway, alongKt, crossKt, tailKt, side }) => {
        const on = runway.id === chosen;
        const tail = tailKt > 0.5;
        return (
          <Pressable
            key={runway.id}
            role="button"
            aria-pressed={on}
            testID={`runway-${runway.id}`}
            onPress={() => onChoose(runway.id)}
            className={`min-h-14 flex-row items-center gap-3 rounded-xl border-2 px-3 py-1.5 ${on ? "border-ink bg-chock" : "border-stone bg-paper"}`}
          >
            <Text className={`w-10 font-strong text-2xl ${on ? "text-on-chock" : ""}`}>{runway.id}</Text>
            <View className="w-9 shrink-0">
              <Arrow tail={tail} side={side} on={on} />
            </View>
            <View className="shrink">
              <Text className={`font-mid ${on ? "text-on-chock" : tail ? "text-clay" : ""}`}>
                {tail
                  ? `${formatNumber(tailKt)} kt tailwind`
                  : `${formatNumber(Math.max(0, alongKt))} kt headwind`}
                {`, ${formatNumber(crossKt)} kt crosswind`}
              </Text>
              <Text className={`text-sm ${on ? "text-on-chock" : "text-voice"}`}>
                {runway.declared
                  ? `${runway.surface}, take-off run available ${formatNumber(runway.declared.toraM)} m, landing distance available ${formatNumber(runway.declared.ldaM)} m`
                  : `${runway.surface}, no declared distances`}
              </Text>
            </View>
          </Pressable>
        );
      })}
    </View>
  );
}

/** Wind direction relative to the runway. */
function Arrow({ tail, side, on }: { tail: boolean; side: "left" | "right" | "either"; on: boolean }) {
  const { ink, stone, clay, onChock } = usePalette();
  const turn = (side === "right" ? 45 : side === "left" ? -45 : 0) * (tail ? -1 : 1) + (tail ? 180 : 0);
  return (
    <Svg width={36} height={36} viewBox="0 0 34 34" aria-hidden>
      <Rect x={13} y={1} width={8} height={32} fill={stone} stroke={on ? onChock : ink} strokeWidth={1.5} />
      <G rotation={turn} origin="17, 17">
        <Path d="M17 20 L11 8 H15 V1 H19 V8 H23 Z" fill={on ? onChock : tail ? clay : ink} />
      </G>
    </Svg>
  );
}
