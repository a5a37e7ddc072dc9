/** Maximum stations for the exact search; above it a heuristic is used, and the result says so. */
export const EXACT_UP_TO = 16;

export interface OrderProblem {
  /** Metres between stations. */
  distances: readonly (readonly number[])[];
  /** Metres between the cockpit door and each station; absent: the walkaround may start and end anywhere. */
  door?: readonly number[];
  /** [a, b]: station a is visited before station b. */
  precedence?: readonly (readonly [number, number])[];
  /** First station, if the pilot prefers one. */
  start?: number;
}

export interface OrderResult {
  order: number[];
  metres: number;
  /** True if proven shortest; false if found by the heuristic. */
  exact: boolean;
}

/** The precedence rules contradict each other. */
export class OrderError extends Error {
  override readonly name = "OrderError";
}

/**
 * Length of a walkaround in metres: from the door to the first station, between stations, back to the door.
 * Valid range: `order` holds indices of the distances. Complexity: O(n).
 */
export function routeLengthM({ distances, door }: OrderProblem, order: readonly number[]): number {
  let metres = 0;
  for (let i = 1; i < order.length; i++)
    metres += distances[order[i - 1] as number]?.[order[i] as number] ?? 0;
  return metres + (door?.[order[0] as number] ?? 0) + (door?.[order.at(-1) as number] ?? 0);
}

/** True if an order satisfies every precedence rule. Complexity: O(rules × stations). */
export function respectsPrecedence(
  order: readonly number[],
  precedence: readonly (readonly [number, number])[],
): boolean {
  return precedence.every(([a, b]) => order.indexOf(a) < order.indexOf(b));
}

/**
 * Shortest order that visits every station once and satisfies every precedence rule. Exact up to 16 stations, by dynamic
 * programming over sets of visited stations (Held & Karp, J. SIAM 10, 1962; sets that break precedence are skipped); above that
 * by insertion, improved by or-opt and 2-opt, which is good but not proven optimal. Deterministic. Throws OrderError for
 * contradictory rules.
 * Complexity: O(2ⁿ · n²) time and O(2ⁿ · n) memory for n ≤ 16; O(n³) per pass above.
 */
export function bestOrder(problem: OrderProblem): OrderResult {
  const n = problem.distances.length;
  if (n === 0) return { order: [], metres: 0, exact: true };
  assertOrderable(n, problem);
  const order = n <= EXACT_UP_TO ? exactOrder(problem) : goodOrder(problem);
  return { order, metres: routeLengthM(problem, order), exact: n <= EXACT_UP_TO };
}

/** Predecessors of each station, as bits. */
function needsOf(n: number, precedence: OrderProblem["precedence"]): number[] {
  const needs = Array.from({ length: n }, () => 0);
  for (const [a, b] of precedence ?? []) if (a !== b) needs[b] = (needs[b] ?? 0) | (1 << a);
  return needs;
}

function assertOrderable(n: number, { precedence = [], start }: OrderProblem): void {
  const left = new Set(Array.from({ length: n }, (_, i) => i));
  while (left.size > 0) {
    const free = [...left].find((i) => !precedence.some(([a, b]) => b === i && a !== b && left.has(a)));
    if (free === undefined)
      throw new OrderError(
        "These rules contradict each other: no order satisfies all of them. Change one rule.",
      );
    left.delete(free);
  }
  if (start !== undefined && precedence.some(([a, b]) => b === start && a !== b))
    throw new OrderError("The walkaround cannot start there: a rule requires another station first.");
}

function exactOrder({ distances, door, precedence, start }: OrderProblem): number[] {
  const n = distances.length;
  const full = 1 << n;
  const needs = needsOf(n, precedence);
  const cost = new Float64Array(full * n).fill(Number.POSITIVE_INFINITY);
  const from = new Int8Array(full * n).fill(-1);
  const metres = Float64Array.from({ length: n * n }, (_, i) => distances[Math.floor(i / n)]?.[i % n] ?? 0);
  for (let i = 0; i < n; i++)
    if (needs[i] === 0 && (start === undefined || start === i)) cost[(1 << i) * n + i] = door?.[i] ?? 0;
  for (let set = 1; set < full; set++) {
    // The possible next stations depend only on what is visited, not on where one is.
    let open = 0;
    for (let rest = ~set & (full - 1); rest !== 0; rest &= rest - 1) {
      const next = 31 - Math.clz32(rest & -rest);
      if (((needs[next] as number) & ~set) === 0) open |= 1 << next;
    }
    for (let stood = set; stood !== 0; stood &= stood - 1) {
      const last = 31 - Math.clz32(stood & -stood);
      const here = cost[set * n + last] as number;
      if (here === Number.POSITIVE_INFINITY) continue;
      for (let rest = open; rest !== 0; rest &= rest - 1) {
        const next = 31 - Math.clz32(rest & -rest);
        const at = (set | (1 << next)) * n + next;
        const there = here + (metres[last * n + next] as number);
        if (there < (cost[at] as number)) {
          cost[at] = there;
          from[at] = last;
        }
      }
    }
  }
  let last = 0;
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < n; i++) {
    const total = (cost[(full - 1) * n + i] as number) + (door?.[i] ?? 0);
    if (total < least) {
      least = total;
      last = i;
    }
  }
  const order: number[] = [];
  for (let set = full - 1; set > 0; ) {
    order.push(last);
    const before = from[set * n + last] as number;
    set &= ~(1 << last);
    last = before;
  }
  return order.reverse();
}

function goodOrder(problem: OrderProblem): number[] {
  const { distances, precedence = [], start } = problem;
  const allowed = (order: readonly number[]) =>
    (start === undefined || order[0] === start) && respectsPrecedence(order, precedence);
  let order = firstOrder(problem);
  let metres = routeLengthM(problem, order);
  for (let better = true; better; ) {
    better = false;
    for (const candidate of neighbours(order, distances.length)) {
      const length = routeLengthM(problem, candidate);
      if (length < metres - 1e-9 && allowed(candidate)) {
        order = candidate;
        metres = length;
        better = true;
        break;
      }
    }
  }
  return order;
}

/** Nearest neighbour among stations whose predecessors are visited. */
function firstOrder({ distances, door, precedence = [], start }: OrderProblem): number[] {
  const order: number[] = [];
  const left = new Set(distances.map((_, i) => i));
  while (left.size > 0) {
    const at = order.at(-1);
    const way = (i: number) => (at === undefined ? (door?.[i] ?? 0) : (distances[at]?.[i] ?? 0));
    const free = [...left].filter((i) => !precedence.some(([a, b]) => b === i && a !== b && left.has(a)));
    const next =
      at === undefined && start !== undefined
        ? start
        : free.reduce((best, i) => (way(i) < way(best) ? i : best), free[0] as number);
    order.push(next);
    left.delete(next);
  }
  return order;
}

/** Orders reachable by reversing a stretch, or by moving up to three stations elsewhere. */
function* neighbours(order: readonly number[], n: number): Generator<number[]> {
  for (let i = 0; i < n; i++)
    for (let k = i + 1; k < n; k++)
      yield [...order.slice(0, i), ...order.slice(i, k + 1).reverse(), ...order.slice(k + 1)];
  for (let size = 1; size <= 3; size++)
    for (let i = 0; i + size <= n; i++) {
      const moved = order.slice(i, i + size);
      const rest = [...order.slice(0, i), ...order.slice(i + size)];
      for (let k = 0; k <= rest.length; k++)
        if (k !== i) yield [...rest.slice(0, k), ...moved, ...rest.slice(k)];
    }
}
