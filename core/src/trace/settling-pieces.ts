import { median } from "../trend/median";
import { QuantityError } from "../units/convert";

// Taken once: this runs some million times a second.
const { abs, exp, log, max, sqrt } = Math;

/** A piece of a row in which it settles towards one level: value ≈ level + off · exp(−(t − t[from]) / settle). */
export interface SettlingPiece {
  /** Its first line, and the one behind its last. */
  from: number;
  to: number;
  level: number;
  /** How far from its level it begins. */
  off: number;
  /** How fast it settles, seconds. */
  settle: number;
  /** Scatter about the curve. */
  sigma: number;
}

/** So fast an engine follows the hand, seconds: from a light propeller to a hand that takes its time. */
const SETTLE_S = [0.35, 0.75, 1.3, 2.4];
/** Longer than this no piece is looked at as one, seconds; what goes on at its level is joined by whoever reads it. */
const LONGEST_S = 45;

/**
 * Cuts a row into pieces that each settle towards a level of their own as a first-order lag does: least penalised cost of all ways to cut it. The cost of a piece is
 * n·ln(variance) about its curve, with the row's own scatter under it (and half of what a coarse instrument rounds away), so that a quiet piece is not cut for nothing. What follows
 * the hand slowly is one piece with what it comes to, and no ramp is lost between two levels: three seconds on a side are found at one line a second.
 * `least` is the scatter below which nothing is told apart, in the row's unit; `penalty` the price of a piece. Seconds. Valid range: times rising, finite values, least > 0 (QuantityError
 * otherwise). Complexity: O(n · lines in 45 s · 4). Source: optimal partitioning, Jackson et al. (2005), with a first-order step response as the model of a piece.
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
  // Plain rows of one kind: this is gone through some million times for half an hour.
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
    const latest = (at[i] as number) + LONGEST_S;
    let sy = 0;
    let syy = 0;
    // Of each manner of settling what is left, its sum, its sum of squares, and its sum with the values; written out, for rows of rows cost five times as much.
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
      // The manner that explains most is the cheapest, whatever the rest costs; of those that explain the same the quickest, not the one that is rounded best.
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
      // Above the floor a piece costs one a line at least: most need no logarithm.
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

/** How much of what is off is left one line later. */
function leftOf(t: Float64Array, tau: number): Float64Array {
  const left = new Float64Array(t.length);
  for (let i = 1; i < t.length; i++) left[i] = exp(-((t[i] as number) - (t[i - 1] as number)) / tau);
  return left;
}

/** What a curve explains of the squares about the mean; nothing where it does not move. */
const gainOf = (spread: number, along: number): number => (spread < 1e-6 ? 0 : (along * along) / spread);

/** Borders that are less likely than one in twenty beside the best one are left out: twice the logarithm. */
const LIKELY = 6;
/** So far on both sides a border is looked for, seconds. */
const LOOKED_S = 8;

/**
 * Between which times each piece's begin may lie: all borders to the piece before that explain the row nearly as well as the best one, both pieces fitted anew for each. Of the first piece its own
 * first line twice. `least` as of `settlingPieces`. Seconds. Complexity: O(lines of both pieces · 4) a piece. Source: profile likelihood; about 95 of 100 (own figure).
 */
export function beginsOf(
  t: ArrayLike<number>,
  y: ArrayLike<number>,
  pieces: readonly SettlingPiece[],
  least: number,
): [number, number][] {
  const shift = y[0] ?? 0;
  // Near nought, so that sums of squares keep their figures.
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
    // It began somewhere behind the line before.
    return [t[earliest.at - 1] as number, t[latest.at] as number];
  });
}

/** The cost of each piece that begins at `from`: at place k of the one of k lines, its best curve taken. */
function costsOfBegin(t: ArrayLike<number>, ys: Float64Array, from: number, to: number, sigma: number) {
  const costs = new Float64Array(to - from + 1).fill(Number.POSITIVE_INFINITY);
  for (const settle of SETTLE_S) {
    sumsOf(t, ys, from, to, settle, (k, sums) => {
      costs[k] = Math.min(costs[k] as number, costOf(k, sums, sigma));
    });
  }
  return costs;
}

/** The cost of each piece that ends before `to`: at place k of the one whose first line is `from` + k. What is left of how far off it began shrinks by one line's part with each line before. */
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

/** The cost of a piece of so many lines about its curve. */
function costOf(n: number, { se, see, sy, sye, syy }: Sums, sigma: number): number {
  const floor = sigma * sigma;
  const rss = restOf(n, se, see, sy, sye, syy);
  const variance = rss / n;
  return variance > floor ? n * (log(variance) - log(floor) + 1) : rss / floor;
}

/** The sums of one piece that a curve through it is fitted from; e is what is left of how far off it began. `seen` is told them behind each line, with how many there were. */
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

/** What a curve leaves over, from the sums of a piece: a line in e, or its mean where e says nothing. */
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

/** The scatter of a row from one line to the next, steps left out; at least half of what its instrument rounds away. */
function scatterOf(values: Float64Array): number {
  const jumps: number[] = [];
  for (let i = 1; i < values.length; i++) jumps.push(abs((values[i] as number) - (values[i - 1] as number)));
  if (jumps.length === 0) return 0;
  const moved = jumps.filter((jump) => jump > 0);
  const grain = moved.length > 0 ? moved.reduce((a, b) => (b < a ? b : a)) : 0;
  return max((1.4826 * median(jumps)) / Math.SQRT2, 0.35 * grain);
}
