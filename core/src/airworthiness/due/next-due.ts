import { QuantityError } from "../../units/convert";
import { addDays, addMonths, dayNumber, endOfMonth, type LocalDate } from "../calendar/local-date";
import { roundMeter } from "../meters/meter";
import type { DueItem, DueLimit, Tolerance, WorkDone } from "./due-item";

/** Up to when one limit holds: to the end of a day, or to a total of a meter. */
export type DuePoint =
  | { limit: number; date: LocalDate; tolerances: Tolerance[] }
  | { limit: number; meter: string; at: number; tolerances: Tolerance[] };

/** What is due next of an item. */
export interface NextDue {
  item: string;
  /** One for each limit that is known; none after a thing to be done once is done. */
  points: DuePoint[];
  /** What was done last. */
  last?: WorkDone;
  /** Never done as far as is on record, and no printed limit: nobody can say. */
  unknown: boolean;
}

/**
 * What is due next, from everything that was done, oldest first or not. A calendar limit runs from the day of the work, a meter's from its total then.
 * A tolerance that was used and is taken off lets the next interval run from where it was due; so does work that is early by no more than the item's
 * rhythm allows. All other early work, and a limit passed without any tolerance, begins the interval anew at the work.
 * Throws QuantityError for days that are none, or a total that is missing. Complexity: O(works · limits).
 * Source: 14 CFR 91.409(b) for what is taken off (from memory); calendar months end with the month: 91.171, 91.411 (from memory).
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

/** Two on one day: the one with more on the meters came later. */
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
        throw new QuantityError(
          `The work of ${work.date} has no ${limit.meter} reading. The next due date cannot be calculated.`,
        );
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

/** From where the next interval runs: from the work, or from where it had been due. */
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
 * Whether what was flown over is taken off. Where the work does not say under which purpose the limit was passed, it is taken off as soon as any of
 * the tolerances wants it: the shorter interval is the safe one.
 */
function takenOff(tolerances: readonly Tolerance[] | undefined, { under }: WorkDone): boolean {
  const used = tolerances?.filter((tolerance) => under === undefined || tolerance.for === under) ?? [];
  return used.some((tolerance) => tolerance.takenOff);
}
