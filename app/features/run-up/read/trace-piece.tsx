import type { Trace } from "@cravix/core/run-up";
import { thinForPlot } from "@cravix/core/trend/thin-for-plot";
import { formatNumber } from "@cravix/core/units/format";
import { View } from "react-native";
import Svg, { Line, Path, Rect } from "react-native-svg";
import { usePalette } from "../../../ui/paint/use-palette";
import { Text } from "../../../ui/text";

interface Mark {
  from: number;
  to: number;
  label: string;
  value: string;
  bad?: boolean;
}

interface TracePieceProps {
  trace: Trace;
  from: number;
  to: number;
  /** Stretches labelled with their result. */
  marks: readonly Mark[];
  /** A limit line with its label. */
  limit?: { at: number; words: string };
  /** Reference level. */
  base?: number;
  height?: number;
  /** Another channel than rpm, with its unit. */
  values?: Float64Array;
  unit?: string;
}

const WIDTH = 340;

/** Part of a trace with the values read from it. */
export function TracePiece({
  trace,
  from,
  to,
  marks,
  limit,
  base,
  height = 110,
  values,
  unit = "rpm",
}: TracePieceProps) {
  const { ink, stone, clay, voice } = usePalette();
  const points: { x: number; y: number }[] = [];
  const drawn = values ?? trace.channels.rpm;
  if (drawn)
    for (let i = 0; i < trace.t.length; i++) {
      const t = trace.t[i] as number;
      const value = drawn[i] as number;
      if (t >= from && t <= to && !Number.isNaN(value)) points.push({ x: t, y: value });
    }
  if (points.length < 2) return null;
  const thin = thinForPlot(points, 160);
  const ys = [...thin.map((p) => p.y), ...(limit ? [limit.at] : [])];
  const top = Math.max(...ys);
  const bottom = Math.min(...ys);
  const pad = Math.max(10, (top - bottom) * 0.12);
  const x = (t: number) => ((t - from) / (to - from)) * WIDTH;
  const y = (value: number) => 4 + ((top + pad - value) / (top - bottom + 2 * pad)) * (height - 8);
  return (
    <View>
      <View className="flex-row justify-between">
        <Text className="text-xs text-voice">
          {base === undefined
            ? `${unit}, ${formatNumber(bottom)} to ${formatNumber(top)}`
            : `reference ${formatNumber(base)} ${unit}`}
        </Text>
        {limit && <Text className="text-xs text-clay">{limit.words}</Text>}
      </View>
      <View style={{ height }} aria-hidden>
        <Svg width="100%" height={height} viewBox={`0 0 ${WIDTH} ${height}`} preserveAspectRatio="none">
          {limit && base !== undefined && (
            <Rect x={0} y={y(base)} width={WIDTH} height={Math.max(0, y(limit.at) - y(base))} fill={stone} />
          )}
          {marks.map((mark) => (
            <Rect
              key={`${mark.label}${mark.from}`}
              x={x(mark.from)}
              y={height - 5}
              width={Math.max(2, x(mark.to) - x(mark.from))}
              height={4}
              fill={mark.bad ? clay : voice}
            />
          ))}
          {limit && (
            <Line
              x1={0}
              x2={WIDTH}
              y1={y(limit.at)}
              y2={y(limit.at)}
              stroke={clay}
              strokeWidth={2}
              strokeDasharray="8 6"
              vectorEffect="non-scaling-stroke"
            />
          )}
          <Path
            d={thin.map((p, i) => `${i ? "L" : "M"}${x(p.x).toFixed(1)} ${y(p.y).toFixed(1)}`).join("")}
            fill="none"
            stroke={ink}
            strokeWidth={2.5}
            strokeLinejoin="round"
            vectorEffect="non-scaling-stroke"
          />
        </Svg>
      </View>
      <View style={{ height: marks.length > 0 ? 52 : 8 }}>
        {marks.map((mark) => (
          <View
            key={`${mark.label}${mark.from}`}
            className="absolute items-center"
            style={{
              left: `${Math.min(86, Math.max(0, (x((mark.from + mark.to) / 2) / WIDTH) * 100 - 13))}%`,
              width: "27%",
            }}
          >
            <Text className={`font-strong text-xl ${mark.bad ? "text-clay" : ""}`}>{mark.value}</Text>
            <Text className="text-center text-xs text-voice">{mark.label}</Text>
          </View>
        ))}
      </View>
    </View>
  );
}
