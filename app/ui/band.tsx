import type { LimitRange } from "@cravix/core/judgement/judgement";
import { View } from "react-native";
import Svg, { Line, Path, Rect } from "react-native-svg";
import { usePalette } from "./paint/use-palette";

/** A reading on a scale, with its limit as a broad band. */
export function Band({ limit, value }: { limit: LimitRange; value: number | undefined }) {
  const { ink, stone, clay, voice } = usePalette();
  const ends = [limit.min, limit.max].filter((end): end is number => end !== undefined);
  const spread = ends.length === 2 ? Math.abs((ends[1] ?? 0) - (ends[0] ?? 0)) : Math.abs(ends[0] ?? 1);
  const from = Math.min(...ends, value ?? Number.POSITIVE_INFINITY) - spread * 0.35;
  const to = Math.max(...ends, value ?? Number.NEGATIVE_INFINITY) + spread * 0.35;
  const at = (v: number) => 4 + ((v - from) / (to - from)) * 312;
  const low = limit.min === undefined ? 4 : at(limit.min);
  const high = limit.max === undefined ? 316 : at(limit.max);
  const outside = value !== undefined && (value < (limit.min ?? value) || value > (limit.max ?? value));
  return (
    <View className="h-9" aria-hidden>
      <Svg width="100%" height="100%" viewBox="0 0 320 36" preserveAspectRatio="none">
        <Line x1={4} x2={316} y1={26} y2={26} stroke={voice} strokeWidth={2} />
        <Rect x={low} y={18} width={high - low} height={16} fill={stone} stroke={ink} strokeWidth={2} />
        {value !== undefined && (
          <Path d={`M${at(value) - 9} 2 H${at(value) + 9} L${at(value)} 24 Z`} fill={outside ? clay : ink} />
        )}
      </Svg>
    </View>
  );
}
