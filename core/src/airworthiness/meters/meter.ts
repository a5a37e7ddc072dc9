import { QuantityError } from "../../units/convert";
import { formatNumber } from "../../units/format";

/**
 * What a meter counts. Each due item names its meter: tachometer time runs slower than the clock below cruise rpm, air time stops
 * on the ground.
 */
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

/** Replacement of a meter: last reading of the old one, first reading of the new one. */
export interface MeterChange {
  /** Time, ISO 8601. */
  at: string;
  oldReading: number;
  newReading: number;
}

/** One meter of an aircraft. Totals continue when it is replaced. */
export interface Meter {
  id: string;
  name: string;
  kind: MeterKind;
  /** Decimals it shows: 0 for counters. */
  decimals: number;
  /** Aircraft total when this meter read zero; it may have been fitted years after the aircraft was built. */
  offset?: number;
  changes?: MeterChange[];
  /** Increments by one flight, if it differs from the flight's length: per flight hour, and for each flight besides. */
  runs?: { perHour: number; perFlight?: number };
  /** Meters whose totals it adds up; it has no reading of its own. */
  sumOf?: string[];
}

/** True for counters, false for hours. */
export function isCounted(kind: MeterKind): boolean {
  return kind !== "hour meter" && kind !== "tachometer time" && kind !== "air time";
}

/** Rounds away floating-point error, so that 4,280.0 − 4,277.9 is exactly 2.1. */
export function roundMeter(value: number): number {
  return Math.round(value * 1e4) / 1e4;
}

/**
 * Offset to add to a reading at a given time to get the total: the initial offset plus what earlier meters counted. A reading at
 * the exact moment of a replacement belongs to the old meter. `at` in ISO 8601.
 */
export function offsetAt({ offset = 0, changes = [] }: Meter, at: string): number {
  return changes
    .filter((change) => Date.parse(change.at) < Date.parse(at))
    .reduce((sum, { oldReading, newReading }) => roundMeter(sum + oldReading - newReading), offset);
}

/** Total for a reading, hours or a count. Valid range: readings ≥ 0; throws QuantityError otherwise. */
export function totalOf(meter: Meter, reading: number, at: string): number {
  assertReading(meter, reading);
  return roundMeter(reading + offsetAt(meter, at));
}

/** Reading the meter should show at a total. */
export function readingFor(meter: Meter, total: number, at: string): number {
  return roundMeter(total - offsetAt(meter, at));
}

function assertReading({ name }: Meter, reading: number): void {
  if (!Number.isFinite(reading) || reading < 0)
    throw new QuantityError(`${name}: enter 0 or a higher number.`);
}

/**
 * Totals with those of meters that add up others; a sum with an unknown part stays unknown. The same object if there is nothing to
 * add. Complexity: O(meters · parts).
 */
export function totalsWithSums(
  totals: Readonly<Record<string, number>>,
  meters: readonly Pick<Meter, "id" | "sumOf">[],
): Readonly<Record<string, number>> {
  let made = totals;
  for (const { id, sumOf } of meters) {
    if (!sumOf) continue;
    const parts = sumOf.map((part) => (Object.hasOwn(totals, part) ? totals[part] : undefined));
    if (parts.some((part) => part === undefined)) continue;
    made = { ...made, [id]: roundMeter(parts.reduce<number>((sum, part) => sum + (part as number), 0)) };
  }
  return made;
}

/** Hours that a flight of this many hours adds to an hour meter. Valid range: hours ≥ 0. */
export const hoursOfFlight = ({ runs }: Pick<Meter, "runs">, hours: number): number =>
  runs ? roundMeter(hours * runs.perHour + (runs.perFlight ?? 0)) : hours;

/** No aircraft or engine reaches these. */
const MAX_HOURS = 100_000;
const MAX_COUNT = 1_000_000;

/**
 * Fault in the form of a reading: negative, or with more decimals than the meter shows (usually a typing error). Undefined if
 * there is none.
 */
export function readingFault(meter: Meter, reading: number): string | undefined {
  const { name, decimals, kind } = meter;
  if (!Number.isFinite(reading) || reading < 0) return `${name}: enter 0 or a higher number.`;
  if (reading > (isCounted(kind) ? MAX_COUNT : MAX_HOURS))
    return `${name}: ${formatNumber(reading)} is too high. Check the reading.`;
  const scale = 10 ** decimals;
  if (Math.abs(reading * scale - Math.round(reading * scale)) < 1e-6) return undefined;
  return decimals === 0
    ? `${name}: enter a whole number, not ${reading}.`
    : `${name} reads in ${decimals === 1 ? "tenths" : "hundredths"}: ${reading} has too many digits.`;
}
