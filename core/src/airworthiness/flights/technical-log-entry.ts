import type { Totals } from "../meters/component";
import { type Meter, roundMeter, totalOf } from "../meters/meter";

/** Meter readings before and after a flight. */
export interface OutAndIn {
  out: number;
  in: number;
}

/** One entry of the technical log: a flight, or a gap that a person explained. */
export interface TechnicalLogEntry {
  id: string;
  registration: string;
  from: string;
  to: string;
  /** Off blocks or engine start, and on blocks or engine stop, ISO 8601 with time zone. */
  off: string;
  on: string;
  /** Ids of the pilot in command and of the other crew. */
  pilot: string;
  crew?: string[];
  /** Readings by meter id. */
  meters: Record<string, OutAndIn>;
  /** Counts by meter id: landings, launches, cycles. */
  counts: Record<string, number>;
  /** Take-offs and landings at night, included in the totals. */
  night?: { takeOffs: number; landings: number; fullStops?: number };
  takeOffs?: number;
  /** Landings to a full stop, by day and at night. */
  fullStops?: number;
  /** Litres added before and left after the flight; quarts of oil added. */
  fuel?: { addedL?: number; leftL?: number };
  oilAddedQt?: number;
  /** Discrepancies logged on this flight. */
  discrepancies?: string[];
  remarks?: string;
  /** Use apart from flying: a ground run, cycles of a winch. Its meters count, and nobody took off. */
  ground?: true;
  /** Preflight accepted for it. */
  preflight?: string;
}

/** Totals of the meters, and the time since which nothing was added. Summing further entries starts from here. */
export interface RunningTotals {
  totals: Totals;
  lines: number;
  /** Time of the last landing included. */
  lastOn?: string;
}

/**
 * Adds one entry to the totals: the highest total a read meter ever showed, and the sum of counts. Independent of order.
 * Complexity: O(meters).
 */
export function addLine(
  before: RunningTotals,
  line: TechnicalLogEntry,
  meters: readonly Meter[],
): RunningTotals {
  const totals: Record<string, number> = { ...before.totals };
  for (const meter of meters) {
    const read = line.meters[meter.id];
    if (read) {
      const here = totalOf(meter, read.in, line.on);
      totals[meter.id] = Math.max(totals[meter.id] ?? here, here);
    }
    const counted = line.counts[meter.id];
    if (counted !== undefined) totals[meter.id] = roundMeter((totals[meter.id] ?? 0) + counted);
  }
  return {
    totals,
    lines: before.lines + 1,
    lastOn: before.lastOn !== undefined && before.lastOn > line.on ? before.lastOn : line.on,
  };
}

/** Totals of an aircraft: the start of its record plus every entry since. Complexity: O(entries · meters). */
export function foldTotals(
  start: Totals,
  lines: readonly TechnicalLogEntry[],
  meters: readonly Meter[],
): RunningTotals {
  return lines.reduce<RunningTotals>((so, line) => addLine(so, line, meters), { totals: start, lines: 0 });
}

export function byOff(a: TechnicalLogEntry, b: TechnicalLogEntry): number {
  return Date.parse(a.off) - Date.parse(b.off) || (a.id < b.id ? -1 : 1);
}
