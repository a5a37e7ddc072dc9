import { median } from "../trend/median";
import { QuantityError } from "../units/convert";

// Cached: this runs about a million times a second.
const { abs, exp, log, max, sqrt } = Math;

/** A piece settling towards one level: value ≈ level + off · exp(−(t − t[from]) / settle). */
export interface SettlingPiece {
  /** First sample, and the one after its last. */
  from: number;
  to: number;
  level: number;
  /** Initial distance from its level. */
  off: number;
  /** Time constant, seconds. */
  settle: number;
  /** Scatter about the curve. */
  sigma: number;
}

/** Candidate time constants, seconds: from a light propeller to a slow hand. */
const SETTLE_S = [0.35, 0.75, 1.3, 2.4];
/** Maximum length of a piece, seconds; callers join pieces at the same level. */
const MAX_S = 45;

/**
 * Cuts values into pieces that each settle towards a level as a first-order lag: optimal partition with penalised cost. The cost
 * of a piece is n·ln(variance) about its curve, with the values' own scatter (and half of an instrument's rounding) as minimum. A
 * slow response is one piece with its level, so no ramp is lost: three seconds on a side are found at one sample per second.
 * `least` is the minimum scatter, in the values' unit; `penalty` the cost per piece. Seconds. Valid range: times increasing,
 * finite values, least > 0 (QuantityError otherwise). Complexity: O(n · samples in 45 s · 4). Source: optimal partitioning,
 * Jackson et al. (2005), with a first-order step response per piece.
 */
export function settlingPieces(
  t: ArrayLike<number>,
  y: ArrayLike<number>,
  { penalty, least }: { penalty: number; least: number },
): SettlingPiece[] {
  const n = y.length;
  if (!(least > 0)) throw new QuantityError("A piece needs a scatter.");
  if (n === 0) return [];
  const shift = y[0] as number;
  const ys = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const value = (y[i] as number) - shift;
    if (!Number.isFinite(value) || !Number.isFinite(t[i] as number))
      throw new QuantityError("A value is not a number.");
    ys[i] = value;
  }
  const sigma = max(least, scatterOf(ys));
  const floor = sigma * sigma;
  // Typed arrays: the inner loop runs a million times for half an hour.
  const at = Float64Array.from(t);
  const [lefts0, lefts1, lefts2, lefts3] = SETTLE_S.map((tau) => leftOf(at, tau)) as Lefts;
  const alike = 1e-6 * floor;
  const best = new Float64Array(n + 1).fill(Number.POSITIVE_INFINITY);
  const from = new Int32Array(n + 1);
  const tauOf = new Int8Array(n + 1);
  best[0] = 0;
  const logFloor = log(floor);
  for (let i = 0; i < n; i++) {
    const before = (best[i] as number) + penalty;
    if (!Number.isFinite(before)) continue;
    const latest = (at[i] as number) + MAX_S;
    let sy = 0;
    let syy = 0;
    // Running sums per time constant, as scalars: nested arrays would cost five times as much.
    let e0 = 1;
    let e1 = 1;
    let e2 = 1;
    let e3 = 1;
    let s0 = 0;
    let s1 = 0;
    let s2 = 0;
    let s3 = 0;
    let q0 = 0;
    let q1 = 0;
    let q2 = 0;
    let q3 = 0;
    let p0 = 0;
    let p1 = 0;
    let p2 = 0;
    let p3 = 0;
    for (let j = i; j < n; j++) {
      if ((at[j] as number) > latest) break;
      if (j > i) {
        e0 *= lefts0[j] as number;
        e1 *= lefts1[j] as number;
        e2 *= lefts2[j] as number;
        e3 *= lefts3[j] as number;
      }
      const value = ys[j] as number;
      sy += value;
      syy += value * value;
      s0 += e0;
      s1 += e1;
      s2 += e2;
      s3 += e3;
      q0 += e0 * e0;
      q1 += e1 * e1;
      q2 += e2 * e2;
      q3 += e3 * e3;
      p0 += value * e0;
      p1 += value * e1;
      p2 += value * e2;
      p3 += value * e3;
      const count = j - i + 1;
      if (count < 2 && i > 0 && j < n - 1) continue;
      const part = 1 / count;
      const mean = sy * part;
      // The time constant that explains most; on ties the shortest, independent of rounding.
      let tau = 0;
      let gain = gainOf(q0 - s0 * s0 * part, p0 - s0 * mean);
      const gain1 = gainOf(q1 - s1 * s1 * part, p1 - s1 * mean);
      if (gain1 > gain + alike) {
        gain = gain1;
        tau = 1;
      }
      const gain2 = gainOf(q2 - s2 * s2 * part, p2 - s2 * mean);
      if (gain2 > gain + alike) {
        gain = gain2;
        tau = 2;
      }
      const gain3 = gainOf(q3 - s3 * s3 * part, p3 - s3 * mean);
      if (gain3 > gain + alike) {
        gain = gain3;
        tau = 3;
      }
      const rss = max(0, syy - sy * mean - gain);
      const known = best[j + 1] as number;
      const quiet = rss <= floor * count;
      // The floor bounds the cost from below, so most pieces need no logarithm.
      if (!quiet && before + count >= known) continue;
      const cost = before + (quiet ? rss / floor : count * (log(rss * part) - logFloor + 1));
      if (cost < known) {
        best[j + 1] = cost;
        from[j + 1] = i;
        tauOf[j + 1] = tau;
      }
    }
  }
  const pieces: SettlingPiece[] = [];
  for (let to = n; to > 0; ) {
    const start = from[to] as number;
    pieces.push(fit(t, ys, start, to, SETTLE_S[tauOf[to] as number] as number, shift));
    to = start;
  }
  return pieces.reverse();
}

type Lefts = [Float64Array, Float64Array, Float64Array, Float64Array];

/** Remaining share of the offset one sample later. */
function leftOf(t: Float64Array, tau: number): Float64Array {
  const left = new Float64Array(t.length);
  for (let i = 1; i < t.length; i++) left[i] = exp(-((t[i] as number) - (t[i - 1] as number)) / tau);
  return left;
}

/** Sum of squares explained by a curve; zero if it does not move. */
const gainOf = (spread: number, along: number): number => (spread < 1e-6 ? 0 : (along * along) / spread);

/** Boundaries up to twenty times less likely than the best are included: twice the logarithm. */
const LIKELY = 6;
/** Search window on both sides of a boundary, seconds. */
const LOOKED_S = 8;

/**
 * Range of each piece's start: all boundaries that explain the values nearly as well as the best, both pieces fitted anew. For
 * the first piece its own first sample twice. `least` as of `settlingPieces`. Seconds. Complexity: O(samples of both pieces · 4)
 * per piece. Source: profile likelihood; about 95 % coverage (own figure).
 */
export function beginsOf(
  t: ArrayLike<number>,
  y: ArrayLike<number>,
  pieces: readonly SettlingPiece[],
  least: number,
): [number, number][] {
  const shift = y[0] ?? 0;
  // Shifted towards zero to keep precision in sums of squares.
  const ys = Float64Array.from(y, (value) => value - shift);
  const sigma = max(least, scatterOf(ys));
  return pieces.map((piece, k) => {
    const before = pieces[k - 1];
    const here = t[piece.from] as number;
    if (!before) return [here, here];
    const first = costsOfBegin(t, ys, before.from, piece.to, sigma);
    const second = costsOfEnd(t, ys, before.from, piece.to, sigma);
    const likely: { at: number; cost: number }[] = [];
    for (let i = before.from + 1; i < piece.to; i++)
      if (abs((t[i] as number) - here) <= LOOKED_S)
        likely.push({
          at: i,
          cost: (first[i - before.from] as number) + (second[i - before.from] as number),
        });
    const best = likely.reduce((a, b) => (b.cost < a ? b.cost : a), Number.POSITIVE_INFINITY);
    const kept = likely.filter(({ cost }) => cost <= best + LIKELY);
    const [earliest, latest] = [kept[0], kept.at(-1)];
    if (!earliest || !latest) return [here, here];
    // It began after the previous sample.
    return [t[earliest.at - 1] as number, t[latest.at] as number];
  });
}

/** Costs of pieces starting at `from`, by length, with the best curve each. */
function costsOfBegin(t: ArrayLike<number>, ys: Float64Array, from: number, to: number, sigma: number) {
  const costs = new Float64Array(to - from + 1).fill(Number.POSITIVE_INFINITY);
  for (const settle of SETTLE_S) {
    sumsOf(t, ys, from, to, settle, (k, sums) => {
      costs[k] = Math.min(costs[k] as number, costOf(k, sums, sigma));
    });
  }
  return costs;
}

/** Costs of pieces ending before `to`, by start. The remaining offset shrinks by one sample's factor with each earlier start. */
function costsOfEnd(t: ArrayLike<number>, ys: Float64Array, from: number, to: number, sigma: number) {
  const costs = new Float64Array(to - from).fill(Number.POSITIVE_INFINITY);
  for (const settle of SETTLE_S) {
    const sums = { se: 0, see: 0, sy: 0, sye: 0, syy: 0 };
    for (let i = to - 1; i >= from; i--) {
      const part = i + 1 < to ? exp(-((t[i + 1] as number) - (t[i] as number)) / settle) : 0;
      const value = ys[i] as number;
      sums.se = 1 + part * sums.se;
      sums.see = 1 + part * part * sums.see;
      sums.sy += value;
      sums.sye = value + part * sums.sye;
      sums.syy += value * value;
      costs[i - from] = Math.min(costs[i - from] as number, costOf(to - i, sums, sigma));
    }
  }
  return costs;
}

type Sums = Record<"se" | "see" | "sy" | "sye" | "syy", number>;

/** Cost of a piece of n samples about its curve. */
function costOf(n: number, { se, see, sy, sye, syy }: Sums, sigma: number): number {
  const floor = sigma * sigma;
  const rss = restOf(n, se, see, sy, sye, syy);
  const variance = rss / n;
  return variance > floor ? n * (log(variance) - log(floor) + 1) : rss / floor;
}

/** Accumulates the sums for fitting a curve; e is the remaining offset. Calls `seen` after each sample. */
function sumsOf(
  t: ArrayLike<number>,
  ys: Float64Array,
  from: number,
  to: number,
  settle: number,
  seen?: (lines: number, sums: Sums) => void,
): Sums {
  const sums = { se: 0, see: 0, sy: 0, sye: 0, syy: 0 };
  for (let i = from; i < to; i++) {
    const e = exp(-((t[i] as number) - (t[from] as number)) / settle);
    const value = ys[i] as number;
    sums.se += e;
    sums.see += e * e;
    sums.sy += value;
    sums.sye += value * e;
    sums.syy += value * value;
    seen?.(i - from + 1, sums);
  }
  return sums;
}

/** Residual sum of squares: a line in e, or the mean if e is constant. */
function restOf(n: number, se: number, see: number, sy: number, sye: number, syy: number): number {
  return max(0, syy - (sy * sy) / n - gainOf(see - (se * se) / n, sye - (se * sy) / n));
}

function fit(
  t: ArrayLike<number>,
  ys: Float64Array,
  from: number,
  to: number,
  settle: number,
  shift: number,
): SettlingPiece {
  const { se, see, sy, sye, syy } = sumsOf(t, ys, from, to, settle);
  const n = to - from;
  const spread = see - (se * se) / n;
  const off = spread < 1e-6 ? 0 : (sye - (se * sy) / n) / spread;
  const level = (sy - off * se) / n;
  return {
    from,
    to,
    level: level + shift,
    off,
    settle,
    sigma: sqrt(restOf(n, se, see, sy, sye, syy) / n),
  };
}

/** Scatter from sample to sample, without steps; at least half of the instrument's rounding. */
function scatterOf(values: Float64Array): number {
  const jumps: number[] = [];
  for (let i = 1; i < values.length; i++) jumps.push(abs((values[i] as number) - (values[i - 1] as number)));
  if (jumps.length === 0) return 0;
  const moved = jumps.filter((jump) => jump > 0);
  const grain = moved.length > 0 ? moved.reduce((a, b) => (b < a ? b : a)) : 0;
  return max((1.4826 * median(jumps)) / Math.SQRT2, 0.35 * grain);
}
