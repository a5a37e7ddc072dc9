import { QuantityError } from "../../units/convert";
import { addDays, addMonths, dayNumber, endOfMonth, type LocalDate } from "../calendar/local-date";
import { roundMeter } from "../meters/meter";
import type { DueItem, DueLimit, Tolerance, WorkDone } from "./due-item";

/** End of one limit: the end of a day, or a meter total. */
export type DuePoint =
  | { limit: number; date: LocalDate; tolerances: Tolerance[] }
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
  /** Why it cannot be calculated from what is on record. */
  problem?: string;
}

/**
 * Calculates what is due next from all recorded works, in any order. A calendar limit runs from the day of the work, a meter
 * limit from the total then. After an overrun that is subtracted, and after work early by no more than the item allows, the next
 * interval runs from the original due point. After any other early or late work it starts at the work. Throws QuantityError for
 * invalid dates or a missing total. Complexity: O(works · limits).
 * Source: 14 CFR 91.409(b) for the overrun (from memory); calendar months end with the month: 91.171, 91.411 (from memory).
 */
export function nextDue(item: DueItem, works: readonly WorkDone[]): NextDue {
  const own = works.filter((work) => work.item === item.id).sort(byDay);
  const last = own.at(-1);
  if (item.once && last) return { item: item.id, points: [], last, unknown: false };
  const points = item.limits.flatMap((limit, at) => {
    let point: DuePoint | undefined = printed(limit, at);
    for (const work of own) point = after(limit, at, work, point) ?? point;
    return point ? [point] : [];
  });
  return { item: item.id, points, ...(last && { last }), unknown: points.length === 0 };
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
      const from = beginning(limit, total, due, work, (a, b) => a - b);
      return { limit: at, meter: limit.meter, at: roundMeter(from + limit.every), tolerances };
    }
    case "months":
    case "days": {
      if (work.sets?.date) return { limit: at, date: work.sets.date, tolerances };
      const due = before && "date" in before ? before.date : undefined;
      const from = beginning(limit, work.date, due, work, (a, b) => dayNumber(a) - dayNumber(b));
      if (limit.by === "days") return { limit: at, date: addDays(from, limit.days), tolerances };
      const there = addMonths(from, limit.months);
      return { limit: at, date: limit.to === "month end" ? endOfMonth(there) : there, tolerances };
    }
  }
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
  const used = tolerances?.filter((tolerance) => under === undefined || tolerance.for === under) ?? [];
  return used.some((tolerance) => tolerance.takenOff);
}
