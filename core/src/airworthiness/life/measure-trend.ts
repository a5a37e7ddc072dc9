import { theilSen } from "../../trend/theil-sen";
import { formatNumber } from "../../units/format";
import { roundMeter } from "../meters/meter";

/** A recorded measure: number and unit. */
export interface Measured {
  value: number;
  /** Lower case, trimmed; empty for a bare number. */
  unit: string;
}

/** Limit for a discrepancy's measure, set by an authorised person. */
export interface MeasureLimit {
  most: number;
  unit: string;
  /** Where it comes from: a handbook page, a mechanic. */
  source: string;
}

/** One observation plotted against usage. */
export interface MeasuredAt {
  at: string;
  /** Hours flown by the aircraft since the first observation, or days if its hours are not logged. */
  x: number;
  value: number;
}

/** How a measure has developed, and when it may reach its limit. */
export interface MeasureTrend {
  unit: string;
  points: MeasuredAt[];
  /** Number of observations in other units or without a number: not drawn. */
  left: number;
  /** Per unit of x; absent with fewer than three observations or all at the same time. */
  slope?: { middle: number; low: number; high: number };
  /** True if it is certain to be growing. */
  grows: boolean;
  /** Usage left until the limit: median and earliest. Absent without a limit in this unit, or while it does not grow. */
  toLimit?: { middle: number; earliest: number };
  /** At or over the limit already. */
  over: boolean;
}

const WRITTEN = /^\D{0,20}?(\d{1,6}(?:[.,]\d{1,4})?)\s*([^\d]{0,40})$/;

/** Reads "4 mm", "about 3,5 drops a minute"; undefined if the text has no single number. */
export function readMeasure(text: string): Measured | undefined {
  const [, number, unit] = WRITTEN.exec(text.trim()) ?? [];
  if (number === undefined || unit === undefined) return undefined;
  return { value: Number(number.replace(",", ".")), unit: sameUnit(unit) };
}

/** Normalises units: "drops / min.", "drops a minute" and "drops per minute" are equal. */
export const sameUnit = (unit: string): string =>
  unit
    .trim()
    .toLowerCase()
    .replace(/\.$/, "")
    .replace(/\s*(?:\/|\bper\b|\ba\b)\s*/g, " a ")
    .replace(/\bmin\b/g, "minute")
    .replace(/\s+/g, " ");

/** Explains why a measure exceeds its limit; undefined if it does not, or if the units differ. */
export function overLimit(measure: string | undefined, limit: MeasureLimit): string | undefined {
  const read = measure === undefined ? undefined : readMeasure(measure);
  if (!read || read.unit !== sameUnit(limit.unit) || read.value < limit.most) return undefined;
  return `The limit is ${formatNumber(limit.most, Number.isInteger(limit.most) ? 0 : 1)} ${limit.unit} (${limit.source}).`;
}

/** Minimum observations for a trend line. */
const LEAST = 3;

/**
 * Trend of one discrepancy's measure over usage: observations in the latest unit, a robust line with its interval, and the usage
 * left to the limit. No forecast from fewer than three observations, or while the line may be level. `flown` returns the hours
 * flown at a given time. Never throws. Complexity: O(n log n).
 * Source: Sen, J. Amer. Stat. Assoc. 63 (1968), for the line and its interval.
 */
export function measureTrend(
  looks: readonly { at: string; measure?: string }[],
  flown: (at: string) => number,
  limit?: MeasureLimit,
): MeasureTrend | undefined {
  const read = [...looks]
    .sort((a, b) => a.at.localeCompare(b.at))
    .flatMap(({ at, measure }) => {
      if (measure === undefined) return [];
      return [{ at, measured: readMeasure(measure) }];
    });
  const unit = read.findLast(({ measured }) => measured)?.measured?.unit;
  if (unit === undefined) return undefined;
  const own = read.flatMap(({ at, measured }) =>
    measured?.unit === unit ? [{ at, value: measured.value }] : [],
  );
  const begin = flown(own[0]?.at ?? "");
  const points = own.map(({ at, value }) => ({ at, value, x: roundMeter(flown(at) - begin) }));
  const left = read.length - points.length;
  const last = points.at(-1) as MeasuredAt;
  const applies = limit !== undefined && sameUnit(limit.unit) === unit;
  const over = applies && last.value >= limit.most;
  const apart = new Set(points.map(({ x }) => x)).size > 1;
  if (points.length < LEAST || !apart) return { unit, points, left, grows: false, over };
  const line = theilSen(
    points.map(({ x }) => x),
    points.map(({ value }) => value),
  );
  const slope = { middle: line.slope, low: line.low, high: line.high };
  const grows = line.slope > 0 && line.low > 0;
  const to = (rate: number) => Math.max(0, (limit as MeasureLimit).most - last.value) / rate;
  return {
    unit,
    points,
    left,
    slope,
    grows,
    over,
    ...(applies &&
      !over &&
      line.slope > 0 && {
        toLimit: { middle: to(line.slope), earliest: to(Math.max(line.high, line.slope)) },
      }),
  };
}

/**
 * Usage of an aircraft at given times, from its daily totals: hours of its first hour meter, stepwise by day; days if it has
 * none.
 */
export function usageAt(
  days: readonly { date: string; uses: Readonly<Record<string, number>> }[],
  meter: string | undefined,
): (at: string) => number {
  if (meter === undefined) return (at) => Date.parse(at) / 86_400_000;
  const sorted = [...days].sort((a, b) => a.date.localeCompare(b.date));
  return (at) => {
    const day = at.slice(0, 10);
    // Usage of the day itself comes after that day's preflight observation.
    return roundMeter(
      sorted.reduce((sum, { date, uses }) => (date < day ? sum + (uses[meter] ?? 0) : sum), 0),
    );
  };
}
