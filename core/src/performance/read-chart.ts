import { assertFinite, QuantityError } from "../units/convert";
import { formatNumber } from "../units/format";
import type { Chart } from "./performance-profile";

/** Where something is asked of a chart. */
export interface ChartPoint {
  kg: number;
  pressureAltitudeFt: number;
  celsius: number;
}

/** Asked where the chart has nothing: no number is invented. */
export class OutsideChartError extends QuantityError {}

const UNIT = { kg: "kg", pressureAltitudeFt: "ft pressure altitude", celsius: "°C" } as const;

/**
 * A number off a chart, linear between its lines in all three directions. Lighter, lower and colder than the chart begins it is read at its beginning, which is no better
 * than it is; heavier, higher and hotter than it ends it throws OffChart. Valid range: finite numbers inside the chart; throws QuantityError for anything else.
 * Complexity: O(lines). Source: the chart's own.
 */
export function readChart(chart: Chart, point: ChartPoint): number {
  const k = place("kg", chart.kg, point.kg);
  const p = place("pressureAltitudeFt", chart.pressureAltitudeFt, point.pressureAltitudeFt);
  const t = place("celsius", chart.celsius, point.celsius);
  let sum = 0;
  for (const [i, a] of k)
    for (const [j, b] of p)
      for (const [n, c] of t) {
        const value = chart.values[i]?.[j]?.[n];
        if (value === undefined || !Number.isFinite(value))
          throw new OutsideChartError("The chart has no value there.");
        sum += a * b * c * value;
      }
  return sum;
}

/** Between which lines of an axis, and how much of each counts. */
function place(axis: keyof ChartPoint, lines: readonly number[], at: number): [number, number][] {
  assertFinite(`A number for the chart (${UNIT[axis]})`, at);
  const last = lines.length - 1;
  const end = lines[last];
  if (end === undefined) throw new OutsideChartError("The chart is empty.");
  if (at > end + 1e-9)
    throw new OutsideChartError(
      `${formatNumber(at)} ${UNIT[axis]} is off the chart, which ends at ${formatNumber(end)}. Use the handbook.`,
    );
  if (at <= (lines[0] as number)) return [[0, 1]];
  const i = Math.min(last - 1, Math.max(0, lines.findIndex((line) => line >= at) - 1));
  const [low, high] = [lines[i] as number, lines[i + 1] as number];
  const part = (at - low) / (high - low);
  return part === 0
    ? [[i, 1]]
    : [
        [i, 1 - part],
        [i + 1, part],
      ];
}
