import { boundsOf, type Lack, limitExceedance, minimumChangeKg, STEP_KG } from "./limit-exceedance";
import { type Lever, type LoadChange, loadAdjustments, minimumFuelL } from "./load-adjustments";
import type { Burn, Load, LoadingProfile } from "./loading-profile";
import { smallestChanges } from "./smallest-change";

/** Two changes together, the larger first. */
export type TwoChanges = readonly [LoadChange, LoadChange];

/** Part of a grid of amounts: half kilograms of two changes, from `a0`, `b0` to `a1`, `b1`. */
interface Box {
  one: Lever;
  two: Lever;
  a0: number;
  a1: number;
  b0: number;
  b1: number;
  /** Not yet examined. */
  new: boolean;
}

/**
 * Smallest pairs of changes that bring a load within limits, by summed kilograms, each kind of pair once; for loads no single
 * change can fix. People come along or stay behind as a whole. Exact to half a kilogram: branch and bound over boxes of amounts,
 * using the bounded shift per kilogram. `most`: number of pairs, at least 1. Empty if no pair helps, or nothing is wrong.
 * Complexity: usually O(levers² · log of the amounts · corners²); every pair of half kilograms in the worst case.
 */
export function smallestPairs(
  profile: LoadingProfile,
  load: Load,
  burn: Burn,
  { keepL = minimumFuelL(burn), most = 3 }: { keepL?: number; most?: number } = {},
): TwoChanges[] {
  const now = limitExceedance(profile, load, burn);
  if (!now.wrong) return [];
  const levers = loadAdjustments(profile, load, keepL);
  const bounds = boundsOf(profile);
  const isSeat = (id: string) => profile.stations.some((one) => one.id === id && one.kind === "seat");
  const queue = new Queue();
  /** Queues a box by its lower bound; drops boxes that cannot suffice. */
  const put = (box: Box, lack: Lack, from: { a: number; b: number }) => {
    const { one, two, a1, b1 } = box;
    const reaches = [
      { lever: one, kg: amount(one, a1) - from.a },
      { lever: two, kg: amount(two, b1) - from.b },
    ];
    const need = minimumChangeKg(lack, reaches, bounds);
    if (need < Number.POSITIVE_INFINITY) queue.put(from.a + from.b + need, { box, inside: need === 0 });
  };
  const open = (box: Box) => {
    const { one, two, a0, b0 } = box;
    const from = { a: amount(one, a0), b: amount(two, b0) };
    put(box, limitExceedance(profile, two.apply(one.apply(load, from.a), from.b), burn), from);
  };
  for (const [i, one] of levers.entries())
    for (const two of levers.slice(i + 1)) {
      if (cross(one, two)) continue;
      const [wholeA, wholeB] = [one, two].map((lever) => {
        const change = lever.change(lever.mostKg);
        return change.do === "take out" && isSeat(change.from);
      });
      const [a1, b1] = [steps(one), steps(two)];
      // The present load is known; a pair is examined when its turn comes.
      put({ one, two, a0: wholeA ? a1 : 1, a1, b0: wholeB ? b1 : 1, b1, new: true }, now, { a: 0, b: 0 });
    }
  const found: TwoChanges[] = [];
  const done = new Set<string>();
  for (let next = queue.take(); next && found.length < most; next = queue.take()) {
    const { box, inside } = next;
    const { one, two, a0, a1, b0, b1 } = box;
    if (box.new) {
      open({ ...box, new: false });
      continue;
    }
    const pair = [one.change(amount(one, a0)), two.change(amount(two, b0))] as const;
    const kind = pair.map(whatOf).join();
    if (done.has(kind)) continue;
    if (inside) {
      done.add(kind);
      found.push(pair[0].kg >= pair[1].kg ? pair : [pair[1], pair[0]]);
      continue;
    }
    if (a1 - a0 >= b1 - b0) {
      if (a1 === a0) continue;
      const half = Math.floor((a0 + a1) / 2);
      open({ ...box, a1: half });
      open({ ...box, a0: half + 1 });
    } else {
      const half = Math.floor((b0 + b1) / 2);
      open({ ...box, b1: half });
      open({ ...box, b0: half + 1 });
    }
  }
  const sum = ([a, b]: TwoChanges) => a.kg + b.kg;
  // Remainders of less than half a kilogram can change the order.
  return found.sort((x, y) => sum(x) - sum(y));
}

const HAIR = 1e-6;

const steps = ({ mostKg }: Lever): number => Math.ceil(mostKg / STEP_KG - HAIR);

const amount = ({ mostKg }: Lever, step: number): number => Math.min(mostKg, step * STEP_KG);

/** Kind of a change, regardless of amount. */
const whatOf = (change: LoadChange): string =>
  [change.do, "from" in change ? change.from : "", "to" in change ? change.to : ""].join(":");

/** True if two changes undo each other or overlap: twice out of one station, or into and out of one. */
function cross(one: Lever, two: Lever): boolean {
  const [a, b] = [one.change(STEP_KG), two.change(STEP_KG)];
  const from = (change: LoadChange) => ("from" in change ? change.from : undefined);
  const to = (change: LoadChange) => ("to" in change ? change.to : undefined);
  const same = (x: string | undefined, y: string | undefined) => x !== undefined && x === y;
  return same(from(a), from(b)) || same(from(a), to(b)) || same(to(a), from(b));
}

/** Priority queue by lower bound; ties prefer boxes already within limits. */
class Queue {
  #rows = new Map<number, { box: Box; inside: boolean }[]>();
  #least = Number.POSITIVE_INFINITY;

  put(bound: number, entry: { box: Box; inside: boolean }): void {
    // Amounts come in steps, and so do their sums.
    const row = Math.ceil(bound / STEP_KG - HAIR);
    const there = this.#rows.get(row);
    if (!there) this.#rows.set(row, [entry]);
    else if (entry.inside) there.push(entry);
    else there.unshift(entry);
    this.#least = Math.min(this.#least, row);
  }

  take(): { box: Box; inside: boolean } | undefined {
    for (;;) {
      const row = this.#rows.get(this.#least);
      const entry = row?.pop();
      if (entry) return entry;
      this.#rows.delete(this.#least);
      if (this.#rows.size === 0) return undefined;
      this.#least = Math.min(...this.#rows.keys());
    }
  }
}

/** Single changes that bring the load within limits, else the smallest pairs; empty if no two changes do. */
export function changesWithinLimits(
  profile: LoadingProfile,
  load: Load,
  burn: Burn,
  most: number,
): LoadChange[][] {
  const single = smallestChanges(profile, load, burn).map((change) => [change]);
  return single.length > 0
    ? single.slice(0, most)
    : smallestPairs(profile, load, burn, { most }).map((pair) => [...pair]);
}
