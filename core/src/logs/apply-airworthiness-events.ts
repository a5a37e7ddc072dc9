import type { AircraftRecord, RecordMeter } from "../airworthiness/aircraft-record";
import { type LocalDate, localDate } from "../airworthiness/calendar/local-date";
import { applyComponentMove } from "../airworthiness/component-moves";
import type { DueItem, WorkDone } from "../airworthiness/due/due-item";
import { addLine, type TechnicalLogEntry } from "../airworthiness/flights/technical-log-entry";
import type { Totals } from "../airworthiness/meters/component";
import { isCounted, roundMeter, totalOf } from "../airworthiness/meters/meter";
import type { PreflightEvent } from "../checklist/stream/events";

/** An aircraft's papers as they were told last. */
export interface PapersOnFile {
  record: AircraftRecord;
  /** What was released since the record began, an item as it was done each time. */
  released: WorkDone[];
  /** Conditions that releases have left. */
  left: DueItem[];
  /** What the meters have come to by the log. */
  totals: Totals;
  /** The last line of the technical log. */
  lastLine: TechnicalLogEntry | null;
  /** The lines that were logged last: by these it is known which are in the totals. */
  recent: string[];
  /** What each meter gained, day by day, for how it is usually flown. */
  days: { date: LocalDate; uses: Totals }[];
  /** The last day for which the daily inspection was signed, and by whom. */
  daily: { date: LocalDate; crewId: string; at: string } | null;
}

/**
 * The papers with what happened since they were told: flights logged and corrected, work released, meters replaced, components moved, daily inspections signed. What is in them already changes
 * nothing. Never throws. Complexity: O(events · meters).
 */
export function applyAirworthinessEvents(
  papers: PapersOnFile,
  events: readonly PreflightEvent[],
): PapersOnFile {
  const { registration } = papers.record;
  let now = papers;
  for (const event of events) {
    if (!("registration" in event.data) || event.data.registration !== registration) continue;
    if (event.type === "flight.logged") now = withFlight(now, { id: event.id, ...event.data });
    else if (event.type === "flight.corrected") now = withCorrection(now, event.data.of, event.data.line);
    else if (event.type === "meter.replaced") {
      const { meter, oldReading, newReading } = event.data;
      const change = { at: event.at, oldReading, newReading };
      now = {
        ...now,
        record: withMeters(now.record, (one) => (one.id === meter ? changed(one, change) : one)),
      };
    } else if (event.type === "component.removed") {
      const { component, totals } = event.data;
      now = { ...now, record: applyComponentMove(now.record, { at: event.at, component, totals }) };
    } else if (event.type === "component.fitted") {
      const { component, items, works, position, totals } = event.data;
      const move = {
        at: event.at,
        fitted: { component, items, works },
        totals,
        ...(position && { position }),
      };
      now = { ...now, record: applyComponentMove(now.record, move) };
    } else if (event.type === "work.released") {
      const { works, leaves, readings } = event.data;
      if (now.released.some(({ release }) => release === event.id)) continue;
      const read = readTotals(readings, now.record.meters, event.at);
      const known = new Set(now.left.map(({ id }) => id));
      now = {
        ...now,
        released: [
          ...now.released,
          ...works.map((work) => ({ ...work, totals: { ...read, ...work.totals }, release: event.id })),
        ],
        left: [...now.left, ...leaves.filter(({ id }) => !known.has(id))],
      };
    } else if (event.type === "daily.signed" && (!now.daily || now.daily.date <= event.data.date))
      now = { ...now, daily: { date: event.data.date, crewId: event.crewId, at: event.at } };
  }
  return now;
}

function withFlight(papers: PapersOnFile, line: TechnicalLogEntry): PapersOnFile {
  if (papers.recent.includes(line.id)) return papers;
  const { meters, timeZone } = papers.record;
  const last = papers.lastLine;
  return {
    ...papers,
    totals: addLine({ totals: papers.totals, lines: 0 }, line, meters).totals,
    lastLine: last && last.off > line.off ? last : line,
    recent: [line.id, ...papers.recent],
    days: [...papers.days, { date: localDate(line.off, timeZone), uses: meterIncrements(line, meters) }],
  };
}

/**
 * The last line corrected or struck out: what it had put on the meters is taken back, what it should have put there counts. Of a line before that only the
 * server, which has them all, can tell what the totals come to.
 */
function withCorrection(
  papers: PapersOnFile,
  of: string,
  line: Omit<TechnicalLogEntry, "id"> | undefined,
): PapersOnFile {
  const last = papers.lastLine;
  if (last?.id !== of) return papers;
  const { meters, timeZone } = papers.record;
  const { id: _id, ...before } = last;
  if (line && sameLine(before, line)) return papers;
  const totals: Record<string, number> = { ...papers.totals };
  for (const meter of meters) {
    const read = last.meters[meter.id];
    const counted = last.counts[meter.id];
    // It was the highest that the meter ever showed: without it there is what it showed before the flight.
    if (read && totals[meter.id] === totalOf(meter, read.in, last.on))
      totals[meter.id] = totalOf(meter, read.out, last.off);
    if (counted !== undefined) totals[meter.id] = roundMeter((totals[meter.id] ?? 0) - counted);
  }
  const date = localDate(last.off, timeZone);
  const uses = JSON.stringify(meterIncrements(last, meters));
  const day = papers.days.findIndex((one) => one.date === date && JSON.stringify(one.uses) === uses);
  const without: PapersOnFile = {
    ...papers,
    totals,
    lastLine: null,
    recent: papers.recent.filter((one) => one !== of),
    days: papers.days.filter((_, i) => i !== day),
  };
  return line ? withFlight(without, { ...line, id: of }) : without;
}

const sameLine = (a: object, b: object): boolean => {
  const sorted = (value: unknown): unknown =>
    typeof value === "object" && value !== null && !Array.isArray(value)
      ? Object.fromEntries(
          Object.entries(value)
            .sort(([x], [y]) => (x < y ? -1 : 1))
            .map(([key, part]) => [key, sorted(part)]),
        )
      : value;
  return JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));
};

/** What a flight put on each meter. */
export function meterIncrements(line: TechnicalLogEntry, meters: readonly RecordMeter[]): Totals {
  return Object.fromEntries(
    meters.flatMap(({ id, kind }) => {
      const read = line.meters[id];
      const used = isCounted(kind) ? line.counts[id] : read && Math.max(0, read.in - read.out);
      return used ? [[id, roundMeter(used)] as const] : [];
    }),
  );
}

const withMeters = (record: AircraftRecord, change: (meter: RecordMeter) => RecordMeter): AircraftRecord => ({
  ...record,
  meters: record.meters.map(change),
});

function changed(meter: RecordMeter, change: NonNullable<RecordMeter["changes"]>[number]): RecordMeter {
  const before = meter.changes ?? [];
  return before.some(({ at }) => at === change.at) ? meter : { ...meter, changes: [...before, change] };
}

/** What readings mean as totals; a meter that was not read is left out. */
export function readTotals(
  readings: Readonly<Record<string, number>>,
  meters: readonly RecordMeter[],
  at: string,
): Totals {
  return Object.fromEntries(
    meters.flatMap((meter) => {
      const reading = readings[meter.id];
      return reading === undefined || reading < 0 ? [] : [[meter.id, totalOf(meter, reading, at)] as const];
    }),
  );
}
