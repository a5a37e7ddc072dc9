import { type Channel, cylindersOf, MAX_CYLINDERS, type Trace } from "@cravix/core/run-up";
import { formatNumber } from "@cravix/core/units/format";
import { memo, useEffect, useState } from "react";
import { Text, type TextStyle, useWindowDimensions, View } from "react-native";
import Svg, { Path } from "react-native-svg";
import { usePalette } from "../../../ui/paint/use-palette";
import type { Coach } from "./use-coach";

interface Shown {
  name: string;
  unit: string;
  decimals: number;
  /** Value at a sample; NaN if missing. */
  of: (trace: Trace, at: number) => number;
}

const WIDTH = 100;
const HEIGHT = 26;
const COLUMNS = 3;
/** Height of everything around the plots on a wide screen. */
const AROUND = 160;
const HEAD_HEIGHT = 32;
/** Seconds shown per tile, and its points. */
const SPAN_S = 45;
const POINTS = 110;

const plain = (channel: Channel, name: string, unit: string, decimals: number) => ({
  channel,
  shown: {
    name,
    unit,
    decimals,
    of: ({ channels }: Trace, at: number) => channels[channel]?.[at] ?? Number.NaN,
  },
});

const PLAIN = [
  plain("map", "Manifold", "inHg", 1),
  plain("fuelFlow", "Fuel flow", "gal/h", 1),
  plain("oilPressure", "Oil pressure", "psi", 0),
  plain("oilTemperature", "Oil temp.", "°F", 0),
  plain("volts", "Volts", "V", 1),
  plain("amps", "Amps", "A", 0),
  plain("suction", "Suction", "inHg", 1),
];
const { shown: RPM } = plain("rpm", "Engine", "rpm", 0);

const HOTTEST: Shown = {
  name: "Hottest CHT",
  unit: "°F",
  decimals: 0,
  of: ({ channels }, at) => {
    let most = Number.NaN;
    for (let i = 1; i <= MAX_CYLINDERS; i++) {
      const head = channels[`cht${i}`]?.[at] ?? Number.NaN;
      if (!Number.isNaN(head) && !(head <= most)) most = head;
    }
    return most;
  },
};

/** Every channel received so far; one that stopped stays, without a number. */
function channelsOf(trace: Trace): Shown[] {
  return [
    ...PLAIN.filter(({ channel }) => trace.channels[channel]).map(({ shown }) => shown),
    ...(cylindersOf(trace, "cht").length > 0 ? [HOTTEST] : []),
    ...cylindersOf(trace, "egt").map((i) => plain(`egt${i}`, `EGT ${i}`, "°F", 0).shown),
  ];
}

/** Data source of the plots. */
export type Gauges = Pick<Coach, "log" | "watch">;

/** Rerenders only when new samples arrive. */
function useLast({ log, watch }: Gauges): Trace {
  const [, draw] = useState(0);
  useEffect(() => watch(() => draw((count) => count + 1)), [watch]);
  return log.since(log.now - SPAN_S);
}

/**
 * Every channel with its number and the last 45 seconds. Updated ten times a second, so styles are inline and only the plotted
 * lines change.
 */
export const LiveChannels = memo(function LiveChannels({
  coach,
  wide,
  rpm,
}: {
  coach: Gauges;
  wide: boolean;
  /** True if another channel has the large number. */
  rpm: boolean;
}) {
  const trace = useLast(coach);
  const palette = usePalette();
  const screen = useWindowDimensions();
  const last = trace.t.length - 1;
  if (last < 0) return null;
  const channels = [...(rpm ? [RPM] : []), ...channelsOf(trace)];
  // Fill a wide screen with any number of channels.
  const rows = Math.ceil(channels.length / COLUMNS);
  const height = wide ? Math.max(40, Math.floor((screen.height - AROUND) / rows) - HEAD_HEIGHT) : HEIGHT;
  const stride = strideOf(trace, POINTS);
  return (
    <View style={ROWS} testID="channels">
      {channels.map((channel) => {
        const value = channel.of(trace, last);
        return (
          <View key={channel.name + channel.unit} style={[TILE, wide ? THIRD : HALF]}>
            <Head shown={channel} value={value} palette={palette} />
            <View style={{ height, backgroundColor: palette.stone, borderRadius: 4 }} aria-hidden>
              <Svg width="100%" height={height} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none">
                <Path
                  d={spark(trace, stride, channel)}
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

function Head({
  shown: { name, unit, decimals },
  value,
  palette,
}: {
  shown: Shown;
  value: number;
  palette: ReturnType<typeof usePalette>;
}) {
  const small = { fontFamily: "AtkinsonNext", fontSize: 13, lineHeight: 18, color: palette.voice };
  return (
    <View style={HEAD}>
      <Text style={small}>{name}</Text>
      <Text style={[NUMBER, { color: palette.ink }]}>
        {Number.isNaN(value) ? "–" : formatNumber(value, decimals)}
        <Text style={small}>{` ${unit}`}</Text>
      </Text>
    </View>
  );
}

const ROWS = { flexDirection: "row", flexWrap: "wrap" } as const;
const TILE = { paddingHorizontal: 6, paddingVertical: 4 } as const;
const HALF = { width: "50%" } as const;
/** The last row is filled with any number of tiles. */
const THIRD = { flexBasis: "30%", flexGrow: 1 } as const;
const HEAD = { flexDirection: "row", justifyContent: "space-between", alignItems: "baseline" } as const;
const NUMBER: TextStyle = {
  fontFamily: "AtkinsonNextBold",
  fontSize: 15,
  lineHeight: 20,
  fontVariant: ["tabular-nums"],
};

/** Rpm of the last 45 seconds, large, for a wide screen. */
export const LiveRpm = memo(function LiveRpm({ coach }: { coach: Gauges }) {
  const trace = useLast(coach);
  const palette = usePalette();
  const last = trace.t.length - 1;
  return (
    <View style={RPM_BOX}>
      {last >= 0 && <Head shown={RPM} value={RPM.of(trace, last)} palette={palette} />}
      <View style={[RPM_PLOT, { backgroundColor: palette.stone }]} aria-hidden>
        <Svg width="100%" height="100%" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none">
          <Path
            d={spark(trace, strideOf(trace, 3 * POINTS), RPM)}
            fill="none"
            stroke={palette.ink}
            strokeWidth={3}
            strokeLinejoin="round"
            vectorEffect="non-scaling-stroke"
          />
        </Svg>
      </View>
    </View>
  );
});

const RPM_BOX = { minHeight: 140, flex: 1 } as const;
const RPM_PLOT = { minHeight: 0, flex: 1, borderRadius: 12 } as const;

function strideOf(trace: Trace, points: number): number {
  return Math.max(1, Math.floor(trace.t.length / points));
}

function spark(trace: Trace, stride: number, { of }: Shown): string {
  const { t } = trace;
  const from = (t.at(-1) ?? 0) - SPAN_S;
  let least = Number.POSITIVE_INFINITY;
  let most = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < t.length; i += stride) {
    const value = of(trace, i);
    if (value < least) least = value;
    if (value > most) most = value;
  }
  // A steady value is a steady line, not magnified noise.
  const span = Math.max(most - least, Math.abs(most) * 0.04, 0.5);
  const middle = (most + least) / 2;
  let d = "";
  for (let i = 0; i < t.length; i += stride) {
    const value = of(trace, i);
    if (Number.isNaN(value)) continue;
    const x = (((t[i] as number) - from) / SPAN_S) * WIDTH;
    const y = HEIGHT / 2 - ((value - middle) / span) * (HEIGHT - 6);
    d += `${d ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`;
  }
  return d;
}
