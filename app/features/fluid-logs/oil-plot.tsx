import type { OilProfile } from "@cravix/core/oil/judge-oil";
import type { OilTrend } from "@cravix/core/oil/oil-consumption";
import { thinForPlot } from "@cravix/core/trend/thin-for-plot";
import { formatNumber } from "@cravix/core/units/format";
import { memo } from "react";
import { View } from "react-native";
import Svg, { Circle, G, Line, Path, Polygon, Text as SvgText } from "react-native-svg";
import { usePalette } from "../../ui/paint/use-palette";

const HEIGHT = 250;
const LEFT = 34;
const TOP = 20;
const BOTTOM = 196;
/** Right margin, so that "now" does not touch the frame. */
const MARGIN = 8;

interface OilPlotProps {
  trend: OilTrend;
  profile: OilProfile | undefined;
  /** Limit to the last hours; absent: all. */
  lastH?: number | undefined;
  /** Width in plot units, so that text keeps its size. */
  width: number;
}

/** Oil level over the hour meter: readings, additions, limits, forecast. */
export const OilPlot = memo(function OilPlot({ trend, profile, lastH, width }: OilPlotProps) {
  const { ink, stone, chock, clay, voice } = usePalette();
  const last = trend.use.at(-1);
  if (!last) return null;
  const right = width - MARGIN;
  const use = lastH === undefined ? trend.use : trend.use.filter((u) => u.hours >= last.hours - lastH);
  const { minimumQt, maximumQt } = profile ?? {};
  const { recent } = trend;
  const ahead =
    recent && recent.perH > 0 && minimumQt !== undefined && last.levelQt > minimumQt
      ? (last.levelQt - minimumQt) / recent.perH
      : 0;
  const from = use[0]?.hours ?? last.hours - 1;
  const shownAhead = Math.min(ahead * 1.15, Math.max(4, (last.hours - from) * 0.4));
  const to = last.hours + Math.max(1, shownAhead);
  const levels = use.map((u) => u.levelQt);
  const low = Math.min(...levels, minimumQt ?? Number.POSITIVE_INFINITY) - 0.3;
  const high = Math.max(...levels, maximumQt ?? Number.NEGATIVE_INFINITY) + 0.1;
  const x = (hours: number) => LEFT + ((hours - from) / (to - from)) * (right - LEFT);
  const y = (qt: number) => BOTTOM - ((qt - low) / (high - low)) * (BOTTOM - TOP);
  const points = thinForPlot(
    use.map((u) => ({ x: u.hours, y: u.levelQt })),
    Math.ceil(width / 2),
  );
  const line = points
    .map((p, i) => `${i === 0 ? "M" : "L"}${x(p.x).toFixed(1)} ${y(p.y).toFixed(1)}`)
    .join(" ");
  // Individual marks only while they can be told apart.
  const beads = use.length <= width / 6 ? use : [];
  const additions = use.filter((u) => u.addedQt > 0);
  const arrows = additions.length <= width / 14 ? additions : [];
  const end = last.hours + shownAhead;
  const at = (perH: number) => last.levelQt - perH * shownAhead;
  const limits = [
    { qt: maximumQt, words: "maximum", colour: ink, dash: "10 6", below: -5 },
    { qt: minimumQt, words: "minimum", colour: clay, dash: undefined, below: 16 },
  ];
  return (
    <View
      role="img"
      aria-label={`Oil level over ${formatNumber(last.hours - from)} hours, ${use.length} readings, ${additions.length} additions`}
      style={{ aspectRatio: width / HEIGHT }}
      testID="oil-plot"
    >
      <Svg width="100%" height="100%" viewBox={`0 0 ${width} ${HEIGHT}`}>
        {recent && shownAhead > 0 && (
          <Polygon
            points={`${x(last.hours)},${y(last.levelQt)} ${x(end)},${y(at(Math.max(0, recent.low)))} ${x(end)},${y(at(recent.high))}`}
            fill={chock}
          />
        )}
        {limits.map(({ qt, words, colour, dash, below }) =>
          qt === undefined ? null : (
            <G key={words}>
              <Line
                x1={LEFT}
                x2={right}
                y1={y(qt)}
                y2={y(qt)}
                stroke={colour}
                strokeWidth={2.5}
                {...(dash && { strokeDasharray: dash })}
              />
              <SvgText
                x={LEFT + 2}
                y={y(qt) + below}
                fontSize={14}
                fill={colour}
                fontFamily="AtkinsonNextSemiBold"
              >
                {`${words} ${formatNumber(qt, 1)}`}
              </SvgText>
            </G>
          ),
        )}
        {recent && shownAhead > 0 && (
          <Line
            x1={x(last.hours)}
            y1={y(last.levelQt)}
            x2={x(end)}
            y2={y(at(recent.perH))}
            stroke={ink}
            strokeWidth={2.5}
            strokeDasharray="7 5"
          />
        )}
        <Path
          d={line}
          fill="none"
          stroke={ink}
          strokeWidth={beads.length > 0 ? 2 : 1.2}
          strokeLinejoin="round"
        />
        {beads.map((u) => (
          <Circle key={u.at} cx={x(u.hours)} cy={y(u.levelQt)} r={3} fill={ink} />
        ))}
        {trend.change && trend.change.hours >= from && (
          <G>
            <Line
              x1={x(trend.change.hours)}
              x2={x(trend.change.hours)}
              y1={TOP}
              y2={BOTTOM}
              stroke={clay}
              strokeWidth={2}
              strokeDasharray="3 5"
            />
            <SvgText
              x={x(trend.change.hours)}
              y={TOP - 6}
              fontSize={14}
              fill={clay}
              textAnchor="middle"
              fontFamily="AtkinsonNextSemiBold"
            >
              change
            </SvgText>
          </G>
        )}
        <Line x1={LEFT} x2={right} y1={BOTTOM} y2={BOTTOM} stroke={stone} strokeWidth={3} />
        {arrows.map((u) => (
          <Path
            key={`a${u.at}`}
            d={`M${x(u.hours)} ${BOTTOM + 4} l6 9 h-4 v8 h-4 v-8 h-4 Z`}
            fill={chock}
            stroke={ink}
            strokeWidth={1.5}
          />
        ))}
        {scaleOf(low, high).map((qt) => (
          <SvgText
            key={qt}
            x={LEFT - 6}
            y={y(qt) + 5}
            fontSize={14}
            fill={voice}
            textAnchor="end"
            fontFamily="AtkinsonNext"
          >
            {formatNumber(qt, Number.isInteger(qt) ? 0 : 1)}
          </SvgText>
        ))}
        <SvgText x={LEFT} y={HEIGHT - 8} fontSize={14} fill={voice} fontFamily="AtkinsonNext">
          {`${formatNumber(from)} h`}
        </SvgText>
        <SvgText
          x={x(last.hours)}
          y={HEIGHT - 8}
          fontSize={14}
          fill={voice}
          textAnchor="end"
          fontFamily="AtkinsonNext"
        >
          {`${formatNumber(last.hours)} h`}
        </SvgText>
        {shownAhead > 0 && right - x(last.hours) > 44 && (
          <SvgText
            x={right}
            y={HEIGHT - 8}
            fontSize={14}
            fill={voice}
            textAnchor="end"
            fontFamily="AtkinsonNext"
          >
            forecast
          </SvgText>
        )}
      </Svg>
    </View>
  );
});

/** A few round numbers for the scale; tenths for a short range. */
function scaleOf(low: number, high: number): number[] {
  const step = [0.1, 0.2, 0.5, 1, 2, 5].find((s) => (high - low) / s <= 5) ?? 10;
  const first = Math.ceil(low / step);
  return Array.from({ length: Math.floor(high / step) - first + 1 }, (_, i) =>
    Number(((first + i) * step).toFixed(1)),
  );
}
