import { can, type DiscrepancyDetail } from "@cravix/contract/client";
import { spokenDate } from "@cravix/core/airworthiness/calendar/local-date";
import { type MeasureTrend, measureTrend, usageAt } from "@cravix/core/airworthiness/life/measure-trend";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import { whenUsedUp } from "@cravix/core/airworthiness/plan/usage-pattern";
import { usualOf } from "@cravix/core/airworthiness/plan/when-due";
import { formatNumber } from "@cravix/core/units/format";
import { useMemo, useState } from "react";
import { type LayoutChangeEvent, View } from "react-native";
import Svg, { Circle, Line, Polyline, Text as SvgText } from "react-native-svg";
import { useBundle, useCrew } from "../../store/server/server-state";
import { todayIn } from "../../store/server/today";
import { useAppSelector } from "../../store/state/hooks";
import { usePalette } from "../../ui/paint/use-palette";
import { Heading, Text } from "../../ui/text";
import { SetLimit } from "./set-limit";

/** Trend of a measure over usage, and when it may reach its limit. */
export function Measured({ discrepancy: d, onDone }: { discrepancy: DiscrepancyDetail; onDone: () => void }) {
  const papers = useBundle(d.registration)?.papers ?? undefined;
  const crew = useCrew();
  const crewId = useAppSelector((state) => state.session.crewId);
  const role = crew.find((member) => member.id === crewId)?.role;
  const meter = papers?.record.meters.find(({ kind }) => !isCounted(kind))?.id;
  const trend = useMemo(() => {
    const first = d.openedMeasure ?? (d.observations.some((o) => o.measure) ? undefined : d.measure);
    const looks = [{ at: d.openedAt, ...(first !== undefined && { measure: first }) }, ...d.observations];
    return measureTrend(looks, usageAt(papers?.days ?? [], papers ? meter : undefined), d.limit);
  }, [d, papers, meter]);
  const byDate = useMemo(() => {
    if (!trend?.toLimit || !papers || meter === undefined) return undefined;
    const today = todayIn(papers.record.timeZone);
    const usual = usualOf(papers.days, papers.record.meters, today).get(meter);
    return usual && whenUsedUp(trend.toLimit.earliest, usual, today).from;
  }, [trend, papers, meter]);
  const may = can(role && { role }, "limit.set") && !d.closed && !d.withdrawn && !d.merged;
  if (!trend && !may) return null;
  const unit = papers && meter !== undefined ? "h" : "days";
  return (
    <View className="gap-2" testID="measured">
      {trend && trend.points.length > 1 && (
        <>
          <Heading className="text-lg">Measurements over time flown</Heading>
          <Chart trend={trend} limit={d.limit?.most} xUnit={unit} />
          {words(trend, unit, d.limit?.most).map((line) => (
            <Text key={line}>{line}</Text>
          ))}
          {byDate && (
            <Text className="font-mid">{`At the usual flying rate it may reach the limit on ${spokenDate(byDate)}.`}</Text>
          )}
        </>
      )}
      {d.limit && (
        <Text className={trend?.over ? "font-strong text-clay" : ""}>
          {`Limit ${formatNumber(d.limit.most, Number.isInteger(d.limit.most) ? 0 : 1)} ${d.limit.unit}: ${d.limit.source}.`}
        </Text>
      )}
      {may && <SetLimit id={d.id} unit={trend?.unit ?? ""} known={d.limit !== undefined} onDone={onDone} />}
    </View>
  );
}

function words(trend: MeasureTrend, xUnit: string, limit: number | undefined): string[] {
  const { slope, grows, over, toLimit, unit, left } = trend;
  const said: string[] = [];
  const short = (value: number) => formatNumber(value, value < 10 ? 1 : 0);
  if (!slope) said.push("A trend needs at least three measurements.");
  else if (grows) said.push(`Increasing by ${short(slope.middle * 10)} ${unit} per 10 ${xUnit}.`);
  else if (slope.middle > 0) said.push("It may be increasing: too few measurements to be sure.");
  else said.push("Not increasing.");
  if (over && limit !== undefined) said.push("The limit is reached.");
  if (toLimit)
    said.push(
      `About ${short(toLimit.middle)} ${xUnit} to the limit, ${short(toLimit.earliest)} ${xUnit} at the earliest.`,
    );
  if (left > 0)
    said.push(
      `${left} ${left === 1 ? "measurement uses" : "measurements use"} another unit and cannot be shown.`,
    );
  return said;
}

const HEIGHT = 150;
const PAD = { left: 34, right: 12, top: 14, bottom: 24 };

function Chart({ trend, limit, xUnit }: { trend: MeasureTrend; limit: number | undefined; xUnit: string }) {
  const { ink, stone, clay, voice } = usePalette();
  const [width, setWidth] = useState(320);
  const measure = ({ nativeEvent }: LayoutChangeEvent) => setWidth(Math.floor(nativeEvent.layout.width));
  const { points, unit, slope } = trend;
  const lastX = Math.max(points.at(-1)?.x ?? 1, 1);
  const most = Math.max(...points.map(({ value }) => value), limit ?? 0) * 1.1 || 1;
  const x = (value: number) => PAD.left + (value / lastX) * (width - PAD.left - PAD.right);
  const y = (value: number) => HEIGHT - PAD.bottom - (value / most) * (HEIGHT - PAD.top - PAD.bottom);
  const last = points.at(-1);
  return (
    <View onLayout={measure}>
      <Svg width={width} height={HEIGHT} aria-hidden>
        <Line x1={PAD.left} x2={width - PAD.right} y1={y(0)} y2={y(0)} stroke={stone} strokeWidth={2} />
        {limit !== undefined && (
          <>
            <Line
              x1={PAD.left}
              x2={width - PAD.right}
              y1={y(limit)}
              y2={y(limit)}
              stroke={clay}
              strokeWidth={2}
              strokeDasharray="6 4"
            />
            <SvgText
              x={PAD.left - 6}
              y={y(limit) + 4}
              fontSize={12}
              fontFamily="AtkinsonNext"
              fill={clay}
              textAnchor="end"
            >
              {String(limit)}
            </SvgText>
          </>
        )}
        {slope && last && (
          <Line
            x1={x(0)}
            x2={x(lastX)}
            y1={y(Math.max(0, last.value - slope.middle * lastX))}
            y2={y(last.value)}
            stroke={voice}
            strokeWidth={2}
          />
        )}
        <Polyline
          points={points.map((point) => `${x(point.x)},${y(point.value)}`).join(" ")}
          fill="none"
          stroke={stone}
          strokeWidth={2}
        />
        {points.map((point) => (
          <Circle key={`${point.at}${point.value}`} cx={x(point.x)} cy={y(point.value)} r={5} fill={ink} />
        ))}
        <SvgText
          x={PAD.left - 6}
          y={y(last?.value ?? 0) + 4}
          fontSize={12}
          fontFamily="AtkinsonNext"
          fill={ink}
          textAnchor="end"
        >
          {limit !== undefined && Math.abs(y(limit) - y(last?.value ?? 0)) < 14
            ? ""
            : String(last?.value ?? "")}
        </SvgText>
        <SvgText x={PAD.left} y={HEIGHT - 6} fontSize={12} fontFamily="AtkinsonNext" fill={voice}>
          {`when found (${unit || "count"})`}
        </SvgText>
        <SvgText
          x={width - PAD.right}
          y={HEIGHT - 6}
          fontSize={12}
          fontFamily="AtkinsonNext"
          fill={voice}
          textAnchor="end"
        >
          {`${formatNumber(lastX, lastX < 10 ? 1 : 0)} ${xUnit} later`}
        </SvgText>
      </Svg>
    </View>
  );
}
