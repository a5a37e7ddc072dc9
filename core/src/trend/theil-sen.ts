import { QuantityError } from "../units/convert";
import { seededRandom } from "../units/seeded-random";
import { Z_95_TWO_SIDED } from "../units/uncertain";
import { median } from "./median";

export interface RobustLine {
  slope: number;
  /** 95 % interval of the slope. */
  low: number;
  high: number;
  /** Median of y − slope · x. */
  intercept: number;
  points: number;
}

/**
 * Robust line whose slope is the median of the slopes of all pairs of points: tolerates up to 29 % outliers. Its 95 % interval
 * comes from the ranks of Kendall's statistic. For many points the pairs are not listed: slopes below a candidate are counted as
 * inversions of y − candidate · x, and only those between two close candidates are enumerated.
 * Valid range: at least two points and two different x; throws QuantityError otherwise. Complexity: O(n log n) per candidate, of
 * which a dozen or two are needed.
 * Source: Sen, J. Amer. Stat. Assoc. 63 (1968); interval: the same, with the normal approximation; counting: Cole et al., SIAM J.
 * Comput. 18 (1989).
 */
export function theilSen(xs: readonly number[], ys: readonly number[]): RobustLine {
  const n = xs.length;
  if (n !== ys.length || n < 2) throw new QuantityError("A trend needs at least two readings.");
  const order = risingOrder(xs, ys);
  const x = Float64Array.from(order, (i) => xs[i] as number);
  const y = Float64Array.from(order, (i) => ys[i] as number);
  if (x[0] === x[n - 1])
    throw new QuantityError("All readings are from the same hour, so there is no trend.");
  const pairs = pairsApart(x);
  const find = slopeFinder(x, y, pairs);
  const [lower, upper] = find(Math.ceil(pairs / 2), Math.floor(pairs / 2) + 1);
  const slope = (lower + upper) / 2;
  const spread = Z_95_TWO_SIDED * Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18);
  const at = (rank: number) => Math.min(Math.max(rank, 1), pairs);
  const lowRank = at(Math.floor((pairs - spread) / 2));
  const highRank = at(Math.ceil((pairs + spread) / 2) + 1);
  const [low] = find(lowRank, lowRank);
  const [high] = find(highRank, highRank);
  const intercept = median(Array.from(x, (at, i) => (y[i] as number) - slope * at));
  return { slope, low, high, intercept, points: n };
}

/** Indices of the readings by x, then by y; usually already in order. */
function risingOrder(xs: readonly number[], ys: readonly number[]): number[] {
  let rising = true;
  for (let i = 0; i < xs.length; i++) {
    if (!Number.isFinite(xs[i]) || !Number.isFinite(ys[i]))
      throw new QuantityError("A reading is not a number.");
    if (i > 0 && !((xs[i] as number) > (xs[i - 1] as number))) rising = false;
  }
  const order = Array.from(xs, (_, i) => i);
  return rising
    ? order
    : order.sort((a, b) => (xs[a] as number) - (xs[b] as number) || (ys[a] as number) - (ys[b] as number));
}

/** Number of pairs with different x: only they have a slope. */
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

/** Counts pairs with a slope below s: those that y − s·x puts in descending order. Equal x never count. */
function slopeCounter(x: Float64Array, y: Float64Array): (s: number) => number {
  const n = x.length;
  const z = new Float64Array(n);
  const spare = new Float64Array(n);
  return (s) => {
    // Points with equal x are in ascending order of y and stay so: they are no inversions.
    for (let i = 0; i < n; i++) z[i] = (y[i] as number) - s * (x[i] as number);
    return inversions(z, spare);
  };
}

/** Number of strictly descending pairs, by merge sort; sorts z. */
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

/** Up to this number, all slopes are listed and sorted. */
const FEW = 30_000;

/** Finds the slopes of two neighbouring ranks, starting at 1. */
function slopeFinder(x: Float64Array, y: Float64Array, pairs: number) {
  if (pairs <= FEW) {
    const all = allSlopes(x, y, pairs);
    return (from: number, to: number): [number, number] => [all[from - 1] as number, all[to - 1] as number];
  }
  const below = slopeCounter(x, y);
  const [least, most] = bounds(x, y);
  const sample = sampleOfSlopes(x, y);
  return (from: number, to: number): [number, number] => {
    let [low, high, countLow, countHigh] = [least, most, 0, pairs];
    const tiny = 1e-13 * Math.max(Math.abs(least), Math.abs(most));
    const tryAt = (s: number) => {
      if (!(s > low && s < high)) return;
      const count = below(s);
      if (count < from) [low, countLow] = [s, count];
      else if (count >= to) [high, countHigh] = [s, count];
      // Between two neighbouring ranks: as close as floating point allows.
      else [low, high] = [low + (s - low) * (1 - 1e-9), high];
    };
    // Start where a sample of slopes suggests, with a margin.
    const part = (from - 0.5) / pairs;
    for (const aside of [-SAMPLE_ROOM, SAMPLE_ROOM]) {
      const place = Math.floor((part + aside) * sample.length);
      if (place >= 0 && place < sample.length) tryAt(sample[place] as number);
    }
    for (let turn = 0; turn < 120 && countHigh - countLow > FEW && high - low > tiny; turn++) {
      const left = countHigh - countLow;
      // Interpolate from the counts, with a margin; occasionally bisect, to guarantee progress.
      const here = (from - countLow) / left;
      const [start, width] = [low, high - low];
      if (turn % 3 === 2) tryAt(start + width / 2);
      else
        for (const aside of [-0.04, 0.04])
          tryAt(start + Math.min(0.98, Math.max(0.02, here + aside)) * width);
      if (countHigh - countLow < left / 2) continue;
      // Little progress: readings in tenths repeat the same slope thousands of times, and one such block may contain the rank.
      const block = commonest(sample, low, high, 10 * tiny);
      if (block !== undefined && below(block - 10 * tiny) < from && below(block + 10 * tiny) >= to)
        return [block, block];
    }
    if (countHigh - countLow > FEW) return [(low + high) / 2, (low + high) / 2];
    const between = slopesBetween(x, y, low, high);
    const pick = (rank: number) =>
      between[Math.min(between.length - 1, Math.max(0, rank - countLow - 1))] ?? (low + high) / 2;
    return [pick(from), pick(to)];
  };
}

const SAMPLE = 20_000;
/** Four standard deviations of a sample quantile, at worst. */
const SAMPLE_ROOM = 0.015;

/** A sample of slopes in ascending order, deterministic for the same readings. */
function sampleOfSlopes(x: Float64Array, y: Float64Array): Float64Array {
  const random = seededRandom(x.length);
  const pick = () => Math.floor(random() * x.length);
  const slopes = new Float64Array(SAMPLE);
  for (let n = 0; n < SAMPLE; ) {
    const [i, k] = [pick(), pick()];
    if (x[i] !== x[k])
      slopes[n++] = ((y[k] as number) - (y[i] as number)) / ((x[k] as number) - (x[i] as number));
  }
  return slopes.sort();
}

/** Most frequent value between two others in sorted values, within a tolerance; undefined if none occurs three times. */
function commonest(sorted: Float64Array, from: number, to: number, hair: number): number | undefined {
  let best: number | undefined;
  let most = 2;
  for (let i = 0; i < sorted.length; ) {
    const value = sorted[i] as number;
    let end = i + 1;
    while (end < sorted.length && (sorted[end] as number) - value <= hair) end++;
    if (value > from && value < to && end - i > most) {
      most = end - i;
      best = sorted[(i + end) >> 1] as number;
    }
    i = end;
  }
  return best;
}

/** Every pair's slope, in ascending order. */
function allSlopes(x: Float64Array, y: Float64Array, pairs: number): Float64Array {
  const slopes = new Float64Array(pairs);
  let n = 0;
  for (let i = 0; i < x.length; i++)
    for (let k = i + 1; k < x.length; k++)
      if (x[k] !== x[i])
        slopes[n++] = ((y[k] as number) - (y[i] as number)) / ((x[k] as number) - (x[i] as number));
  return slopes.sort();
}

/**
 * Slopes from `low` up to but excluding `high`, ascending: the pairs that swap between the two orders. Insertion sort takes one
 * step per pair.
 */
function slopesBetween(x: Float64Array, y: Float64Array, low: number, high: number): Float64Array {
  const before = y.map((v, i) => v - low * (x[i] as number));
  const after = y.map((v, i) => v - high * (x[i] as number));
  const order = orderOf(before);
  const found: number[] = [];
  for (let i = 1; i < order.length; i++) {
    const point = order[i] as number;
    const z = after[point] as number;
    let k = i - 1;
    for (; k >= 0 && (after[order[k] as number] as number) > z; k--) {
      const other = order[k] as number;
      found.push(
        ((y[point] as number) - (y[other] as number)) / ((x[point] as number) - (x[other] as number)),
      );
      order[k + 1] = other;
    }
    order[k + 1] = point;
  }
  return Float64Array.from(found).sort();
}

/** Every pair's slope is between the steepest fall and rise of neighbours in x. */
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

/** Indices in ascending order of value, stable: sorts bare numbers, then assigns positions. */
function orderOf(values: Float64Array): Uint32Array {
  const sorted = values.slice().sort();
  const next = new Uint32Array(values.length);
  const order = new Uint32Array(values.length);
  for (let i = 0; i < values.length; i++) {
    const value = values[i] as number;
    let [low, high] = [0, sorted.length];
    while (low < high) {
      const at = (low + high) >> 1;
      if ((sorted[at] as number) < value) low = at + 1;
      else high = at;
    }
    order[low + (next[low] as number)] = i;
    next[low] = (next[low] as number) + 1;
  }
  return order;
}
