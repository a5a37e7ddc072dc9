import type { Totals } from "../meters/component";
import { type Meter, roundMeter, totalOf } from "../meters/meter";

/** What a meter showed before and after a flight. */
export interface OutAndIn {
  out: number;
  in: number;
}

/** One line of the technical log: one flight, or one unlogged gap that somebody has explained. */
export interface TechnicalLogEntry {
  id: string;
  registration: string;
  from: string;
  to: string;
  /** Off blocks or engine start, and on blocks or engine stop, ISO 8601 with their zone. */
  off: string;
  on: string;
  /** Pilot in command, and who else was crew, by their ids. */
  pilot: string;
  crew?: string[];
  /** Readings of meters that are read, by the meter's id. */
  meters: Record<string, OutAndIn>;
  /** What is counted by the flight, by the meter's id: landings, launches, cycles. */
  counts: Record<string, number>;
  /** Of the landings, those by night; of the take-offs too. */
  night?: { takeOffs: number; landings: number };
  takeOffs?: number;
  /** Litres put in before, and left after; quarts of oil put in. */
  fuel?: { addedL?: number; leftL?: number };
  oilAddedQt?: number;
  /** Discrepancies that were logged of this flight. */
  discrepancies?: string[];
  remarks?: string;
  /** The preflight that was accepted for it. */
  preflight?: string;
}

/** A correction of a line: the line as it should be, who, and why. The old one stays. */
export interface LineCorrection {
  of: string;
  line: TechnicalLogEntry | "struck out";
  why: string;
}

/** What a meter has come to, and since when nothing was added. Summing up more lines starts from here. */
export interface RunningTotals {
  totals: Totals;
  lines: number;
  /** The moment of the last landing that is in it. */
  lastOn?: string;
}

/**
 * One more line onto the totals: the highest total that a read meter ever showed, and the sum of what is counted. In which order lines come means
 * nothing. Complexity: O(meters).
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

/** The totals of an aircraft: where its record begins, and every line since. Complexity: O(lines · meters). */
export function foldTotals(
  start: Totals,
  lines: readonly TechnicalLogEntry[],
  meters: readonly Meter[],
): RunningTotals {
  return lines.reduce<RunningTotals>((so, line) => addLine(so, line, meters), { totals: start, lines: 0 });
}

/**
 * The lines as they stand after their corrections: of each line the last correction counts, and a struck-out one is not there. A correction of a
 * correction names the first line. Order of arrival means nothing: corrections are ordered by their ids. Complexity: O(n log n).
 */
export function correctedLines(
  lines: readonly TechnicalLogEntry[],
  corrections: readonly (LineCorrection & { id: string })[],
): TechnicalLogEntry[] {
  const last = new Map<string, LineCorrection & { id: string }>();
  for (const correction of corrections) {
    const known = last.get(correction.of);
    if (!known || known.id < correction.id) last.set(correction.of, correction);
  }
  return lines
    .flatMap((line) => {
      const correction = last.get(line.id);
      if (!correction) return [line];
      return correction.line === "struck out" ? [] : [{ ...correction.line, id: line.id }];
    })
    .sort(byOff);
}

export function byOff(a: TechnicalLogEntry, b: TechnicalLogEntry): number {
  return Date.parse(a.off) - Date.parse(b.off) || (a.id < b.id ? -1 : 1);
}
