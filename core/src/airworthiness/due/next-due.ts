import { QuantityError } from "../../units/convert";
import {
  addDays,
  addMonths,
  dayNumber,
  endOfMonth,
  type LocalDate,
  spokenDate,
} from "../calendar/local-date";
import { roundMeter } from "../meters/meter";
import type { DueItem, DueLimit, Tolerance, WorkDone } from "./due-item";

/** End of one limit: the end of a day, or a meter total. */
export type DuePoint =
  | {
      limit: number;
      date: LocalDate;
      tolerances: Tolerance[];
      /** Day of the month that a monthly rhythm returns to after a shorter month. */
      dayOfMonth?: number;
    }
  | { limit: number; meter: string; at: number; tolerances: Tolerance[] };

/** Next due points of an item. */
export interface NextDue {
  item: string;
  /** One per known limit; empty after a one-time item is done. */
  points: DuePoint[];
  /** Latest recorded work. */
  last?: WorkDone;
  /** True if no work is on record and no limit is printed. */
  unknown: boolean;
  /** The work that ended it for good. */
  ended?: { item: string; date: LocalDate };
  /** What was assumed and should be looked up. */
  question?: string;
  /** Why it cannot be calculated from what is on record. */
  problem?: string;
}

/** Beginning of what an item counts: the component's fitting, or the record's start if that is not known. */
export interface DueOrigin {
  date: LocalDate;
  /** True if it is only the start of the record. */
  assumed: boolean;
}

/**
 * Calculates what is due next from all recorded works, in any order. A calendar limit runs from the day of the work, a meter
 * limit from the total then. The next interval runs from the original due point after an overrun that is subtracted, after work
 * early by no more than the item allows, and always if the item keeps its rhythm; a monthly rhythm returns to its day of the month
 * after a shorter month. After any other early or late work it starts at the work. Without any work, a first interval and the life
 * of a component run from `origin`. Throws QuantityError for invalid dates or a missing total. Complexity: O(works · limits).
 * Source: 14 CFR 91.409(b) for the overrun (from memory); calendar months end with the month: 91.171, 91.411 (from memory).
 */
export function nextDue(item: DueItem, works: readonly WorkDone[], origin?: DueOrigin): NextDue {
  const ending = item.endedBy && endOf(item.endedBy, works);
  const own = onceEach(works.filter((work) => work.item === item.id).sort(byDay));
  const last = own.at(-1);
  const done = last ? { last } : {};
  if (ending) return { item: item.id, points: [], ...done, unknown: false, ended: ending };
  if (item.once && last) return { item: item.id, points: [], last, unknown: false };
  const points = item.limits.flatMap((limit, at) => {
    let point: DuePoint | undefined = printed(limit, at) ?? firstDue(item, limit, at, origin);
    for (const work of own) point = after(limit, at, work, point) ?? point;
    return point ? [point] : [];
  });
  const counted = points.some((point) => "date" in point && item.limits[point.limit]?.by !== "date");
  return {
    item: item.id,
    points,
    ...done,
    unknown: points.length === 0,
    ...(own.length === 0 &&
      counted &&
      origin?.assumed && {
        question: `It is not on record since when it counts: counted from the beginning of the record, ${spokenDate(origin.date)}. Look it up.`,
      }),
  };
}

/** Sorted works without repeats: done twice at one moment is done once. A later entry with a printed date or a purpose counts. */
function onceEach(works: readonly WorkDone[]): WorkDone[] {
  const found: WorkDone[] = [];
  for (const work of works) {
    const before = found.at(-1);
    if (before && before.date === work.date && sameTotals(before, work))
      found[found.length - 1] = {
        ...before,
        ...(work.under && { under: work.under }),
        ...(work.sets && { sets: { ...before.sets, ...work.sets } }),
      };
    else found.push(work);
  }
  return found;
}

const sameTotals = ({ totals: a }: WorkDone, { totals: b }: WorkDone): boolean =>
  Object.keys({ ...a, ...b }).every((meter) => a[meter] === b[meter]);

/** The first work that ends an item for good. */
function endOf(endedBy: readonly string[], works: readonly WorkDone[]): NextDue["ended"] {
  const [first] = works.filter(({ item }) => endedBy.includes(item)).sort(byDay);
  return first && { item: first.item, date: first.date };
}

function byDay(a: WorkDone, b: WorkDone): number {
  return dayNumber(a.date) - dayNumber(b.date) || sum(a.totals) - sum(b.totals);
}

/** Two works on one day: the one with higher totals came later. */
const sum = (totals: WorkDone["totals"]) => Object.values(totals).reduce((all, value) => all + value, 0);

function printed(limit: DueLimit, at: number): DuePoint | undefined {
  const tolerances = limit.tolerances ?? [];
  if (limit.by === "date") return { limit: at, date: limit.date, tolerances };
  if (limit.by === "reading") return { limit: at, meter: limit.meter, at: limit.at, tolerances };
  return undefined;
}

/** Kinds that count from when the component was fitted or new. */
const AGES: ReadonlySet<DueItem["kind"]> = new Set(["life", "overhaul"]);

/** Due point before any work: of a first interval, or of a component's life. */
function firstDue(
  item: DueItem,
  limit: DueLimit,
  at: number,
  origin: DueOrigin | undefined,
): DuePoint | undefined {
  if (limit.by === "date" || limit.by === "reading") return undefined;
  const ages = item.of !== undefined && AGES.has(item.kind);
  if (limit.first === undefined && !ages) return undefined;
  const tolerances = limit.tolerances ?? [];
  if (limit.by === "meter")
    return { limit: at, meter: limit.meter, at: roundMeter(limit.first ?? limit.every), tolerances };
  if (!origin) return undefined;
  if (limit.by === "days")
    return { limit: at, date: addDays(origin.date, limit.first ?? limit.days), tolerances };
  return monthsLater(limit, at, origin.date, limit.first ?? limit.months);
}

function monthsLater(
  limit: Extract<DueLimit, { by: "months" }>,
  at: number,
  from: LocalDate,
  months: number,
  dayOfMonth = Number(from.slice(8)),
): Extract<DuePoint, { date: LocalDate }> {
  const there = addMonths(from, months, dayOfMonth);
  return {
    limit: at,
    date: limit.to === "month end" ? endOfMonth(there) : there,
    tolerances: limit.tolerances ?? [],
    ...(limit.to === "same day" && { dayOfMonth }),
  };
}

function after(
  limit: DueLimit,
  at: number,
  work: WorkDone,
  before: DuePoint | undefined,
): DuePoint | undefined {
  const tolerances = limit.tolerances ?? [];
  switch (limit.by) {
    case "date":
      return work.sets?.date ? { limit: at, date: work.sets.date, tolerances } : undefined;
    case "reading": {
      const set = work.sets?.readings?.[limit.meter];
      return set === undefined ? undefined : { limit: at, meter: limit.meter, at: set, tolerances };
    }
    case "meter": {
      const set = work.sets?.readings?.[limit.meter];
      if (set !== undefined) return { limit: at, meter: limit.meter, at: set, tolerances };
      const total = work.totals[limit.meter];
      if (total === undefined)
        throw new QuantityError(`The work of ${work.date} has no ${limit.meter} reading.`);
      const due = before && "meter" in before ? before.at : undefined;
      let next: number;
      if (limit.keepsRhythm && due !== undefined) {
        // Work counts for the point it comes before, and never twice for one.
        next = due;
        if (total > roundMeter(due - limit.every)) next = roundMeter(due + limit.every);
        while (next <= total) next = roundMeter(next + limit.every);
      } else next = roundMeter(beginning(limit, total, due, work, (a, b) => a - b) + limit.every);
      return { limit: at, meter: limit.meter, at: next, tolerances };
    }
    case "months":
    case "days": {
      if (work.sets?.date) return { limit: at, date: work.sets.date, tolerances };
      const due = before && "date" in before ? before : undefined;
      if (limit.keepsRhythm && due) {
        const counts = work.date > laterBy(limit, at, due.date, due.dayOfMonth, -1).date;
        let next = counts ? laterBy(limit, at, due.date, due.dayOfMonth) : due;
        while (next.date <= work.date) next = laterBy(limit, at, next.date, next.dayOfMonth);
        return next;
      }
      const from = beginning(limit, work.date, due?.date, work, (a, b) => dayNumber(a) - dayNumber(b));
      return laterBy(limit, at, from, from === due?.date ? due.dayOfMonth : undefined);
    }
  }
}

/** The point one interval later, or earlier with `times` −1. */
function laterBy(
  limit: Extract<DueLimit, { by: "months" | "days" }>,
  at: number,
  from: LocalDate,
  dayOfMonth: number | undefined,
  times: 1 | -1 = 1,
): Extract<DuePoint, { date: LocalDate }> {
  if (limit.by === "days")
    return { limit: at, date: addDays(from, times * limit.days), tolerances: limit.tolerances ?? [] };
  return monthsLater(limit, at, from, times * limit.months, dayOfMonth);
}

/** Start of the next interval: the work, or the original due point. */
function beginning<T>(
  limit: { tolerances?: Tolerance[]; rhythmWithin?: number },
  done: T,
  due: T | undefined,
  work: WorkDone,
  minus: (a: T, b: T) => number,
): T {
  if (due === undefined) return done;
  const late = minus(done, due);
  if (late > 0) return takenOff(limit.tolerances, work) ? due : done;
  return -late <= (limit.rhythmWithin ?? 0) ? due : done;
}

/**
 * True if the overrun is subtracted. If the work does not name its purpose, it is subtracted as soon as any tolerance requires
 * it: the shorter interval is the safe one.
 */
function takenOff(tolerances: readonly Tolerance[] | undefined, { under }: WorkDone): boolean {
  const used =
    tolerances?.filter(
      (tolerance) => under === undefined || tolerance.for === "any flight" || tolerance.for === under,
    ) ?? [];
  return used.some((tolerance) => tolerance.takenOff);
}
