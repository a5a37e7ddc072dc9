import type { Channel, Trace } from "@cravix/core/run-up";
import { kindOf, type TraceColumn, toOwnUnit, type UnitKind, unitsFor } from "./trace-columns";

/** A unit the user must choose: missing in the file, or contradicted by the numbers. */
export interface UnitQuestion {
  kind: UnitKind;
  /** Headers of the columns in question. */
  headers: string[];
  why: "no unit" | "does not fit";
  /** Unit assumed for now. */
  taken: string;
  /** Units the numbers allow. */
  could: string[];
}

/** Range of the highest reading of an engine that was run up, in the trace's unit. Generous; common practice. */
const HIGHEST: Partial<Record<UnitKind, readonly [number, number]>> = {
  // An idle in °F is as high as a lean run-up in °C: ask.
  egt: [850, 1750],
  cht: [190, 520],
  oilTemperature: [95, 260],
  oilPressure: [25, 130],
  map: [12.5, 45],
  suction: [2.6, 8],
};
/** Values no engine ever shows: only these contradict a unit in the file. */
const POSSIBLE: Partial<Record<UnitKind, readonly [number, number]>> = {
  egt: [780, 2000],
  cht: [110, 700],
  oilPressure: [12, 200],
  map: [8, 70],
};
/** Maximum number and share of highest readings ignored as spikes. A run-up may be a small part of a long file. */
const SPIKES = 20;
const SPIKES_PART = 0.02;
/** Minimum readings to judge a unit. */
const FEWEST = 20;

/** Units in which a column's numbers suit an engine, the trace's own first; undefined if this cannot be judged. */
export function couldBe(kind: UnitKind, channel: Channel, written: ArrayLike<number>): string[] | undefined {
  const range = HIGHEST[kind];
  if (!range) return undefined;
  const values = Array.from(written)
    .filter((value) => Number.isFinite(value))
    .sort((a, b) => a - b);
  if (values.length < FEWEST) return undefined;
  const highest = values[
    values.length - 1 - Math.min(SPIKES, Math.floor(values.length * SPIKES_PART))
  ] as number;
  const fitting = unitsFor(channel).filter((unit) => {
    const own = toOwnUnit(channel, unit, highest);
    return own >= range[0] && own <= range[1];
  });
  // Psi is unusual for manifold pressure if anything else fits.
  const likely = kind === "map" && fitting.length > 1 ? fitting.filter((unit) => unit !== "psi") : fitting;
  // Equivalent units count once.
  return likely.filter(
    (unit, i) => likely.findIndex((one) => toOwnUnit(channel, one, 1) === toOwnUnit(channel, unit, 1)) === i,
  );
}

/** Reverses a unit conversion: all are linear. */
function asWritten(channel: Channel, unit: string, own: number): number {
  const zero = toOwnUnit(channel, unit, 0);
  return (own - zero) / (toOwnUnit(channel, unit, 1) - zero);
}

/**
 * Checks each column's unit against its numbers. Without a unit in the file, a single fitting one is adopted; otherwise it
 * becomes a question, as does a contradiction. Columns of a kind are decided together by majority, so that a dead probe does not
 * matter. Modifies `columns` and `channels`.
 */
export function settleUnits(columns: TraceColumn[], channels: Trace["channels"]): UnitQuestion[] {
  // EGT first: its unit suggests that of the other temperatures.
  const kinds = new Map<UnitKind, TraceColumn[]>([["egt", []]]);
  for (const column of columns) {
    if (!column.field || column.field === "time" || !column.unit) continue;
    const kind = kindOf(column.field);
    kinds.set(kind, [...(kinds.get(kind) ?? []), column]);
  }
  const questions: UnitQuestion[] = [];
  for (const [kind, own] of kinds) {
    const votes = new Map<string, number>();
    let asked = 0;
    let possible = 0;
    for (const { field, unit } of own) {
      const values = channels[field as Channel];
      if (!values || !unit) continue;
      if (isPossible(kind, values)) possible++;
      const could = couldBe(
        kind,
        field as Channel,
        Float64Array.from(values, (value) => asWritten(field as Channel, unit, value)),
      );
      if (!could || could.length === 0) continue;
      asked++;
      for (const one of could) votes.set(one, (votes.get(one) ?? 0) + 1);
    }
    if (asked === 0) continue;
    const fitting = [...votes].filter(([, count]) => count * 2 > asked).map(([unit]) => unit);
    // A monitor shows all temperatures in one unit.
    const beside = kind === "cht" || kind === "oilTemperature" ? kinds.get("egt")?.[0]?.unit : undefined;
    const could = beside !== undefined && fitting.includes(beside) ? [beside] : fitting;
    const taken = own[0]?.unit as string;
    const assumed = own.every((column) => column.assumed);
    if (could.length === 0) continue;
    if (!assumed && (possible > 0 || fits(own[0]?.field as Channel, taken, fitting))) continue;
    if (assumed && could.length === 1) {
      for (const column of own) convert(column, could[0] as string, channels);
      continue;
    }
    // Units chosen by hand are not asked again.
    if (own.every((column) => column.told)) continue;
    questions.push({
      kind,
      headers: own.map(({ header }) => header),
      why: assumed ? "no unit" : "does not fit",
      taken,
      could,
    });
  }
  return questions;
}

/** True if an engine can show such numbers in the file's unit. Trace units. */
function isPossible(kind: UnitKind, values: Float64Array): boolean {
  const range = POSSIBLE[kind];
  let highest = Number.NEGATIVE_INFINITY;
  for (const value of values) if (value > highest) highest = value;
  return !range || (highest >= range[0] && highest <= range[1]);
}

/** True if a unit is one of these, or equivalent. */
const fits = (channel: Channel, unit: string, units: readonly string[]): boolean =>
  units.some((one) => toOwnUnit(channel, one, 1) === toOwnUnit(channel, unit, 1));

function convert(column: TraceColumn, unit: string, channels: Trace["channels"]): void {
  const channel = column.field as Channel;
  const values = channels[channel];
  if (values && column.unit)
    for (let i = 0; i < values.length; i++)
      values[i] = toOwnUnit(channel, unit, asWritten(channel, column.unit, values[i] as number));
  column.unit = unit;
}
