import { formatNumber } from "@cravix/core";
import type { TraceLine } from "@cravix/core/run-up";
import { memo } from "react";
import { View } from "react-native";
import Svg, { Path } from "react-native-svg";
import { Text } from "../../ui/text";
import { usePalette } from "../../ui/use-palette";

interface Shown {
  name: string;
  unit: string;
  decimals: number;
  of: (line: TraceLine) => number | undefined;
}

const WIDTH = 100;
const HEIGHT = 26;
const WIDE_HEIGHT = 64;
/** Seconds that a tile shows, and its points. */
const SPAN_S = 45;
const POINTS = 110;

const PLAIN: Shown[] = [
  { name: "Manifold", unit: "inHg", decimals: 1, of: (line) => line.map },
  { name: "Fuel flow", unit: "gal/h", decimals: 1, of: (line) => line.fuelFlow },
  { name: "Oil", unit: "psi", decimals: 0, of: (line) => line.oilPressure },
  { name: "Oil", unit: "°F", decimals: 0, of: (line) => line.oilTemperature },
  { name: "Volts", unit: "V", decimals: 1, of: (line) => line.volts },
  { name: "Amps", unit: "A", decimals: 0, of: (line) => line.amps },
  { name: "Suction", unit: "inHg", decimals: 1, of: (line) => line.suction },
];

function channelsOf(line: TraceLine): Shown[] {
  const cylinders = (line.egt ?? []).map(
    (_, i): Shown => ({ name: `Exhaust ${i + 1}`, unit: "°F", decimals: 0, of: (l) => l.egt?.[i] }),
  );
  return [
    ...PLAIN.filter(({ of }) => of(line) !== undefined),
    ...(line.cht && line.cht.length > 0
      ? [
          {
            name: "Hottest head",
            unit: "°F",
            decimals: 0,
            of: (l: TraceLine) => (l.cht ? Math.max(...l.cht) : undefined),
          },
        ]
      : []),
    ...cylinders,
  ];
}

/** Every channel that the monitor sends, each with its number and the last three quarters of a minute. `now` makes it draw. */
export const LiveChannels = memo(function LiveChannels({
  lines,
  now,
  wide,
}: {
  lines: readonly TraceLine[];
  now: number;
  wide: boolean;
}) {
  const columns = wide ? 3 : 2;
  const height = wide ? WIDE_HEIGHT : HEIGHT;
  const { ink, stone } = usePalette();
  const last = lines.at(-1);
  if (!last) return null;
  const from = now - SPAN_S;
  let start = lines.length - 1;
  while (start > 0 && (lines[start - 1]?.t ?? 0) >= from) start--;
  const stride = Math.max(1, Math.floor((lines.length - start) / POINTS));
  return (
    <View className="flex-row flex-wrap" testID="channels">
      {channelsOf(last).map((channel) => {
        const value = channel.of(last);
        return (
          <View
            key={channel.name + channel.unit}
            style={{ width: `${100 / columns}%` }}
            className="px-1.5 py-1"
          >
            <View className="flex-row items-baseline justify-between">
              <Text className="text-xs text-voice">{channel.name}</Text>
              <Text className="font-strong text-sm">
                {value === undefined ? "–" : formatNumber(value, channel.decimals)}
                <Text className="text-xs text-voice"> {channel.unit}</Text>
              </Text>
            </View>
            <View style={{ height, backgroundColor: stone, borderRadius: 4 }} aria-hidden>
              <Svg width="100%" height={height} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none">
                <Path
                  d={spark(lines, start, stride, from, channel)}
                  fill="none"
                  stroke={ink}
                  strokeWidth={1.6}
                  vectorEffect="non-scaling-stroke"
                />
              </Svg>
            </View>
          </View>
        );
      })}
    </View>
  );
});

function spark(
  lines: readonly TraceLine[],
  start: number,
  stride: number,
  from: number,
  { of }: Shown,
): string {
  let least = Number.POSITIVE_INFINITY;
  let most = Number.NEGATIVE_INFINITY;
  for (let i = start; i < lines.length; i += stride) {
    const value = of(lines[i] as TraceLine);
    if (value === undefined) continue;
    if (value < least) least = value;
    if (value > most) most = value;
  }
  // A quiet needle is a quiet line, not its noise blown up.
  const span = Math.max(most - least, Math.abs(most) * 0.04, 0.5);
  const middle = (most + least) / 2;
  let d = "";
  for (let i = start; i < lines.length; i += stride) {
    const line = lines[i] as TraceLine;
    const value = of(line);
    if (value === undefined) continue;
    const x = ((line.t - from) / SPAN_S) * WIDTH;
    const y = HEIGHT / 2 - ((value - middle) / span) * (HEIGHT - 6);
    d += `${d ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`;
  }
  return d;
}

/** The rpm of the last three quarters of a minute, large: for a wide screen that somebody else looks at. */
export function LiveRpm({ lines, now }: { lines: readonly TraceLine[]; now: number }) {
  const { ink, stone } = usePalette();
  const from = now - SPAN_S;
  let start = lines.length - 1;
  while (start > 0 && (lines[start - 1]?.t ?? 0) >= from) start--;
  const stride = Math.max(1, Math.floor((lines.length - start) / (3 * POINTS)));
  return (
    <View className="min-h-[140px] flex-1 rounded-xl" style={{ backgroundColor: stone }} aria-hidden>
      <Svg width="100%" height="100%" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none">
        <Path
          d={spark(lines, Math.max(0, start), stride, from, {
            name: "",
            unit: "rpm",
            decimals: 0,
            of: (line) => line.rpm,
          })}
          fill="none"
          stroke={ink}
          strokeWidth={3}
          strokeLinejoin="round"
          vectorEffect="non-scaling-stroke"
        />
      </Svg>
    </View>
  );
}
