import type { Channel, Trace } from "@cravix/core/run-up";
import { kindOf, type TraceColumn, toOwnUnit, type UnitKind, unitsFor } from "./trace-columns";

/** A unit that has to be told: none stands in the file, or the numbers cannot be in the one that does. */
export interface UnitQuestion {
  kind: UnitKind;
  /** The columns in question, as their headers say. */
  headers: string[];
  why: "no unit" | "does not fit";
  /** The unit that was taken for now. */
  taken: string;
  /** The units that the numbers could be in. */
  could: string[];
}

/** What the highest reading of an engine that was run up lies between, in the trace's own unit. Generous; common practice. */
const HIGHEST: Partial<Record<UnitKind, readonly [number, number]>> = {
  // An idle in °F is as high as a lean run-up in °C: that is asked.
  egt: [850, 1750],
  cht: [190, 520],
  oilTemperature: [95, 260],
  oilPressure: [25, 130],
  map: [12.5, 45],
  suction: [2.6, 8],
};
/** What no engine shows, whatever it was doing: a unit that stands in a file is doubted for nothing less. */
const POSSIBLE: Partial<Record<UnitKind, readonly [number, number]>> = {
  egt: [780, 2000],
  cht: [110, 700],
  oilPressure: [12, 200],
  map: [8, 70],
};
/** So many of the highest readings are left out at most, and so much of them: a probe that jumps. A run-up may be a small part of a long file. */
const SPIKES = 20;
const SPIKES_PART = 0.02;
/** Fewer readings than this say nothing of their unit. */
const FEWEST = 20;

/** The units in which a column's numbers are those of an engine, the trace's own first; undefined where nothing can be said of such a column. */
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
  // Nobody gives a manifold's pressure in psi where anything else is as likely.
  const likely = kind === "map" && fitting.length > 1 ? fitting.filter((unit) => unit !== "psi") : fitting;
  // Two names of one size are one unit.
  return likely.filter(
    (unit, i) => likely.findIndex((one) => toOwnUnit(channel, one, 1) === toOwnUnit(channel, unit, 1)) === i,
  );
}

/** A number in the trace's own unit as it stood in the file. Every unit is a straight line: two points of it say the way back. */
function asWritten(channel: Channel, unit: string, own: number): number {
  const zero = toOwnUnit(channel, unit, 0);
  return (own - zero) / (toOwnUnit(channel, unit, 1) - zero);
}

/**
 * Holds each column's unit against its numbers. Where no unit stood in the file and the numbers fit one unit only, that is taken, in the column and in its values; what stays open, or
 * cannot be what the file says, becomes a question. All columns of a kind are answered as one, by most of them: a dead probe decides nothing. Changes `columns` and `channels`.
 */
export function settleUnits(columns: TraceColumn[], channels: Trace["channels"]): UnitQuestion[] {
  // The exhaust first: what it is in tells of the other temperatures.
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
    // A monitor shows all its temperatures in one unit.
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
    // What was told by hand is not asked again.
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

/** Whether an engine can show such numbers in the unit that stands in the file. Own units. */
function isPossible(kind: UnitKind, values: Float64Array): boolean {
  const range = POSSIBLE[kind];
  let highest = Number.NEGATIVE_INFINITY;
  for (const value of values) if (value > highest) highest = value;
  return !range || (highest >= range[0] && highest <= range[1]);
}

/** Whether a unit is one of these, or another name for it. */
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
