import { QuantityError } from "../units/convert";
import { Z_95_TWO_SIDED } from "../units/uncertain";
import { median } from "./median";

export interface RobustLine {
  slope: number;
  /** Nineteen of twenty times the true slope lies between these. */
  low: number;
  high: number;
  /** Median of y − slope · x. */
  intercept: number;
  points: number;
}

/**
 * The line whose slope is the median of the slopes of all pairs of points: up to 29 % of the points may be wrong without carrying it off. Its
 * interval at 95 % are the slopes of the ranks that Kendall's statistic allows.
 * Pairs are never written down: how many slopes lie below a candidate is counted as inversions of y − candidate · x, and the candidate is
 * narrowed down until it is exact to 1e-12 of the range.
 * Valid range: two points or more, at least two different x; throws QuantityError otherwise. Complexity: O(n log n) for each halving.
 * Source: Sen, J. Amer. Stat. Assoc. 63 (1968); interval: the same, with the normal approximation; counting: Cole et al., SIAM J. Comput. 18 (1989).
 */
export function theilSen(xs: readonly number[], ys: readonly number[]): RobustLine {
  const n = xs.length;
  if (n !== ys.length || n < 2) throw new QuantityError("A trend needs at least two readings.");
  if (![...xs, ...ys].every(Number.isFinite)) throw new QuantityError("A reading is not a number.");
  const order = Array.from({ length: n }, (_, i) => i).sort(
    (a, b) => (xs[a] as number) - (xs[b] as number) || (ys[a] as number) - (ys[b] as number),
  );
  const x = Float64Array.from(order, (i) => xs[i] as number);
  const y = Float64Array.from(order, (i) => ys[i] as number);
  if (x[0] === x[n - 1])
    throw new QuantityError("All readings are of the same hour: there is no trend in one moment.");
  const pairs = pairsApart(x);
  const counter = slopeCounter(x, y);
  const find = (rank: number) => slopeOfRank(counter, x, y, Math.min(Math.max(rank, 1), pairs), pairs);
  const slope = pairs % 2 === 1 ? find((pairs + 1) / 2) : (find(pairs / 2) + find(pairs / 2 + 1)) / 2;
  const spread = Z_95_TWO_SIDED * Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18);
  const low = find(Math.floor((pairs - spread) / 2));
  const high = find(Math.ceil((pairs + spread) / 2) + 1);
  const intercept = median(Array.from(x, (at, i) => (y[i] as number) - slope * at));
  return { slope, low, high, intercept, points: n };
}

/** Pairs with different x: only they have a slope. */
function pairsApart(x: Float64Array): number {
  let pairs = (x.length * (x.length - 1)) / 2;
  for (let i = 0; i < x.length; ) {
    let k = i;
    while (k < x.length && x[k] === x[i]) k++;
    pairs -= ((k - i) * (k - i - 1)) / 2;
    i = k;
  }
  return pairs;
}

/** Counts the pairs whose slope is below s: those that y − s·x puts in falling order. Equal x never count. */
function slopeCounter(x: Float64Array, y: Float64Array): (s: number) => number {
  const n = x.length;
  const z = new Float64Array(n);
  const spare = new Float64Array(n);
  return (s) => {
    // Points of the same x stand in rising order of y, and stay so: they are no inversions.
    for (let i = 0; i < n; i++) z[i] = (y[i] as number) - s * (x[i] as number);
    return inversions(z, spare);
  };
}

/** How many pairs stand in strictly falling order, by merging from below; z is sorted on the way. */
function inversions(z: Float64Array, spare: Float64Array): number {
  const n = z.length;
  let count = 0;
  let from = z;
  let to = spare;
  const RUN = 16;
  for (let start = 0; start < n; start += RUN) {
    const end = Math.min(start + RUN, n);
    for (let i = start + 1; i < end; i++) {
      const v = from[i] as number;
      let k = i - 1;
      while (k >= start && (from[k] as number) > v) {
        from[k + 1] = from[k] as number;
        k--;
      }
      from[k + 1] = v;
      count += i - 1 - k;
    }
  }
  for (let width = RUN; width < n; width *= 2) {
    for (let start = 0; start < n; start += 2 * width) {
      const middle = Math.min(start + width, n);
      const end = Math.min(start + 2 * width, n);
      let i = start;
      let k = middle;
      for (let out = start; out < end; out++) {
        if (i < middle && (k >= end || (from[i] as number) <= (from[k] as number)))
          to[out] = from[i++] as number;
        else {
          to[out] = from[k++] as number;
          count += middle - i;
        }
      }
    }
    [from, to] = [to, from];
  }
  return count;
}

/** The slope of that rank, 1 the lowest: narrowed between a bound below and one above, with the count as the guide. */
function slopeOfRank(
  below: (s: number) => number,
  x: Float64Array,
  y: Float64Array,
  rank: number,
  pairs: number,
): number {
  let [low, high] = bounds(x, y);
  let countLow = 0;
  let countHigh = pairs;
  const tiny = 1e-12 * Math.max(Math.abs(low), Math.abs(high), 1e-300);
  for (let i = 0; i < 200 && high - low > tiny; i++) {
    // Where the counts say it should lie, and every third time the middle, so that it always narrows.
    const part = (rank - 0.5 - countLow) / (countHigh - countLow);
    const guess = i % 3 === 2 || !(part > 0.01 && part < 0.99) ? 0.5 : part;
    const s = low + guess * (high - low);
    if (s <= low || s >= high) break;
    const count = below(s);
    if (count >= rank) {
      high = s;
      countHigh = count;
    } else {
      low = s;
      countLow = count;
    }
  }
  return (low + high) / 2;
}

/** Every slope of a pair lies between the steepest fall and the steepest rise of neighbours in x. */
function bounds(x: Float64Array, y: Float64Array): [number, number] {
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  let least: number | undefined;
  let most: number | undefined;
  for (let i = 0; i < x.length; ) {
    let k = i;
    while (k < x.length && x[k] === x[i]) k++;
    const bottom = y[i] as number;
    const top = y[k - 1] as number;
    if (i > 0 && least !== undefined && most !== undefined) {
      const run = (x[i] as number) - (x[i - 1] as number);
      low = Math.min(low, (bottom - most) / run);
      high = Math.max(high, (top - least) / run);
    }
    least = bottom;
    most = top;
    i = k;
  }
  const hair = 1e-9 * Math.max(Math.abs(low), Math.abs(high), 1e-9);
  return [low - hair, high + hair];
}
