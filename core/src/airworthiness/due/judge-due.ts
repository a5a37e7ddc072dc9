import { QuantityError } from "../../units/convert";
import { formatNumber } from "../../units/format";
import { dayNumber, type LocalDate, spokenDate } from "../calendar/local-date";
import type { Totals } from "../meters/component";
import { isCounted, type MeterKind, roundMeter } from "../meters/meter";
import type { DueItem, FlightKind, Purpose, Tolerance } from "./due-item";
import type { DuePoint, NextDue } from "./next-due";

/** How a due item stands for one flight, worst last. */
export const DUE_STATES = [
  "not for this flight",
  "in date",
  "under a tolerance",
  "not known",
  "due within the flight",
  "overdue",
] as const;
export type DueState = (typeof DUE_STATES)[number];

/** The flight that is asked about: with its length, not only the moment of its start. */
export interface PlannedFlight {
  /** The day on which it ends, where limits count: at the base. */
  ends: LocalDate;
  /** What it puts on each meter: hours, landings, launches. A meter that is not named counts nothing. */
  uses: Totals;
  kinds: readonly FlightKind[];
  /** What it is for, where it may pass a limit. */
  purpose?: Purpose;
}

/** Today, and what each meter of the aircraft has come to. */
export interface DueNow {
  date: LocalDate;
  totals: Totals;
}

/** One limit of an item, in its own unit. */
export interface LimitLeft {
  point: DuePoint;
  state: DueState;
  /** What is left now: days, hours or a count; negative where it is passed. */
  left: number;
  /** What is left when the flight has ended. */
  leftAfter: number;
  unit: "days" | "h" | "count";
  /** What this flight passes the limit by, and under which tolerance. */
  under?: { tolerance: Tolerance; excess: number };
}

/** How one item stands. */
export interface DueVerdict {
  item: string;
  state: DueState;
  /** Which of its limits comes first for this flight: the worst, and among equals the one with the least left of its interval. */
  first?: LimitLeft;
  limits: LimitLeft[];
}

/** Names and kinds of meters, for units and words. */
export type MeterKinds = Readonly<Record<string, { kind: MeterKind; name: string }>>;

/**
 * Whether an item is in date for this very flight, to its end. A day counts to its end; an hour limit may be met, not passed. A limit that the
 * flight would pass is under a tolerance only where that is for this purpose and covers it whole. What only other kinds of flight need is said so. An
 * item whose last work is not on record is "not known": nothing is guessed.
 * Throws QuantityError where a meter that a limit names has no total. Complexity: O(limits).
 */
export function judgeDue(
  item: DueItem,
  due: NextDue,
  now: DueNow,
  flight: PlannedFlight,
  meters: MeterKinds,
): DueVerdict {
  if (item.for && !item.for.some((kind) => flight.kinds.includes(kind)))
    return {
      item: item.id,
      state: "not for this flight",
      limits: due.points.map((p) => left(p, now, flight, meters)),
    };
  // A thing to be done once that is done asks nothing more.
  if (due.points.length === 0)
    return { item: item.id, state: due.unknown ? "not known" : "in date", limits: [] };
  const limits = due.points.map((point) => left(point, now, flight, meters));
  const rank = ({ state }: LimitLeft) => DUE_STATES.indexOf(state);
  const first = limits.reduce((worst, limit) =>
    rank(limit) > rank(worst) || (rank(limit) === rank(worst) && share(item, limit) < share(item, worst))
      ? limit
      : worst,
  );
  return { item: item.id, state: first.state, first, limits };
}

function left(point: DuePoint, now: DueNow, flight: PlannedFlight, meters: MeterKinds): LimitLeft {
  if ("date" in point) {
    const due = dayNumber(point.date);
    return stateOf(point, due - dayNumber(now.date), due - dayNumber(flight.ends), "days", flight.purpose);
  }
  const total = now.totals[point.meter];
  const meter = meters[point.meter];
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
  const tolerance = point.tolerances.find((one) => one.for === purpose && one.most >= -leftAfter);
  if (tolerance)
    return { ...base, state: "under a tolerance", under: { tolerance, excess: roundMeter(-leftAfter) } };
  return { ...base, state: leftNow < 0 ? "overdue" : "due within the flight" };
}

/** What part of its interval is left: by this limits in different units are compared. A printed limit is compared by a year, or by a hundred. */
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

/** So much of a limit's own unit, as it is spoken: "2.1 h", "12 days", "1 landing". */
export function remainingText({ point, unit }: LimitLeft, value: number, meters: MeterKinds): string {
  if (unit === "days") return count(value, "day", "days");
  if (unit === "h") return `${formatNumber(value, 1)} h`;
  const kind = "meter" in point ? meters[point.meter]?.kind : undefined;
  const [one, many] = (kind && ONE[kind]) ?? ["time", "times"];
  return count(value, one, many);
}

/** Up to when a limit holds, as it is spoken: "31 March 2027", "4,280.0 h". */
export function dueText(point: DuePoint, meters: MeterKinds): string {
  if ("date" in point) return spokenDate(point.date);
  const meter = meters[point.meter];
  return meter && isCounted(meter.kind)
    ? remainingText({ point, unit: "count" } as LimitLeft, point.at, meters)
    : `${formatNumber(point.at, 1)} h`;
}
