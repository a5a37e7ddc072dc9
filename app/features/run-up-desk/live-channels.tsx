import { formatNumber } from "@cravix/core";
import type { TraceLine } from "@cravix/core/run-up";
import { memo, useEffect, useState } from "react";
import { Text, type TextStyle, useWindowDimensions, View } from "react-native";
import Svg, { Path } from "react-native-svg";
import { usePalette } from "../../ui/use-palette";
import type { Coach } from "./use-coach";

interface Shown {
  name: string;
  unit: string;
  decimals: number;
  of: (line: TraceLine) => number | undefined;
}

const WIDTH = 100;
const HEIGHT = 26;
const COLUMNS = 3;
/** On a wide screen: what stands above and below the needles, and the head of each. */
const AROUND = 160;
const HEAD_HEIGHT = 32;
/** Seconds that a tile shows, and its points. */
const SPAN_S = 45;
const POINTS = 110;

const PLAIN: Shown[] = [
  { name: "Manifold", unit: "inHg", decimals: 1, of: (line) => line.map },
  { name: "Fuel flow", unit: "gal/h", decimals: 1, of: (line) => line.fuelFlow },
  { name: "Oil pressure", unit: "psi", decimals: 0, of: (line) => line.oilPressure },
  { name: "Oil temp.", unit: "°F", decimals: 0, of: (line) => line.oilTemperature },
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

/** What the needles are drawn from. */
export type Needles = Pick<Coach, "lines" | "watch">;

/** Draws anew when new lines are there, and only then. */
function useLines({ lines, watch }: Needles) {
  const [, draw] = useState(0);
  useEffect(() => watch(() => draw((count) => count + 1)), [watch]);
  const all = lines.current;
  const now = all.at(-1)?.t ?? 0;
  const from = now - SPAN_S;
  let start = Math.max(0, all.length - 1);
  while (start > 0 && (all[start - 1]?.t ?? 0) >= from) start--;
  return { all, from, start };
}

/**
 * Every channel that the monitor sends, each with its number and the last three quarters of a minute. Ten times a second: its styles are written out,
 * so that nothing is worked out anew but the lines themselves.
 */
export const LiveChannels = memo(function LiveChannels({ coach, wide }: { coach: Needles; wide: boolean }) {
  const { all, from, start } = useLines(coach);
  const palette = usePalette();
  const screen = useWindowDimensions();
  const last = all.at(-1);
  if (!last) return null;
  const channels = channelsOf(last);
  // All of a wide screen is used, however many needles there are.
  const rows = Math.ceil(channels.length / COLUMNS);
  const height = wide ? Math.max(40, Math.floor((screen.height - AROUND) / rows) - HEAD_HEIGHT) : HEIGHT;
  const stride = Math.max(1, Math.floor((all.length - start) / POINTS));
  const small = { fontFamily: "AtkinsonNext", fontSize: 13, lineHeight: 18, color: palette.voice };
  return (
    <View style={ROWS} testID="channels">
      {channels.map((channel) => {
        const value = channel.of(last);
        return (
          <View key={channel.name + channel.unit} style={[TILE, wide ? THIRD : HALF]}>
            <View style={HEAD}>
              <Text style={small}>{channel.name}</Text>
              <Text style={[NUMBER, { color: palette.ink }]}>
                {value === undefined ? "–" : formatNumber(value, channel.decimals)}
                <Text style={small}>{` ${channel.unit}`}</Text>
              </Text>
            </View>
            <View style={{ height, backgroundColor: palette.stone, borderRadius: 4 }} aria-hidden>
              <Svg width="100%" height={height} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none">
                <Path
                  d={spark(all, start, stride, from, channel)}
                  fill="none"
                  stroke={palette.ink}
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

const ROWS = { flexDirection: "row", flexWrap: "wrap" } as const;
const TILE = { paddingHorizontal: 6, paddingVertical: 4 } as const;
const HALF = { width: "50%" } as const;
/** The last row is filled, however many are left for it. */
const THIRD = { flexBasis: "30%", flexGrow: 1 } as const;
const HEAD = { flexDirection: "row", justifyContent: "space-between", alignItems: "baseline" } as const;
const NUMBER: TextStyle = {
  fontFamily: "AtkinsonNextBold",
  fontSize: 15,
  lineHeight: 20,
  fontVariant: ["tabular-nums"],
};

/** The rpm of the last three quarters of a minute, large: for a wide screen that somebody else looks at. */
export const LiveRpm = memo(function LiveRpm({ coach }: { coach: Needles }) {
  const { all, from, start } = useLines(coach);
  const { ink, stone } = usePalette();
  const stride = Math.max(1, Math.floor((all.length - start) / (3 * POINTS)));
  return (
    <View style={{ minHeight: 140, flex: 1, borderRadius: 12, backgroundColor: stone }} aria-hidden>
      <Svg width="100%" height="100%" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none">
        <Path
          d={spark(all, start, stride, from, { name: "", unit: "rpm", decimals: 0, of: (line) => line.rpm })}
          fill="none"
          stroke={ink}
          strokeWidth={3}
          strokeLinejoin="round"
          vectorEffect="non-scaling-stroke"
        />
      </Svg>
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
