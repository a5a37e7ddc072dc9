import { daysBetween, type LocalDate } from "@cravix/core/airworthiness/calendar/local-date";
import Svg, { Circle, Line, Rect, Text as SvgText } from "react-native-svg";
import { usePalette } from "../../ui/paint/use-palette";

/** Months ahead on the axis. */
export const AXIS_MONTHS = 24;
const AXIS_DAYS = AXIS_MONTHS * 30.44;

/** Position of a day on the axis, 0 to 1; near weeks get more room than the far year. */
export function onAxis(today: LocalDate, date: LocalDate): number {
  return Math.sqrt(Math.min(AXIS_DAYS, Math.max(0, daysBetween(today, date))) / AXIS_DAYS);
}

const TICKS = [
  ["today", 0],
  ["1 month", 30.44],
  ["3", 91.3],
  ["6", 182.6],
  ["12", 365.3],
  ["24", AXIS_DAYS],
] as const;

/** Scale above the rows. */
export function AxisScale({ width }: { width: number }) {
  const { voice } = usePalette();
  return (
    <Svg width={width} height={20} aria-hidden>
      {TICKS.map(([words, days]) => {
        const x = Math.sqrt(days / AXIS_DAYS) * (width - 16) + 8;
        return (
          <SvgText
            key={words}
            x={x}
            y={14}
            fontSize={12}
            fontFamily="AtkinsonNext"
            fill={voice}
            textAnchor={days === 0 ? "start" : days === AXIS_DAYS ? "end" : "middle"}
          >
            {words}
          </SvgText>
        );
      })}
    </Svg>
  );
}

/** One item on the axis: a bead on its day, or a bar over its likely range. */
export function AxisRow({
  today,
  from,
  to,
  middle,
  overdue,
  width,
}: {
  today: LocalDate;
  from: LocalDate;
  middle?: LocalDate | undefined;
  to?: LocalDate | undefined;
  overdue: boolean;
  width: number;
}) {
  const { ink, stone, clay, voice } = usePalette();
  const x = (date: LocalDate) => onAxis(today, date) * (width - 16) + 8;
  const [left, right] = [x(from), to ? x(to) : width - 8];
  const colour = overdue ? clay : ink;
  const beyond = middle === undefined || daysBetween(today, middle) > AXIS_DAYS;
  return (
    <Svg width={width} height={22} aria-hidden>
      <Line x1={8} x2={width - 8} y1={11} y2={11} stroke={stone} strokeWidth={3} strokeLinecap="round" />
      {TICKS.slice(1, -1).map(([words, days]) => {
        const at = Math.sqrt(days / AXIS_DAYS) * (width - 16) + 8;
        return <Line key={words} x1={at} x2={at} y1={6} y2={16} stroke={stone} strokeWidth={2} />;
      })}
      {right - left > 10 && (
        <Rect x={left} y={7} width={right - left} height={8} rx={4} fill={voice} opacity={0.45} />
      )}
      {!beyond && <Circle cx={x(middle)} cy={11} r={6.5} fill={colour} />}
      {beyond && (
        <Line
          x1={width - 22}
          x2={width - 9}
          y1={11}
          y2={11}
          stroke={voice}
          strokeWidth={3}
          strokeDasharray="3 3"
        />
      )}
    </Svg>
  );
}
