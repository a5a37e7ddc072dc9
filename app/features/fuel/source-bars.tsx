import type { FuelUnits } from "@cravix/core/fuel/grade/fuel-text";
import type { FuelEstimate, FuelSource } from "@cravix/core/fuel/log/fuel-sources";
import { Z_95_TWO_SIDED } from "@cravix/core/units/uncertain";
import { View } from "react-native";
import Svg, { G, Line, Path, Rect, Text as SvgText } from "react-native-svg";
import { usePalette } from "../../ui/paint/use-palette";
import { Text } from "../../ui/text";

const ROW = 30;
const LEFT = 62;
const RIGHT = 292;

const WORDS: Record<FuelSource["kind"], string> = {
  dip: "Dipstick",
  mark: "Mark",
  sight: "Sight glass",
  gauge: "Gauge",
  log: "Log",
};

/** A different shape for each source: wedge, bar, bead, diamond, square. */
function shape(kind: FuelSource["kind"], x: number, y: number): string {
  switch (kind) {
    case "dip":
      return `M${x - 7} ${y - 8} H${x + 7} L${x} ${y + 8} Z`;
    case "mark":
      return `M${x - 3} ${y - 9} H${x + 3} V${y + 9} H${x - 3} Z`;
    case "sight":
      return `M${x} ${y - 7} A7 7 0 1 1 ${x} ${y + 7} A7 7 0 1 1 ${x} ${y - 7} Z`;
    case "gauge":
      return `M${x} ${y - 9} L${x + 8} ${y} L${x} ${y + 9} L${x - 8} ${y} Z`;
    case "log":
      return `M${x - 7} ${y - 7} H${x + 7} V${y + 7} H${x - 7} Z`;
  }
}

interface SourceBarsProps {
  name: string;
  capacityL: number;
  words: FuelUnits;
  sources: readonly FuelSource[];
  estimate: FuelEstimate;
}

/** Each source's value for one tank on a common scale with its uncertainty, and the estimate. */
export function SourceBars({ name, capacityL, sources, estimate, words }: SourceBarsProps) {
  const { ink, stone, chock, clay } = usePalette();
  const most = Math.max(capacityL, ...sources.map((w) => w.litres.value));
  const x = (litres: number) => LEFT + (Math.min(most, Math.max(0, litres)) / most) * (RIGHT - LEFT);
  const height = sources.length * ROW + 8;
  const said = sources.map(({ kind, litres }) => `${WORDS[kind]} ${words.say(litres.value)}`).join(", ");
  return (
    <View className="rounded-xl bg-stone px-3 py-2" testID={`sources-${name}`}>
      <View className="flex-row items-baseline justify-between">
        <Text className="font-strong">{name}</Text>
        <Text className="font-strong text-lg">
          {words.say(estimate.litres.value)}
          <Text className="text-sm text-voice">{`  ${words.number(estimate.lowL)} to ${words.number(estimate.highL)}`}</Text>
        </Text>
      </View>
      <View
        accessible
        role="img"
        aria-label={`${name}: ${said}`}
        style={{ aspectRatio: 350 / height }}
        className="w-full"
      >
        <Svg width="100%" height="100%" viewBox={`0 0 350 ${height}`}>
          <Rect
            x={x(estimate.lowL)}
            y={0}
            width={Math.max(4, x(estimate.highL) - x(estimate.lowL))}
            height={height}
            fill={chock}
            opacity={0.55}
          />
          {sources.map(({ kind, litres }, i) => {
            const y = ROW / 2 + 4 + i * ROW;
            const odd = estimate.odd === kind;
            const reach = Z_95_TWO_SIDED * litres.sigma;
            return (
              <G key={kind}>
                <SvgText
                  x={2}
                  y={y + 5}
                  fontSize={15}
                  fill={ink}
                  fontFamily={odd ? "AtkinsonNextBold" : "AtkinsonNext"}
                >
                  {WORDS[kind]}
                </SvgText>
                <Line x1={LEFT} x2={RIGHT} y1={y} y2={y} stroke={stone} strokeWidth={1} />
                <Line
                  x1={x(litres.value - reach)}
                  x2={x(litres.value + reach)}
                  y1={y}
                  y2={y}
                  stroke={odd ? clay : ink}
                  strokeWidth={3}
                />
                <Path d={shape(kind, x(litres.value), y)} fill={odd ? clay : ink} />
                <SvgText
                  x={348}
                  y={y + 5}
                  fontSize={15}
                  fill={odd ? clay : ink}
                  textAnchor="end"
                  fontFamily="AtkinsonNextSemiBold"
                >
                  {words.say(litres.value)}
                </SvgText>
              </G>
            );
          })}
        </Svg>
      </View>
      {!estimate.agree && (
        <Text className="font-mid text-clay">
          {estimate.odd
            ? `${WORDS[estimate.odd]} disagrees with the others: check it`
            : "Sources disagree: the lowest is used"}
        </Text>
      )}
    </View>
  );
}
