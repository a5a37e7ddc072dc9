import type { AircraftRecord, RecordMeter } from "../airworthiness/aircraft-record";
import { type LocalDate, localDate } from "../airworthiness/calendar/local-date";
import { applyComponentMove } from "../airworthiness/component-moves";
import type { DueItem, WorkDone } from "../airworthiness/due/due-item";
import { addLine, type TechnicalLogEntry } from "../airworthiness/flights/technical-log-entry";
import { renewal } from "../airworthiness/life/release";
import type { Totals } from "../airworthiness/meters/component";
import { isCounted, roundMeter, totalOf } from "../airworthiness/meters/meter";
import type { PreflightEvent } from "../checklist/stream/events";

/** Airworthiness data of an aircraft as last received. */
export interface AirworthinessOnFile {
  record: AircraftRecord;
  /** Completions recorded since the record began. */
  released: WorkDone[];
  /** Open conditions left by releases. */
  left: DueItem[];
  /** Meter totals from the log. */
  totals: Totals;
  /** Last technical log entry. */
  lastLine: TechnicalLogEntry | null;
  /** Ids of recent entries, to know which are in the totals. */
  recent: string[];
  /** Daily meter increments, for the usage pattern. */
  days: { date: LocalDate; uses: Totals }[];
  /** Last signed daily inspection. */
  daily: { date: LocalDate; crewId: string; at: string } | null;
}

/** Releases struck out, whatever the order of the events. */
const withdrawnReleases = (registration: string, events: readonly PreflightEvent[]): ReadonlySet<string> =>
  new Set(
    events.flatMap(({ type, data }) =>
      type === "release.withdrawn" && data.registration === registration ? [data.of] : [],
    ),
  );

/** The data without what struck releases completed and left open. */
function withoutReleases(
  papers: AirworthinessOnFile,
  withdrawn: ReadonlySet<string>,
  events: readonly PreflightEvent[],
): AirworthinessOnFile {
  if (withdrawn.size === 0) return papers;
  const left = new Set(
    events.flatMap(({ id, type, data }) =>
      type === "work.released" && withdrawn.has(id) ? data.leaves.map((item) => item.id) : [],
    ),
  );
  return {
    ...papers,
    released: papers.released.filter(({ release }) => release === undefined || !withdrawn.has(release)),
    left: papers.left.filter(({ id }) => !left.has(id)),
  };
}

/**
 * Applies later events to the airworthiness data: flights logged and corrected, work released, meters replaced, components moved,
 * daily inspections signed. Events already included change nothing. Never throws. Complexity: O(events · meters).
 */
export function applyAirworthinessEvents(
  papers: AirworthinessOnFile,
  events: readonly PreflightEvent[],
): AirworthinessOnFile {
  const { registration } = papers.record;
  const withdrawn = withdrawnReleases(registration, events);
  let now = withoutReleases(papers, withdrawn, events);
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
      if (withdrawn.has(event.id) || now.released.some(({ release }) => release === event.id)) continue;
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
    } else if (event.type === "document.renewed") {
      if (now.released.some(({ release }) => release === event.id)) continue;
      now = { ...now, released: [...now.released, renewal(event.data, event.id)] };
    } else if (event.type === "daily.signed" && (!now.daily || now.daily.date <= event.data.date))
      now = { ...now, daily: { date: event.data.date, crewId: event.crewId, at: event.at } };
  }
  return now;
}

function withFlight(papers: AirworthinessOnFile, line: TechnicalLogEntry): AirworthinessOnFile {
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
 * Corrects or removes the last entry: its increments are subtracted, the corrected ones added. Older entries need the server,
 * which has the whole log.
 */
function withCorrection(
  papers: AirworthinessOnFile,
  of: string,
  line: Omit<TechnicalLogEntry, "id"> | undefined,
): AirworthinessOnFile {
  const last = papers.lastLine;
  if (last?.id !== of) return papers;
  const { meters, timeZone } = papers.record;
  const { id: _id, ...before } = last;
  if (line && sameLine(before, line)) return papers;
  const totals: Record<string, number> = { ...papers.totals };
  for (const meter of meters) {
    const read = last.meters[meter.id];
    const counted = last.counts[meter.id];
    // It was the highest reading of the meter: without it, the reading before the flight counts.
    if (read && totals[meter.id] === totalOf(meter, read.in, last.on))
      totals[meter.id] = totalOf(meter, read.out, last.off);
    if (counted !== undefined) totals[meter.id] = roundMeter((totals[meter.id] ?? 0) - counted);
  }
  const date = localDate(last.off, timeZone);
  const uses = JSON.stringify(meterIncrements(last, meters));
  const day = papers.days.findIndex((one) => one.date === date && JSON.stringify(one.uses) === uses);
  const without: AirworthinessOnFile = {
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

/** Meter increments of a flight. */
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

/** Totals for readings; meters without a reading are left out. */
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
