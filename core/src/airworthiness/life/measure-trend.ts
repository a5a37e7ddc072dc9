import { theilSen } from "../../trend/theil-sen";
import { formatNumber } from "../../units/format";
import { roundMeter } from "../meters/meter";

/** A measure as it was written down: a number and what it is counted in. */
export interface Measured {
  value: number;
  /** Lower case, without spaces at its ends; empty where a number stands alone. */
  unit: string;
}

/** A limit that who may has set for what is measured of a discrepancy. */
export interface MeasureLimit {
  most: number;
  unit: string;
  /** Where it comes from: the handbook's page, the mechanic's word. */
  source: string;
}

/** One look at it, laid over what was flown. */
export interface MeasuredAt {
  at: string;
  /** Hours flown by the aircraft since the first look, or days where nobody logs its hours. */
  x: number;
  value: number;
}

/** How a measure has gone, and when it may come to its limit. */
export interface MeasureTrend {
  unit: string;
  points: MeasuredAt[];
  /** So many looks are not in this unit, or were no number: they are not drawn. */
  left: number;
  /** For each unit of x; absent with fewer than three looks, or all at the same moment. */
  slope?: { middle: number; low: number; high: number };
  /** Whether it grows beyond doubt. */
  grows: boolean;
  /** How much further it may be flown to the limit: the middle, and the earliest. Absent without a limit in this unit, or while it does not grow. */
  toLimit?: { middle: number; earliest: number };
  /** At the limit or over it already. */
  over: boolean;
}

const WRITTEN = /^\D{0,20}?(\d{1,6}(?:[.,]\d{1,4})?)\s*([^\d]{0,40})$/;

/** Reads "4 mm", "about 3,5 drops a minute"; undefined for what holds no single number. */
export function readMeasure(text: string): Measured | undefined {
  const [, number, unit] = WRITTEN.exec(text.trim()) ?? [];
  if (number === undefined || unit === undefined) return undefined;
  return { value: Number(number.replace(",", ".")), unit: sameUnit(unit) };
}

/** "Drops / min.", "drops a minute" and "drops per minute" are one. */
export const sameUnit = (unit: string): string =>
  unit
    .trim()
    .toLowerCase()
    .replace(/\.$/, "")
    .replace(/\s*(?:\/|\bper\b|\ba\b)\s*/g, " a ")
    .replace(/\bmin\b/g, "minute")
    .replace(/\s+/g, " ");

/** Why what was measured is too much, in words; undefined where it is not, or where it is not in the unit of the limit. */
export function overLimit(measure: string | undefined, limit: MeasureLimit): string | undefined {
  const read = measure === undefined ? undefined : readMeasure(measure);
  if (!read || read.unit !== sameUnit(limit.unit) || read.value < limit.most) return undefined;
  return `The limit is ${formatNumber(limit.most, Number.isInteger(limit.most) ? 0 : 1)} ${limit.unit} (${limit.source}).`;
}

/** With so many looks a line is laid through them. */
const LEAST = 3;

/**
 * How a measure of one discrepancy has gone over what was flown: looks in the latest unit, a robust line through them with its interval, and how much further
 * it goes to a limit. Nothing is forecast from fewer than three looks, nor while the line may be level. `flown` gives what the aircraft had flown at a
 * moment, hours; never throws. Complexity: O(n log n).
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

/** What an aircraft had flown at moments, from its days: hours of its first hour meter, evenly over no day at all; by days where it has none. */
export function usageAt(
  days: readonly { date: string; uses: Readonly<Record<string, number>> }[],
  meter: string | undefined,
): (at: string) => number {
  if (meter === undefined) return (at) => Date.parse(at) / 86_400_000;
  const sorted = [...days].sort((a, b) => a.date.localeCompare(b.date));
  return (at) => {
    const day = at.slice(0, 10);
    // What was flown on the day itself comes after the look before the flight.
    return roundMeter(
      sorted.reduce((sum, { date, uses }) => (date < day ? sum + (uses[meter] ?? 0) : sum), 0),
    );
  };
}
