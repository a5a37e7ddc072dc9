import { QuantityError } from "../../units/convert";
import { formatNumber } from "../../units/format";
import { addMonths, dayNumber, type LocalDate, spokenDate } from "../calendar/local-date";
import type { Totals } from "../meters/component";
import { isCounted, type MeterKind, roundMeter } from "../meters/meter";
import type { DueItem, FlightKind, Purpose, Tolerance } from "./due-item";
import type { DuePoint, NextDue } from "./next-due";

/** State of a due item for one flight, worst last. */
export const DUE_STATES = [
  "not for this flight",
  "in date",
  "under a tolerance",
  "not known",
  "due within the flight",
  "overdue",
] as const;
export type DueState = (typeof DUE_STATES)[number];

/** The flight in question, with its length, not only its start. */
export interface PlannedFlight {
  /** Day it ends, at the aircraft's base. */
  ends: LocalDate;
  /** Increments by meter id: hours, landings, launches. Missing meters count nothing. */
  uses: Totals;
  kinds: readonly FlightKind[];
  /** Kinds that nobody has told: neither of this flight nor not. */
  untold?: readonly FlightKind[];
  /** Purpose that may allow exceeding a limit. */
  purpose?: Purpose;
}

/** Today, and the current total of each meter. */
export interface DueNow {
  date: LocalDate;
  totals: Totals;
}

/** One limit of an item, in its own unit. */
export interface LimitLeft {
  point: DuePoint;
  state: DueState;
  /** Remaining now: days, hours or a count; negative if exceeded. */
  left: number;
  /** Remaining when the flight has ended. */
  leftAfter: number;
  unit: "days" | "h" | "count";
  /** Excess of this flight over the limit, and the tolerance that covers it. */
  under?: { tolerance: Tolerance; excess: number };
}

/** Verdict for one item. */
export interface DueVerdict {
  item: string;
  state: DueState;
  /** Governing limit for this flight: the worst, then the one with the smallest share of its interval left. */
  first?: LimitLeft;
  limits: LimitLeft[];
  /** Why it cannot be calculated; its state is then "not known". */
  problem?: string;
  /** Kinds of flight that decide whether it applies and were not told; its state is then "not known". */
  untold?: FlightKind[];
  /** What was assumed and should be looked up; its state is "not known" unless it is worse. */
  question?: string;
}

/**
 * Whether something required only for some kinds of flight applies to this one: to any of them, or with `all` only to a flight of
 * all of them. "not told" if that depends on what nobody has told.
 */
export function appliesTo(
  wanted: readonly FlightKind[] | undefined,
  { kinds, untold = [] }: Pick<PlannedFlight, "kinds" | "untold">,
  all = false,
): "yes" | "no" | "not told" {
  if (!wanted) return "yes";
  const yes = (kind: FlightKind) => kinds.includes(kind);
  const open = (kind: FlightKind) => !yes(kind) && untold.includes(kind);
  if (all ? wanted.every(yes) : wanted.some(yes)) return "yes";
  const may = all ? wanted.every((kind) => yes(kind) || open(kind)) : wanted.some(open);
  return may ? "not told" : "no";
}

/** Names and kinds of meters, for units and texts. */
export type MeterKinds = Readonly<Record<string, { kind: MeterKind; name: string }>>;

/**
 * Judges whether an item is in date to the end of this flight. A date is valid to its end; an hour limit may be reached but not
 * exceeded. A tolerance applies only for its purpose and only if it covers the whole excess. Items required only for other kinds
 * of flight are reported as such; one that is not in date and depends on a kind nobody has told is "not known". An item without a
 * recorded work is "not known". Throws QuantityError if a limit names a meter
 * without a total. Complexity: O(limits).
 */
export function judgeDue(
  item: DueItem,
  due: NextDue,
  now: DueNow,
  flight: PlannedFlight,
  meters: MeterKinds,
): DueVerdict {
  if (due.problem !== undefined)
    return { item: item.id, state: "not known", limits: [], problem: due.problem };
  const applies = appliesTo(item.for, flight);
  if (applies === "no")
    return {
      item: item.id,
      state: "not for this flight",
      limits: due.points.map((p) => left(p, now, flight, meters)),
    };
  // A one-time item that is done needs nothing more.
  if (due.points.length === 0) {
    const state = due.unknown ? "not known" : "in date";
    return applies === "not told" && due.unknown
      ? notTold({ item: item.id, state, limits: [] }, item, flight)
      : { item: item.id, state, limits: [] };
  }
  const limits = due.points.map((point) => left(point, now, flight, meters));
  const rank = ({ state }: LimitLeft) => DUE_STATES.indexOf(state);
  const first = limits.reduce((worst, limit) =>
    rank(limit) > rank(worst) || (rank(limit) === rank(worst) && share(item, limit) < share(item, worst))
      ? limit
      : worst,
  );
  const verdict: DueVerdict = { item: item.id, state: first.state, first, limits };
  if (rank(first) >= DUE_STATES.indexOf("not known")) {
    // Overdue for a kind of flight that may be this one: not known, not overdue.
    return applies === "not told" ? notTold(verdict, item, flight) : verdict;
  }
  return due.question ? { ...verdict, state: "not known", question: due.question } : verdict;
}

const notTold = (verdict: DueVerdict, item: DueItem, { untold = [] }: PlannedFlight): DueVerdict => ({
  ...verdict,
  state: "not known",
  untold: (item.for ?? []).filter((kind) => untold.includes(kind)),
});

function left(point: DuePoint, now: DueNow, flight: PlannedFlight, meters: MeterKinds): LimitLeft {
  if ("date" in point) {
    const due = dayNumber(point.date);
    const days = due - dayNumber(now.date);
    return stateOf(point, days, due - dayNumber(flight.ends), "days", flight.purpose);
  }
  const total = Object.hasOwn(now.totals, point.meter) ? now.totals[point.meter] : undefined;
  const meter = Object.hasOwn(meters, point.meter) ? meters[point.meter] : undefined;
  if (total === undefined || meter === undefined)
    throw new QuantityError(`The total of ${point.meter} is not known.`);
  const here = roundMeter(point.at - total);
  const use = flight.uses[point.meter] ?? 0;
  return stateOf(point, here, roundMeter(here - use), isCounted(meter.kind) ? "count" : "h", flight.purpose);
}

function stateOf(
  point: DuePoint,
  leftNow: number,
  leftAfter: number,
  unit: LimitLeft["unit"],
  purpose: Purpose | undefined,
): LimitLeft {
  const base = { point, left: leftNow, leftAfter, unit };
  if (leftAfter >= 0) return { ...base, state: "in date" };
  const tolerance = point.tolerances.find(
    (one) => (one.for === purpose || one.for === "any flight") && allowed(one, point) >= -leftAfter,
  );
  if (tolerance)
    return { ...base, state: "under a tolerance", under: { tolerance, excess: roundMeter(-leftAfter) } };
  return { ...base, state: leftNow < 0 ? "overdue" : "due within the flight" };
}

/** Overrun that a tolerance allows, in the limit's unit; months are counted in days from the due day. */
function allowed({ most, unit }: Tolerance, point: DuePoint): number {
  if (unit !== "months" || !("date" in point)) return most;
  return dayNumber(addMonths(point.date, most)) - dayNumber(point.date);
}

/**
 * Share of the interval that is left, to compare limits in different units. A printed limit is compared with a year, or with a
 * hundred.
 */
function share({ limits }: DueItem, { point, leftAfter }: LimitLeft): number {
  const limit = limits[point.limit];
  if (limit?.by === "months") return leftAfter / (limit.months * 30.4);
  if (limit?.by === "days") return leftAfter / limit.days;
  if (limit?.by === "meter") return leftAfter / limit.every;
  return leftAfter / ("date" in point ? 365 : 100);
}

const count = (value: number, one: string, many: string) =>
  `${formatNumber(value)} ${value === 1 ? one : many}`;

const ONE: Partial<Record<MeterKind, [string, string]>> = {
  landings: ["landing", "landings"],
  cycles: ["cycle", "cycles"],
  "winch launches": ["winch launch", "winch launches"],
  aerotows: ["aerotow", "aerotows"],
  releases: ["release", "releases"],
};

/** Remaining amount with its unit: "2.1 h", "12 days", "1 landing". */
export function remainingText({ point, unit }: LimitLeft, value: number, meters: MeterKinds): string {
  if (unit === "days") return count(value, "day", "days");
  if (unit === "h") return `${formatNumber(value, 1)} h`;
  const kind = "meter" in point ? meters[point.meter]?.kind : undefined;
  const [one, many] = (kind && ONE[kind]) ?? ["time", "times"];
  return count(value, one, many);
}

/** Due point in words: "31 March 2027", "4,280.0 h". */
export function dueText(point: DuePoint, meters: MeterKinds): string {
  if ("date" in point) return spokenDate(point.date);
  const meter = meters[point.meter];
  return meter && isCounted(meter.kind)
    ? remainingText({ point, unit: "count" } as LimitLeft, point.at, meters)
    : `${formatNumber(point.at, 1)} h`;
}
