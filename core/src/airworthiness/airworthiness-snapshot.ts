import type { Condition } from "../aircraft/aircraft-type";
import { QuantityError } from "../units/convert";
import type { AircraftRecord, RecordMeter } from "./aircraft-record";
import { type LocalDate, localDate } from "./calendar/local-date";
import { isFitted } from "./component-moves";
import {
  AIRSPACE_KINDS,
  type AirspaceKind,
  type DueItem,
  FLIGHT_USES,
  type FlightKind,
  type FlightUse,
  type Purpose,
  type WorkDone,
} from "./due/due-item";
import { DUE_STATES, type DueVerdict, judgeDue, type MeterKinds, type PlannedFlight } from "./due/judge-due";
import type { NextDue } from "./due/next-due";
import { calculated } from "./due/problem-of";
import { dueItemsOf, meterKinds } from "./due-items-of";
import { componentTotals, type Totals } from "./meters/component";
import {
  hoursOfFlight,
  isCounted,
  type MeterKind,
  offsetAt,
  roundMeter,
  totalOf,
  totalsWithSums,
} from "./meters/meter";

/** Launch methods for gliders. */
export const LAUNCH_WAYS = ["winch", "aerotow"] as const;
export type LaunchWay = (typeof LAUNCH_WAYS)[number];

/** An item that names this as due is not asked on a day for which the record has the signature. */
export const DAILY_INSPECTION = "daily inspection";

/** Airworthiness data pinned by a checklist so that it can be judged again later: due items, and totals when it was composed. */
export interface AirworthinessSnapshot {
  timeZone: string;
  meters: RecordMeter[];
  /** Totals of the aircraft when the checklist was composed. */
  totals: Totals;
  /** Signature of the daily inspection for the day the checklist was composed. */
  daily?: { date: LocalDate; crewId: string };
  /** Next due point of each item; `own` are its component's totals at that time. */
  dues: { item: DueItem; due: NextDue; own?: Totals }[];
}

/** Pins the airworthiness data of an aircraft. Never throws: what cannot be calculated has a `problem`. Complexity: O(works log works + items). */
export function airworthinessSnapshot(
  record: AircraftRecord,
  {
    released = [],
    left = [],
    totals: entered,
    daily,
  }: {
    released?: readonly WorkDone[];
    left?: readonly DueItem[];
    totals: Totals;
    daily?: { date: LocalDate; crewId: string } | null;
  },
): AirworthinessSnapshot {
  const totals = totalsWithSums(entered, record.meters);
  // A condition of a release that has been met is of no interest to the next flight.
  const met = new Set(released.map(({ item }) => item));
  const open = left.filter(({ id, once }) => !once || !met.has(id));
  // A removed component is not due on this aircraft until it is fitted again.
  const onAircraft = ({ of }: DueItem) => of === undefined || isFitted(record, of);
  const own = new Map<string, ReturnType<typeof calculated<Totals>>>();
  const totalsOf = (of: string) => {
    const component = record.components.find(({ id }) => id === of);
    if (component && !own.has(of))
      own.set(
        of,
        calculated(() => componentTotals(component, record.fittings, totals)),
      );
    return own.get(of);
  };
  return {
    timeZone: record.timeZone ?? "UTC",
    meters: record.meters.map(withLastChanges),
    totals,
    ...(daily && { daily: { date: daily.date, crewId: daily.crewId } }),
    dues: dueItemsOf({ ...record, items: [...record.items.filter(onAircraft), ...open] }, released).map(
      ({ item, due }) => {
        const component = item.of === undefined ? undefined : totalsOf(item.of);
        if (!component) return { item, due };
        return "value" in component
          ? { item, due, own: component.value }
          : { item, due: { ...due, points: [], unknown: true, problem: component.problem } };
      },
    ),
  };
}

/** Meter replacements pinned; earlier ones are part of the offset. */
const PINNED_CHANGES = 5;

function withLastChanges(meter: RecordMeter): RecordMeter {
  const { changes = [] } = meter;
  if (changes.length <= PINNED_CHANGES) return meter;
  const kept = [...changes].sort((a, b) => Date.parse(a.at) - Date.parse(b.at)).slice(-PINNED_CHANGES);
  const [first] = kept;
  return first ? { ...meter, offset: offsetAt(meter, first.at), changes: kept } : meter;
}

/** What is known of a planned flight. What is left out was not told. */
export interface RequestedFlight {
  /** Time it begins, ISO 8601: now, or on a later day. */
  at: string;
  minutes: number;
  landings?: number;
  /** Landings to a full stop at night, for recency. */
  fullStops?: number;
  /** Launch method; without it each landing counts for both methods, a safe overestimate. */
  launch?: LaunchWay;
  conditions: readonly Condition[];
  /** What it is for. */
  use?: FlightUse;
  /** Whether it goes to airspace and airfields that require equipment; each absent if not told. */
  airspace?: Readonly<Partial<Record<AirspaceKind, boolean>>>;
  /** Whether every seat is occupied. */
  fullSeats?: boolean;
  /** For a night flight: whether part of it is by day. */
  dayAndNight?: boolean;
  purpose?: Purpose;
  /** Today's readings by name ("hours"). */
  read?: Readonly<Record<string, number>>;
}

/** What only the pilot can tell about a flight, besides its conditions. */
export type ToldFlight = Pick<RequestedFlight, "use" | "airspace" | "fullSeats" | "dayAndNight">;

/** Just what was told, for a record: nothing that is absent or undefined. */
export function toldFlight({
  use,
  airspace,
  fullSeats,
  dayAndNight,
}: { [K in keyof ToldFlight]: ToldFlight[K] | undefined }): ToldFlight {
  return {
    ...(use && { use }),
    ...(airspace && { airspace }),
    ...(fullSeats !== undefined && { fullSeats }),
    ...(dayAndNight !== undefined && { dayAndNight }),
  };
}

const KINDS: Partial<Record<Condition, FlightKind>> = {
  night: "night",
  instrument: "instrument",
  passengers: "passengers",
  "solo student": "solo student",
};

/** Kinds of flight that follow from a day's conditions; day unless night. */
export function flightKindsOf(conditions: readonly Condition[]): FlightKind[] {
  const kinds = conditions.flatMap((condition) => KINDS[condition] ?? []);
  return kinds.includes("night") ? kinds : ["day", ...kinds];
}

/**
 * Kinds of a flight, and the kinds that nobody has told. Conditions are always told; a solo student's flight is instruction, and a
 * flight to the place of the work is a ferry unless another use is told.
 */
export function kindsOfFlight(asked: ToldFlight & Pick<RequestedFlight, "conditions" | "purpose">): {
  kinds: FlightKind[];
  untold: FlightKind[];
} {
  const { conditions, airspace = {}, fullSeats, dayAndNight, purpose } = asked;
  const kinds = new Set(flightKindsOf(conditions));
  if (dayAndNight) kinds.add("day").add("night");
  const dayUntold = kinds.has("night") && dayAndNight === undefined;
  const use =
    asked.use ??
    (kinds.has("solo student")
      ? "instruction"
      : purpose === "to the place of the work"
        ? "ferry"
        : undefined);
  if (use) kinds.add(use);
  for (const kind of AIRSPACE_KINDS) if (airspace[kind]) kinds.add(kind);
  if (fullSeats) kinds.add("every seat occupied");
  return {
    kinds: [...kinds],
    untold: [
      ...(dayUntold ? (["day"] as const) : []),
      ...(use ? [] : FLIGHT_USES),
      ...AIRSPACE_KINDS.filter((kind) => airspace[kind] === undefined),
      ...(fullSeats === undefined ? (["every seat occupied"] as const) : []),
    ],
  };
}

/** Kinds of flight that decide something on this aircraft and that only the pilot can tell. Complexity: O(items + deferrals). */
export function kindsToAsk(
  items: readonly Pick<DueItem, "for">[],
  deferrals: readonly { depends?: readonly FlightKind[] }[] = [],
  conditions: readonly Condition[] = [],
): FlightKind[] {
  const named = new Set([
    ...items.flatMap((item) => item.for ?? []),
    ...deferrals.flatMap(({ depends }) => depends ?? []),
  ]);
  return kindsOfFlight({ conditions }).untold.filter((kind) => named.has(kind));
}

const LAUNCHES: Partial<Record<MeterKind, LaunchWay>> = { "winch launches": "winch", aerotows: "aerotow" };

/** Minutes for the preflight before engine start: a one-hour flight asked about at 23:30 ends tomorrow. */
const PREPARING_MIN = 60;

/**
 * Expected meter increments of a planned flight, and the day it ends. Hours are rounded up to the next tenth; each meter runs as
 * its file says, and sums add up. Landings count as
 * planned, and launches and hook releases equal them. With a known launch method the other method counts nothing.
 * Valid range: minutes and landings ≥ 0; throws QuantityError otherwise.
 */
export function plannedFlight(papers: AirworthinessSnapshot, asked: RequestedFlight): PlannedFlight {
  const { at, minutes, landings = 1, launch, purpose } = asked;
  if (!Number.isFinite(minutes) || minutes < 0)
    throw new QuantityError("Enter the planned flight time: 0 minutes or more.");
  if (!Number.isFinite(landings) || landings < 0)
    throw new QuantityError("Enter the planned landings: 0 or more.");
  const hours = Math.ceil(minutes / 6 - 1e-9) / 10;
  const ends = new Date(Date.parse(at) + (minutes + PREPARING_MIN) * 60_000).toISOString();
  const uses = Object.fromEntries(
    papers.meters
      .filter(({ sumOf }) => !sumOf)
      .map((meter) => {
        const { id, kind } = meter;
        if (!isCounted(kind)) return [id, hoursOfFlight(meter, hours)];
        return [id, launch && LAUNCHES[kind] && LAUNCHES[kind] !== launch ? 0 : landings];
      }),
  );
  return {
    ends: localDate(ends, papers.timeZone),
    uses: totalsWithSums(uses, papers.meters),
    ...kindsOfFlight(asked),
    ...(purpose && { purpose }),
  };
}

/** Current totals: the pinned ones, raised by any meter read today. */
export function totalsNow(
  { meters, totals }: AirworthinessSnapshot,
  { at, read = {} }: RequestedFlight,
): Totals {
  const now: Record<string, number> = { ...totals };
  for (const meter of meters) {
    const reading = meter.reading === undefined ? undefined : read[meter.reading];
    if (reading === undefined || reading < 0) continue;
    now[meter.id] = Math.max(now[meter.id] ?? 0, totalOf(meter, reading, at));
  }
  return totalsWithSums(now, meters);
}

/** One due item judged for a flight. */
export interface JudgedDue {
  item: DueItem;
  due: NextDue;
  verdict: DueVerdict;
}

/**
 * Judges all due items for a flight: worst first, and within one state the one with the least left. An item that cannot be
 * calculated is "not known", with the reason; the others are not affected. Throws QuantityError only for an invalid time, time
 * zone or length of the flight. Complexity: O(items · limits).
 */
export function judgeAirworthiness(papers: AirworthinessSnapshot, asked: RequestedFlight): JudgedDue[] {
  const flight = plannedFlight(papers, asked);
  const date = localDate(asked.at, papers.timeZone);
  const totals = totalsNow(papers, asked);
  const meters = meterKinds(papers);
  return papers.dues
    .map(({ item, due, own }) => ({
      item,
      due,
      verdict: judged(item, () =>
        judgeDue(
          item,
          due,
          { date, totals: own ? since(own, papers.totals, totals) : totals },
          flight,
          meters,
        ),
      ),
    }))
    .sort((a, b) => rank(b) - rank(a) || leastLeft(a) - leastLeft(b));
}

function judged({ id }: DueItem, judge: () => DueVerdict): DueVerdict {
  const verdict = calculated(judge);
  return "value" in verdict
    ? verdict.value
    : { item: id, state: "not known", limits: [], problem: verdict.problem };
}

/** A component accumulates the same increments as its aircraft. */
function since(own: Totals, pinned: Totals, now: Totals): Totals {
  return Object.fromEntries(
    Object.entries(own).map(([meter, total]) => [
      meter,
      roundMeter(total + (now[meter] ?? 0) - (pinned[meter] ?? now[meter] ?? 0)),
    ]),
  );
}

const rank = ({ verdict }: JudgedDue) => DUE_STATES.indexOf(verdict.state);

/** Remaining days; for hours and counts, days at one hour and one landing a day. Used for sorting only. */
const leastLeft = ({ verdict }: JudgedDue) => verdict.first?.leftAfter ?? Number.POSITIVE_INFINITY;

/** Names and kinds of pinned meters, for texts. */
export const metersOfSnapshot = (papers: Pick<AirworthinessSnapshot, "meters">): MeterKinds =>
  meterKinds(papers);
