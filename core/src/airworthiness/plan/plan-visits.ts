/** Recurring work for the workshop, in days from today. */
export interface VisitItem {
  id: string;
  /** Last day on which it may be done; negative if overdue. */
  due: number;
  /** Interval in days; infinite for one-time work. */
  interval: number;
  /** Days before it is due from which the work is accepted; absent: at any time. */
  window?: number;
}

/** True if the work is accepted on this day. */
const accepted = ({ window }: VisitItem, due: number, day: number): boolean =>
  window === undefined || day >= due - window;

/** When the workshop is open. */
export interface Workshop {
  /** Days to plan from today, today included. */
  horizon: number;
  /** True if open on this day from today. */
  open: (day: number) => boolean;
}

/** One visit and the work done at it. */
export interface Visit {
  day: number;
  items: string[];
}

export interface VisitPlan {
  visits: Visit[];
  /** Interval lost by doing work early: the unused share of each interval, summed. */
  thrownAway: number;
  /** Items that cannot stay in date: overdue already, or the workshop is closed until they are. Done at the first possible visit. */
  late: { item: string; due: number; done: number }[];
  /**
   * False if there were too many plans to try all: then the lost interval is only the least found, and with work that is not
   * accepted early also the number of visits.
   */
  exact: boolean;
}

/** Maximum visits tried for one aircraft. */
const MAX_TRIED = 250;

/**
 * Finds the fewest visits that keep everything in date within the horizon, and among those plans the one that loses the least
 * interval.
 * Why this is exact: (1) Postponing a visit to the last open day before its earliest due item makes nothing due earlier and loses
 * less interval, so every visit can be on such a day. (2) Doing all work at each visit that then lasts longer moves every due day
 * as far as possible, so it needs the fewest visits. (3) At a visit, only work that would be overdue at the next visit must be
 * done; more would only lose interval. So the only choice at a visit is the day of the next one, among the days on which
 * something else is due. The choices are searched best first, cut off when they need more visits than the minimum or lose more
 * than the best plan so far.
 * With work that is not accepted before some day this does not hold: few items are planned by trying every plan, many by the same
 * search without the promise that it is the best.
 * Valid range: horizon 0 to 3650 days, intervals ≥ 1. Complexity: choices tried · items, bounded.
 * Source: interval stabbing (textbook greedy algorithms); the proof above.
 */
export function planVisits(items: readonly VisitItem[], workshop: Workshop): VisitPlan {
  const shop = openDays(workshop);
  const late: VisitPlan["late"] = [];
  const due = items.map((item) => {
    const floor = shop.lastOpen(item.due);
    if (floor >= 0 || item.due >= workshop.horizon) return item.due;
    const first = shop.firstOpen(0);
    if (first < workshop.horizon) late.push({ item: item.id, due: item.due, done: first });
    return first;
  });
  // Work that is not accepted early can make an earlier visit pay: then every plan is tried, if there are not too many.
  const few = items.some(({ window }) => window !== undefined) ? everyPlan(items, due, workshop) : undefined;
  if (few) return { ...few, late };
  const search = new Search(items, shop, workshop.horizon);
  return { ...search.best(due), late };
}

/** Most items, and most states, for which every plan is tried. */
const FEW_ITEMS = 6;
const MAX_STATES = 20_000;

interface BestRest {
  visits: readonly Visit[];
  thrownAway: number;
}

/**
 * Tries every plan: each open day, and each set of work accepted on it. Undefined if there are too many, or if none keeps everything
 * in date. Complexity: states · days · 2^items, bounded.
 */
function everyPlan(
  items: readonly VisitItem[],
  start: readonly number[],
  { horizon, open }: Workshop,
): Omit<VisitPlan, "late"> | undefined {
  if (items.length > FEW_ITEMS) return undefined;
  const known = new Map<string, BestRest | undefined>();
  let tooMany = false;
  const rest = (after: number, due: readonly number[]): BestRest | undefined => {
    const first = Math.min(...due);
    if (first >= horizon) return { visits: [], thrownAway: 0 };
    const state = `${after} ${due}`;
    if (known.has(state)) return known.get(state);
    if (known.size > MAX_STATES) tooMany = true;
    if (tooMany) return undefined;
    let best: BestRest | undefined;
    for (let day = after + 1; day <= first && day < horizon; day++) {
      if (!open(day)) continue;
      for (let set = 1; set < 1 << items.length; set++) {
        const one = afterDoing(items, due, day, set);
        const on = one && rest(day, one.due);
        if (!one || !on) continue;
        const made = {
          visits: [{ day, items: one.done }, ...on.visits],
          thrownAway: one.lost + on.thrownAway,
        };
        if (!best || isLess(made, best)) best = made;
      }
    }
    known.set(state, best);
    return best;
  };
  const found = rest(-1, start);
  return found && !tooMany
    ? { visits: [...found.visits], thrownAway: found.thrownAway, exact: true }
    : undefined;
}

const isLess = (one: BestRest, other: BestRest): boolean =>
  one.visits.length < other.visits.length ||
  (one.visits.length === other.visits.length && one.thrownAway < other.thrownAway - 1e-12);

/** The due days after doing this set of work on a day, and what it loses; undefined if some of it is not accepted then. */
function afterDoing(
  items: readonly VisitItem[],
  due: readonly number[],
  day: number,
  set: number,
): { due: number[]; done: string[]; lost: number } | undefined {
  const done: string[] = [];
  const then = [...due];
  let lost = 0;
  for (const [i, item] of items.entries()) {
    if (!(set & (1 << i))) continue;
    const d = due[i] as number;
    if (!accepted(item, d, day)) return undefined;
    if (Number.isFinite(item.interval)) lost += (d - day) / item.interval;
    then[i] = day + item.interval;
    done.push(item.id);
  }
  return { due: then, done, lost };
}

interface OpenDays {
  /** Last open day up to this one; −1 if there is none. */
  lastOpen: (day: number) => number;
  firstOpen: (day: number) => number;
}

function openDays({ horizon, open }: Workshop): OpenDays {
  const last = new Int32Array(horizon + 1);
  let known = -1;
  for (let day = 0; day <= horizon; day++) {
    if (open(day)) known = day;
    last[day] = known;
  }
  return {
    lastOpen: (day) => (day < 0 ? -1 : (last[Math.min(Math.floor(day), horizon)] as number)),
    firstOpen: (day) => {
      for (let at = day; at <= horizon; at++) if (last[at] === at) return at;
      return horizon + 1;
    },
  };
}

/** State of a plan after some visits. */
interface PlanState {
  due: readonly number[];
  after: number;
  visits: readonly Visit[];
  thrownAway: number;
}

class Search {
  readonly #items: readonly VisitItem[];
  readonly #shop: OpenDays;
  readonly #horizon: number;
  #fewest = 0;
  #best: PlanState | undefined;
  #tried = 0;
  readonly #seen = new Map<string, number>();

  constructor(items: readonly VisitItem[], shop: OpenDays, horizon: number) {
    this.#items = items;
    this.#shop = shop;
    this.#horizon = horizon;
  }

  best(due: readonly number[]): Omit<VisitPlan, "late"> {
    const start: PlanState = { due, after: -1, visits: [], thrownAway: 0 };
    this.#fewest = this.#visitsFrom(due, -1);
    this.#narrow(start);
    this.#every(start);
    const { visits, thrownAway } = this.#best as PlanState;
    const windows = this.#items.some(({ window }) => window !== undefined);
    return { visits: [...visits], thrownAway, exact: !windows && this.#tried <= MAX_TRIED };
  }

  /** Day of the next visit: the last open day before the earliest due day; undefined if nothing is due within the horizon. */
  #next(due: readonly number[], after: number): number | undefined {
    let first = Number.POSITIVE_INFINITY;
    for (const day of due) if (day < first) first = day;
    if (first >= this.#horizon) return undefined;
    const floor = this.#shop.lastOpen(first);
    if (floor > after) return floor;
    // Closed the whole time: it is late in any plan, and done as soon as possible.
    const open = this.#shop.firstOpen(after + 1);
    return open >= this.#horizon ? undefined : open;
  }

  /** Number of visits needed from here if all work is done at each: a lower bound. */
  #visitsFrom(due: readonly number[], after: number): number {
    const now = Float64Array.from(due);
    let visits = 0;
    let last = after;
    for (;;) {
      let first = Number.POSITIVE_INFINITY;
      for (const day of now) if (day < first) first = day;
      if (first >= this.#horizon) return visits;
      const floor = this.#shop.lastOpen(first);
      const day = floor > last ? floor : this.#shop.firstOpen(last + 1);
      if (day >= this.#horizon) return visits;
      visits++;
      last = day;
      for (let i = 0; i < now.length; i++) {
        const item = this.#items[i] as VisitItem;
        const d = now[i] as number;
        if (accepted(item, d, day)) now[i] = Math.max(d, day + item.interval);
      }
    }
  }

  /** Visit on this day, at which everything due before `next` is done. */
  #visit({ due, visits, thrownAway }: PlanState, day: number, next: number): PlanState {
    const items: string[] = [];
    let more = thrownAway;
    const then = due.map((d, i) => {
      const item = this.#items[i] as VisitItem;
      const { id, interval } = item;
      // Work that lasts longer if left undone is skipped.
      if (d >= next || day + interval <= d || !accepted(item, d, day)) return d;
      items.push(id);
      if (Number.isFinite(interval)) more += Math.max(0, d - day) / interval;
      return day + interval;
    });
    return { due: then, after: day, visits: [...visits, { day, items }], thrownAway: more };
  }

  /**
   * Choices for the next visit that keep the number of visits minimal, least work first. More work means fewer later visits, so
   * the smallest sufficient choice is found by bisection, and every larger one suffices too. Undefined if no visit is needed.
   */
  #choices(standing: PlanState): { day: number; nexts: number[] } | undefined {
    const { due, after, visits } = standing;
    const day = this.#next(due, after);
    if (day === undefined) return undefined;
    const days = new Set<number>([this.#horizon]);
    for (const d of due) {
      const floor = d >= this.#horizon ? this.#horizon : this.#shop.lastOpen(d);
      if (floor > day) days.add(floor);
    }
    const nexts = [...days].sort((a, b) => a - b);
    const room = this.#fewest - visits.length - 1;
    const does = (next: number) => {
      const then = due.map((d, i) => {
        const item = this.#items[i] as VisitItem;
        return d >= next || !accepted(item, d, day) ? d : Math.max(d, day + item.interval);
      });
      return this.#visitsFrom(then, day) <= room;
    };
    let [low, high] = [0, nexts.length - 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (does(nexts[middle] as number)) high = middle;
      else low = middle + 1;
    }
    return { day, nexts: nexts.slice(low) };
  }

  #end(standing: PlanState): void {
    if (!this.#best || standing.thrownAway < this.#best.thrownAway - 1e-12) this.#best = standing;
  }

  /** Beam search, visit by visit: gives a first plan, and a good one if there are too many to try all. */
  #narrow(start: PlanState): void {
    let beside = [start];
    while (beside.length > 0) {
      const on: PlanState[] = [];
      for (const standing of beside) {
        const choices = this.#choices(standing);
        if (!choices) this.#end(standing);
        else
          for (const next of choices.nexts.slice(0, LOOKED_AT))
            on.push(this.#visit(standing, choices.day, next));
      }
      beside = on.sort((a, b) => a.thrownAway - b.thrownAway).slice(0, BESIDE);
    }
  }

  /** Depth-first search over every plan, within a bound. */
  #every(standing: PlanState): void {
    if (this.#tried > MAX_TRIED) return;
    if (this.#best && standing.thrownAway >= this.#best.thrownAway - 1e-12) return;
    const state = `${standing.visits.length}|${standing.after}|${standing.due.join(",")}`;
    if ((this.#seen.get(state) ?? Number.POSITIVE_INFINITY) <= standing.thrownAway) return;
    this.#seen.set(state, standing.thrownAway);
    this.#tried++;
    const choices = this.#choices(standing);
    if (!choices) {
      this.#end(standing);
      return;
    }
    for (const next of choices.nexts) this.#every(this.#visit(standing, choices.day, next));
  }
}

/** Beam width, and choices examined per plan. */
const BESIDE = 4;
const LOOKED_AT = 4;

/** Cost of a manual plan. */
export interface PlanCost {
  visits: Visit[];
  thrownAway: number;
  /** Work done late, with the day, or not at all. */
  late: { item: string; due: number; done?: number }[];
  /** Visits on days when the workshop is closed. */
  closed: number[];
}

/**
 * Cost of visiting on exactly these days (from today): each visit does only what would be overdue at the next; what is still late
 * is reported.
 * Complexity: O(visits · items).
 */
export function planCost(
  items: readonly VisitItem[],
  { horizon, open }: Workshop,
  days: readonly number[],
): PlanCost {
  const inOrder = [...new Set(days)].sort((a, b) => a - b);
  const due = items.map((item) => item.due);
  const late: PlanCost["late"] = [];
  let thrownAway = 0;
  const visits = inOrder.map((day, at): Visit => {
    const next = inOrder[at + 1] ?? horizon;
    const done: string[] = [];
    items.forEach((item, i) => {
      const d = due[i] as number;
      if (d >= next || !accepted(item, d, day)) return;
      if (d < day) late.push({ item: item.id, due: d, done: day });
      else if (Number.isFinite(item.interval)) thrownAway += (d - day) / item.interval;
      due[i] = day + item.interval;
      done.push(item.id);
    });
    return { day, items: done };
  });
  items.forEach((item, i) => {
    const d = due[i] as number;
    if (d < horizon) late.push({ item: item.id, due: d });
  });
  return {
    visits,
    thrownAway,
    late,
    closed: inOrder.filter((day) => !open(day)),
  };
}
