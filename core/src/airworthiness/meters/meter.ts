import { QuantityError } from "../../units/convert";
import { formatNumber } from "../../units/format";

/** What a meter counts. Each due item names its own: tachometer time runs slower than the clock below cruise rpm, air time stops on the ground. */
export const METER_KINDS = [
  "hour meter",
  "tachometer time",
  "air time",
  "landings",
  "cycles",
  "winch launches",
  "aerotows",
  "releases",
] as const;
export type MeterKind = (typeof METER_KINDS)[number];

/** A meter that was taken out: what the old one said at the end, and where the new one began. */
export interface MeterChange {
  /** When, ISO 8601. */
  at: string;
  oldReading: number;
  newReading: number;
}

/** One meter of an aircraft. Totals go on when it is replaced. */
export interface Meter {
  id: string;
  name: string;
  kind: MeterKind;
  /** Decimals that it shows: 0 for what is counted. */
  decimals: number;
  /** What the aircraft had when this meter showed nothing: it may have been fitted long after the aircraft was built. */
  offset?: number;
  changes?: MeterChange[];
}

/** Hours of a clock, or things counted one by one. */
export function isCounted(kind: MeterKind): boolean {
  return kind !== "hour meter" && kind !== "tachometer time" && kind !== "air time";
}

/** Sums of tenths stay tenths: what is left of 4,280.0 at 4,277.9 is 2.1 and no hair less. */
export function roundMeter(value: number): number {
  return Math.round(value * 1e4) / 1e4;
}

/**
 * What is added to this meter's readings at a moment, to come to the total: what was there before it, and what the meters before it had counted.
 * A reading at the very moment of a change is the old meter's. `at` in ISO 8601.
 */
export function offsetAt({ offset = 0, changes = [] }: Meter, at: string): number {
  return changes
    .filter((change) => Date.parse(change.at) < Date.parse(at))
    .reduce((sum, { oldReading, newReading }) => roundMeter(sum + oldReading - newReading), offset);
}

/** The total that a reading means, hours or a count. Valid range: readings ≥ 0; throws QuantityError otherwise. */
export function totalOf(meter: Meter, reading: number, at: string): number {
  assertReading(meter, reading);
  return roundMeter(reading + offsetAt(meter, at));
}

/** What the meter should show at a total. */
export function readingFor(meter: Meter, total: number, at: string): number {
  return roundMeter(total - offsetAt(meter, at));
}

function assertReading({ name }: Meter, reading: number): void {
  if (!Number.isFinite(reading) || reading < 0)
    throw new QuantityError(`${name}: enter 0 or a higher number.`);
}

/**
 * What is wrong with the writing of a reading by itself: below nothing, or finer than the meter shows ("4,211.34" of a meter in tenths is most often
 * a figure too many). Undefined where nothing is.
 */
export function readingFault(meter: Meter, reading: number): string | undefined {
  const { name, decimals } = meter;
  if (!Number.isFinite(reading) || reading < 0) return `${name}: enter 0 or a higher number.`;
  if (reading > 1e6) return `${name}: ${formatNumber(reading)} is too high. Check the reading.`;
  const scale = 10 ** decimals;
  if (Math.abs(reading * scale - Math.round(reading * scale)) < 1e-6) return undefined;
  return decimals === 0
    ? `${name}: enter a whole number, not ${reading}.`
    : `${name} reads in ${decimals === 1 ? "tenths" : "hundredths"}: ${reading} has too many digits.`;
}
