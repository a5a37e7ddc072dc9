import type { Condition } from "../aircraft/aircraft-type";
import type { AircraftRecord, RecordMeter } from "./aircraft-record";
import { type LocalDate, localDate } from "./calendar/local-date";
import { isFitted } from "./component-moves";
import type { DueItem, FlightKind, Purpose, WorkDone } from "./due/due-item";
import { DUE_STATES, type DueVerdict, judgeDue, type MeterKinds, type PlannedFlight } from "./due/judge-due";
import type { NextDue } from "./due/next-due";
import { dueItemsOf, meterKinds } from "./due-items-of";
import { componentTotals, type Totals } from "./meters/component";
import { isCounted, type MeterKind, roundMeter, totalOf } from "./meters/meter";

/** How a glider goes up. */
export const LAUNCH_WAYS = ["winch", "aerotow"] as const;
export type LaunchWay = (typeof LAUNCH_WAYS)[number];

/** An item that names this as due is not asked on a day for which the record has the signature. */
export const DAILY_INSPECTION = "daily inspection";

/** What a list pins of an aircraft's papers, so that its judgements can be made again: what is due, and the totals when it was put together. */
export interface AirworthinessSnapshot {
  timeZone: string;
  meters: RecordMeter[];
  /** Totals of the aircraft when the list was made. */
  totals: Totals;
  /** By whom the daily inspection was signed for the day on which the list was made. */
  daily?: { date: LocalDate; crewId: string };
  /** What is due next of each item; `own` are the totals of its component at the same moment. */
  dues: { item: DueItem; due: NextDue; own?: Totals }[];
}

/** Pins the papers. Complexity: O(works log works + items). */
export function airworthinessSnapshot(
  record: AircraftRecord,
  {
    released = [],
    left = [],
    totals,
    daily,
  }: {
    released?: readonly WorkDone[];
    left?: readonly DueItem[];
    totals: Totals;
    daily?: { date: LocalDate; crewId: string } | null;
  },
): AirworthinessSnapshot {
  // What came off asks nothing of the aircraft until it is fitted again.
  const onAircraft = ({ of }: DueItem) => of === undefined || isFitted(record, of);
  const own = new Map<string, Totals>();
  const totalsOf = (of: string) => {
    const component = record.components.find(({ id }) => id === of);
    if (component && !own.has(of)) own.set(of, componentTotals(component, record.fittings, totals));
    return own.get(of);
  };
  return {
    timeZone: record.timeZone ?? "UTC",
    meters: record.meters,
    totals,
    ...(daily && { daily: { date: daily.date, crewId: daily.crewId } }),
    dues: dueItemsOf({ ...record, items: [...record.items.filter(onAircraft), ...left] }, released).map(
      ({ item, due }) => {
        const component = item.of === undefined ? undefined : totalsOf(item.of);
        return { item, due, ...(component && { own: component }) };
      },
    ),
  };
}

/** What is known of a flight that is planned. */
export interface FlightAsked {
  /** When it is asked, ISO 8601. */
  at: string;
  minutes: number;
  landings?: number;
  /** How it is launched; without it each landing counts for either way, which is never too little. */
  launch?: LaunchWay;
  conditions: readonly Condition[];
  purpose?: Purpose;
  /** Readings of today, by the name of the reading ("hours"). */
  read?: Readonly<Record<string, number>>;
}

const KINDS: Partial<Record<Condition, FlightKind>> = {
  night: "night",
  instrument: "instrument",
  passengers: "passengers",
  "solo student": "solo student",
};

/** The kinds of flight that a day's conditions make; by day where it is not by night. */
export function flightKindsOf(conditions: readonly Condition[]): FlightKind[] {
  const kinds = conditions.flatMap((condition) => KINDS[condition] ?? []);
  return kinds.includes("night") ? kinds : ["day", ...kinds];
}

const LAUNCHES: Partial<Record<MeterKind, LaunchWay>> = { "winch launches": "winch", aerotows: "aerotow" };

/** Before the engine starts there is the preflight: a flight of an hour that is asked about at 23:30 ends tomorrow. */
const PREPARING_MIN = 60;

/**
 * What a planned flight puts on each meter, and the day on which it ends. Hours are counted up to the next tenth; whatever is counted one by one
 * counts by the landings that are planned, and launches and releases as many: each landing was a launch. Where it is told how it is launched, the other way
 * counts nothing.
 */
export function plannedFlight(papers: AirworthinessSnapshot, asked: FlightAsked): PlannedFlight {
  const { at, minutes, landings = 1, launch, conditions, purpose } = asked;
  const hours = Math.ceil(minutes / 6 - 1e-9) / 10;
  const ends = new Date(Date.parse(at) + (minutes + PREPARING_MIN) * 60_000).toISOString();
  return {
    ends: localDate(ends, papers.timeZone),
    uses: Object.fromEntries(
      papers.meters.map(({ id, kind }) => {
        if (!isCounted(kind)) return [id, hours];
        return [id, launch && LAUNCHES[kind] && LAUNCHES[kind] !== launch ? 0 : landings];
      }),
    ),
    kinds: flightKindsOf(conditions),
    ...(purpose && { purpose }),
  };
}

/** The totals of now: what was pinned, and what a meter that was read today shows beyond it. */
export function totalsNow({ meters, totals }: AirworthinessSnapshot, { at, read = {} }: FlightAsked): Totals {
  const now: Record<string, number> = { ...totals };
  for (const meter of meters) {
    const reading = meter.reading === undefined ? undefined : read[meter.reading];
    if (reading === undefined || reading < 0) continue;
    now[meter.id] = Math.max(now[meter.id] ?? 0, totalOf(meter, reading, at));
  }
  return now;
}

/** One due item judged for a flight. */
export interface JudgedDue {
  item: DueItem;
  due: NextDue;
  verdict: DueVerdict;
}

/**
 * The papers judged for a flight: each item's state, worst first, and within one state the one with the least left. Never throws for a record that was
 * read as valid. Complexity: O(items · limits).
 */
export function judgeAirworthiness(papers: AirworthinessSnapshot, asked: FlightAsked): JudgedDue[] {
  const flight = plannedFlight(papers, asked);
  const date = localDate(asked.at, papers.timeZone);
  const totals = totalsNow(papers, asked);
  const meters = meterKinds(papers);
  return papers.dues
    .map(({ item, due, own }) => ({
      item,
      due,
      verdict: judgeDue(
        item,
        due,
        { date, totals: own ? since(own, papers.totals, totals) : totals },
        flight,
        meters,
      ),
    }))
    .sort((a, b) => rank(b) - rank(a) || leastLeft(a) - leastLeft(b));
}

/** A component flies with its aircraft: it has as much more as the aircraft. */
function since(own: Totals, pinned: Totals, now: Totals): Totals {
  return Object.fromEntries(
    Object.entries(own).map(([meter, total]) => [
      meter,
      roundMeter(total + (now[meter] ?? 0) - (pinned[meter] ?? now[meter] ?? 0)),
    ]),
  );
}

const rank = ({ verdict }: JudgedDue) => DUE_STATES.indexOf(verdict.state);

/** Days of a calendar, and of hours and counts as many days as they last at an hour and a landing a day: only for an order to read in. */
const leastLeft = ({ verdict }: JudgedDue) => verdict.first?.leftAfter ?? Number.POSITIVE_INFINITY;

/** The names and kinds of pinned meters, for words. */
export const papersMeters = (papers: Pick<AirworthinessSnapshot, "meters">): MeterKinds => meterKinds(papers);
