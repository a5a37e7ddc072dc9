import { assertFinite, QuantityError } from "../units/convert";
import { formatNumber } from "../units/format";
import type { Chart } from "./performance-profile";

/** Coordinates of a chart lookup. */
export interface ChartPoint {
  kg: number;
  pressureAltitudeFt: number;
  celsius: number;
}

/** Lookup outside the chart: no value is invented. */
export class OutsideChartError extends QuantityError {}

const UNIT = { kg: "kg", pressureAltitudeFt: "ft pressure altitude", celsius: "°C" } as const;

/**
 * Reads a chart by linear interpolation on all three axes. Below the chart's mass, altitude or temperature its first value is
 * used, which is conservative; above its end OutsideChartError is thrown. Valid range: finite numbers inside the chart; throws
 * QuantityError otherwise.
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

/** Neighbouring lines of an axis with their weights. */
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
