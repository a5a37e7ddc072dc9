import { formatNumber } from "../../units/format";
import { localDate, spokenDate } from "../calendar/local-date";
import { farAhead } from "../meters/far-ahead";
import { isCounted, type Meter, readingFault, roundMeter, totalOf } from "../meters/meter";
import type { TechnicalLogEntry } from "./technical-log-entry";

/** A fault in a technical log entry, or a question to confirm before it is saved. */
export interface LineFault {
  /** Field concerned. */
  at: string;
  kind:
    | "no time"
    | "in before out"
    | "future"
    | "long"
    | "reading"
    | "meter back"
    | "unlogged"
    | "faster than the clock"
    | "two at once"
    | "no landing"
    | "counts"
    | "too early";
  /** "refused": impossible. "asked": unusual, a person must confirm it. */
  weight: "refused" | "asked";
  words: string;
}

const HOUR_MS = 3_600_000;
/** Tolerance between clock time and meter: two tenths plus a twentieth of the flight (common practice). */
const SLACK = { hours: 0.2, part: 0.05 };
const MAX_H = 18;
/** A time a few minutes ahead means a wrong clock, not a flight of tomorrow. */
const AHEAD_MS = 10 * 60_000;

/** What is on record of the aircraft besides its flights. */
export interface RecordedSoFar {
  /** Total of each meter. */
  totals: Readonly<Record<string, number>>;
  /** Beginning of the record, ISO 8601. */
  from: string;
  /** Year in which the aircraft was built. */
  built?: number;
}

/**
 * Checks an entry before it is saved. `before` and `after` are its neighbours of the same aircraft in time, `others` entries of
 * any aircraft that may overlap. Nothing is corrected automatically. Times are absolute, so time zones and the date line do not
 * matter.
 * Source: arithmetic; "the next meter out is the last meter in" is common practice.
 */
export function checkLine(
  line: TechnicalLogEntry,
  {
    meters,
    before,
    after,
    others = [],
    now,
    record,
  }: {
    meters: readonly Meter[];
    before?: TechnicalLogEntry;
    after?: TechnicalLogEntry;
    others?: readonly TechnicalLogEntry[];
    now: string;
    record?: RecordedSoFar;
  },
): LineFault[] {
  const faults: LineFault[] = [];
  const say: Say = (at, kind, weight, words) => faults.push({ at, kind, weight, words });
  const [off, on] = [Date.parse(line.off), Date.parse(line.on)];
  if (Number.isNaN(off) || Number.isNaN(on)) {
    say(Number.isNaN(off) ? "off" : "on", "no time", "refused", "Enter a valid date and time.");
    return faults;
  }
  const hours = (on - off) / HOUR_MS;
  ofTimes({ off, on, hours, now }, say);
  if (record) ofDay(line, record, say);
  for (const meter of meters) {
    const read = line.meters[meter.id];
    if (read) {
      ofMeter(meter, read, { line, hours, before, after, say });
      if (record) againstTotals(meter, read, { line, first: !before && !after, record, say });
    } else if (!isCounted(meter.kind) && before?.meters[meter.id])
      say(`meters.${meter.id}.in`, "reading", "asked", `${meter.name}: no reading entered.`);
    ofCount(meter, line, say);
  }
  ofNight(line, meters, say);
  for (const other of others)
    if (other.id !== line.id && Date.parse(other.off) < on && off < Date.parse(other.on))
      overlapping(line, other, say);
  return faults;
}

function ofTimes(
  { off, on, hours, now }: { off: number; on: number; hours: number; now: string },
  say: Say,
): void {
  if (on <= off) say("on", "in before out", "refused", "On blocks must be later than off blocks.");
  else if (hours > MAX_H)
    say("on", "long", "asked", `${formatNumber(hours, 1)} hours in one flight. Check the date.`);
  if (on > Date.parse(now) + AHEAD_MS)
    say("on", "future", "refused", "On blocks is in the future. Check the time.");
}

function ofCount({ id, name, kind }: Meter, { counts, ground }: TechnicalLogEntry, say: Say): void {
  const counted = counts[id];
  if (counted !== undefined && (!Number.isInteger(counted) || counted < 0 || counted > 500))
    say(`counts.${id}`, "counts", "refused", `${name}: enter a whole number from 0 to 500.`);
  else if (kind === "landings" && (counted ?? 0) > 0 && ground)
    say(`counts.${id}`, "counts", "refused", "A ground run has no landings.");
  else if (kind === "landings" && (counted ?? 0) === 0 && !ground)
    say(`counts.${id}`, "no landing", "asked", "No landing entered for this flight. Check the number.");
}

function ofNight({ night, counts }: TechnicalLogEntry, meters: readonly Meter[], say: Say): void {
  if (!night) return;
  const landings = meters.find(({ kind }) => kind === "landings");
  const landed = landings && counts[landings.id];
  if (landed !== undefined && night.landings > landed)
    say("night.landings", "counts", "refused", "More night landings than total landings. Check both.");
  if (night.fullStops !== undefined && night.fullStops > night.landings)
    say(
      "night.fullStops",
      "counts",
      "refused",
      "More full stops at night than landings at night. Check both.",
    );
}

/** The same aircraft cannot fly twice at once, nor the same pilot in two aircraft. */
function overlapping(line: TechnicalLogEntry, other: TechnicalLogEntry, say: Say): void {
  if (other.registration === line.registration)
    say(
      "off",
      "two at once",
      "asked",
      `${line.registration} was already flying then: ${span(other)}, ${other.pilot}.`,
    );
  else if (other.pilot === line.pilot)
    say(
      "pilot",
      "two at once",
      "asked",
      `${line.pilot} was flying ${other.registration} then: ${span(other)}.`,
    );
}

const utc = (at: string) => new Date(at).toISOString().slice(11, 16);
const span = ({ off, on }: TechnicalLogEntry) => `${utc(off)} to ${utc(on)} UTC`;

type Say = (at: string, kind: LineFault["kind"], weight: LineFault["weight"], words: string) => void;

function ofMeter(
  meter: Meter,
  read: { out: number; in: number },
  {
    line,
    hours,
    before,
    after,
    say,
  }: {
    line: TechnicalLogEntry;
    hours: number;
    before?: TechnicalLogEntry | undefined;
    after?: TechnicalLogEntry | undefined;
    say: Say;
  },
): void {
  const { id, name, decimals } = meter;
  for (const side of ["out", "in"] as const) {
    const words = readingFault(meter, read[side]);
    if (words) say(`meters.${id}.${side}`, "reading", read[side] >= 0 ? "asked" : "refused", words);
  }
  if (read.out < 0 || read.in < 0 || !Number.isFinite(read.out + read.in)) return;
  const [out, back] = [totalOf(meter, read.out, line.off), totalOf(meter, read.in, line.on)];
  const shown = (total: number) => formatNumber(total, decimals);
  if (back < out)
    say(
      `meters.${id}.in`,
      "meter back",
      "refused",
      `${name}: the reading after the flight (${shown(read.in)}) is lower than before it (${shown(read.out)}). Check both.`,
    );
  else if (!isCounted(meter.kind) && back - out > hours * (1 + SLACK.part) + SLACK.hours)
    say(
      `meters.${id}.in`,
      "faster than the clock",
      "asked",
      `${name}: ${shown(roundMeter(back - out))} h, but only ${formatNumber(hours, 1)} h between off and on blocks. Check both.`,
    );
  againstNeighbours(meter, { out, back }, { before, after, say });
}

function againstNeighbours(
  meter: Meter,
  { out, back }: { out: number; back: number },
  {
    before,
    after,
    say,
  }: { before?: TechnicalLogEntry | undefined; after?: TechnicalLogEntry | undefined; say: Say },
): void {
  const { id, name, decimals } = meter;
  const shown = (total: number) => formatNumber(total, decimals);
  const last = before?.meters[id];
  if (before && last) {
    const was = totalOf(meter, last.in, before.on);
    const gap = roundMeter(out - was);
    if (gap < 0)
      say(
        `meters.${id}.out`,
        "meter back",
        "asked",
        `${name} read ${shown(last.in)} after the previous flight and cannot go back. Check the reading, or record that the meter was replaced.`,
      );
    else if (gap >= 10 ** -decimals - 1e-9)
      say(
        `meters.${id}.out`,
        "unlogged",
        "asked",
        `${name} read ${shown(last.in)} after the previous flight: ${shown(gap)} ${isCounted(meter.kind) ? "" : "h "}not logged. Which flight is missing?`,
      );
  }
  const next = after?.meters[id];
  if (after && next && totalOf(meter, next.out, after.off) < back - 1e-9)
    say(
      `meters.${id}.in`,
      "meter back",
      "asked",
      `${name} read ${shown(next.out)} before the next flight. One of the two readings is wrong.`,
    );
}

/** A flight before the aircraft was built is refused; one before its record begins is asked about. */
function ofDay({ registration, off }: TechnicalLogEntry, { built, from }: RecordedSoFar, say: Say): void {
  if (built !== undefined && off < `${built}-01-01`)
    say("day", "too early", "refused", `${registration} was built in ${built}. Check the date.`);
  else if (Date.parse(off) < Date.parse(from))
    say(
      "day",
      "too early",
      "asked",
      `The record of ${registration} begins on ${spokenDate(localDate(from))}. Check the date.`,
    );
}

/** Readings against the totals on record: far ahead is a typing error; the first entry continues from the starting totals. */
function againstTotals(
  meter: Meter,
  read: { out: number; in: number },
  {
    line,
    first,
    record: { totals },
    say,
  }: { line: TechnicalLogEntry; first: boolean; record: RecordedSoFar; say: Say },
): void {
  const onRecord = totals[meter.id];
  if (onRecord === undefined || readingFault(meter, read.out) || readingFault(meter, read.in)) return;
  const ahead = farAhead(meter, onRecord, totalOf(meter, read.in, line.on));
  if (ahead) say(`meters.${meter.id}.in`, "reading", "refused", ahead);
  if (!first) return;
  const gap = roundMeter(totalOf(meter, read.out, line.off) - onRecord);
  const shown = (total: number) => formatNumber(total, meter.decimals);
  if (gap !== 0 && !ahead)
    say(
      `meters.${meter.id}.out`,
      gap < 0 ? "meter back" : "unlogged",
      "asked",
      `${meter.name}: the record stands at ${shown(onRecord)}, ${shown(Math.abs(gap))} ${gap < 0 ? "more" : "less"} than this reading. Check it.`,
    );
}

/**
 * Checks a whole log of one aircraft in time order: gaps, meters that went back, overlapping flights.
 * Complexity: O(n log n) plus the overlaps.
 */
export function checkLog(
  lines: readonly TechnicalLogEntry[],
  meters: readonly Meter[],
  now: string,
): { line: string; faults: LineFault[] }[] {
  const inTime = [...lines].sort((a, b) => Date.parse(a.off) - Date.parse(b.off));
  const found: { line: string; faults: LineFault[] }[] = [];
  let latest: TechnicalLogEntry | undefined;
  inTime.forEach((line, i) => {
    const before = inTime[i - 1];
    const others = latest && Date.parse(latest.on) > Date.parse(line.off) ? [latest] : [];
    const faults = checkLine(line, {
      meters,
      now,
      others,
      // A meter that goes back between two entries is reported at the second.
      ...(before && { before }),
    });
    if (faults.length > 0) found.push({ line: line.id, faults });
    if (!latest || Date.parse(line.on) > Date.parse(latest.on)) latest = line;
  });
  return found;
}
