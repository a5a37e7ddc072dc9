/** One thing that has to be done at visits, again and again, in days from today. */
export interface VisitItem {
  id: string;
  /** The last day on which it may be done; below 0 it is overdue already. */
  due: number;
  /** How long it holds once done, days; infinite for what is done once. */
  interval: number;
}

/** When the workshop works. */
export interface Workshop {
  /** Days from today that are planned, the first one included. */
  horizon: number;
  /** Whether it works on this day from today. */
  open: (day: number) => boolean;
}

/** One visit, and what is done at it. */
export interface Visit {
  day: number;
  items: string[];
}

export interface VisitPlan {
  visits: Visit[];
  /** The life thrown away: for each time a thing is done early, the part of its interval that was left, added up. */
  thrownAway: number;
  /** What cannot be kept in date: overdue already, or the workshop is closed until it is. It is done at the first visit that there can be. */
  late: { item: string; due: number; done: number }[];
  /** False where there were too many ways to try them all: the number of visits is the fewest all the same, the life thrown away the least found. */
  exact: boolean;
}

/** The most visits that are tried for one aircraft. */
const MOST_TRIED = 250;

/**
 * The fewest visits so that nothing goes overdue within the horizon, and of all plans with so few the one that throws away the least life.
 *
 * Why this is exact. (1) A visit can always be put off until the day on which something done at it is due, or to the last open day before that: nothing
 * becomes due earlier by it, and less life is thrown away. So each visit lies on the last open day before the earliest due. (2) Doing everything
 * at each visit that lasts longer once done puts every due day off as far as it goes; so it needs the fewest visits. (3) Between a visit and the next one only what would be
 * overdue at the next one has to be done; doing more throws life away. So the only choice at a visit is the day of the next one, among the days on
 * which something else is due. These choices are tried, the cheapest first, each cut off where it needs more visits than the fewest, or has thrown away
 * more than the best so far.
 *
 * Valid range: horizon 0 to 3650 days, intervals ≥ 1. Complexity: choices tried · items, bounded.
 * Source: interval stabbing (any text on greedy algorithms); the proof above.
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
  const search = new Search(items, shop, workshop.horizon);
  return { ...search.best(due), late };
}

interface OpenDays {
  /** The last open day up to this one; −1 where there is none. */
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

/** Where a plan stands after some visits. */
interface Standing {
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
  #best: Standing | undefined;
  #tried = 0;
  readonly #seen = new Map<string, number>();

  constructor(items: readonly VisitItem[], shop: OpenDays, horizon: number) {
    this.#items = items;
    this.#shop = shop;
    this.#horizon = horizon;
  }

  best(due: readonly number[]): Omit<VisitPlan, "late"> {
    const start: Standing = { due, after: -1, visits: [], thrownAway: 0 };
    this.#fewest = this.#visitsFrom(due, -1);
    this.#narrow(start);
    this.#every(start);
    const { visits, thrownAway } = this.#best as Standing;
    return { visits: [...visits], thrownAway, exact: this.#tried <= MOST_TRIED };
  }

  /** The day of the next visit: the last open day before the first due; undefined where nothing is due within the horizon. */
  #next(due: readonly number[], after: number): number | undefined {
    let first = Number.POSITIVE_INFINITY;
    for (const day of due) if (day < first) first = day;
    if (first >= this.#horizon) return undefined;
    const floor = this.#shop.lastOpen(first);
    if (floor > after) return floor;
    // The workshop is closed all the time between: it is late whatever is planned, and done as soon as it can be.
    const open = this.#shop.firstOpen(after + 1);
    return open >= this.#horizon ? undefined : open;
  }

  /** How many visits it takes from here where everything is done at each: with fewer it cannot be. */
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
      for (let i = 0; i < now.length; i++)
        now[i] = Math.max(now[i] as number, day + (this.#items[i] as VisitItem).interval);
    }
  }

  /** The visit on this day at which all that is due before `next` is done. */
  #visit({ due, visits, thrownAway }: Standing, day: number, next: number): Standing {
    const items: string[] = [];
    let more = thrownAway;
    const then = due.map((d, i) => {
      const { id, interval } = this.#items[i] as VisitItem;
      // What lasts longer undone is left.
      if (d >= next || day + interval <= d) return d;
      items.push(id);
      if (Number.isFinite(interval)) more += Math.max(0, d - day) / interval;
      return day + interval;
    });
    return { due: then, after: day, visits: [...visits, { day, items }], thrownAway: more };
  }

  /**
   * What can be done at the next visit so that the fewest visits still do, least first. The more is done the fewer visits follow: so the least that does is found by
   * halving, and everything above it does too. Undefined where no visit is needed any more.
   */
  #choices(standing: Standing): { day: number; nexts: number[] } | undefined {
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
      const then = due.map((d, i) =>
        d >= next ? d : Math.max(d, day + (this.#items[i] as VisitItem).interval),
      );
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

  #end(standing: Standing): void {
    if (!this.#best || standing.thrownAway < this.#best.thrownAway - 1e-12) this.#best = standing;
  }

  /** A few good plans beside each other, visit by visit: the first plan, and a good one where there are too many to try all. */
  #narrow(start: Standing): void {
    let beside = [start];
    while (beside.length > 0) {
      const on: Standing[] = [];
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

  /** Every plan, as long as there are not too many. */
  #every(standing: Standing): void {
    if (this.#tried > MOST_TRIED) return;
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

/** So many plans go on beside each other, and so many choices of each are looked at. */
const BESIDE = 4;
const LOOKED_AT = 4;

/** What a plan comes to that somebody made by hand. */
export interface PlanCost {
  visits: Visit[];
  thrownAway: number;
  /** What is done after it was due, by so many days, or not at all. */
  late: { item: string; due: number; done?: number }[];
  /** Visits on days on which the workshop does not work. */
  closed: number[];
}

/**
 * What it costs to visit on exactly these days (from today): at each only what would be overdue at the next is done, and what is late all the same is told.
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
      if (d >= next) return;
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
