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
  const taus = SETTLE_S.length;
  /** How much of what is off is left one line later. */
  const left = SETTLE_S.map((tau) => {
    const part = new Float64Array(n);
    for (let i = 1; i < n; i++) part[i] = exp(-((t[i] as number) - (t[i - 1] as number)) / tau);
    return part;
  });
  const best = new Float64Array(n + 1).fill(Number.POSITIVE_INFINITY);
  const from = new Int32Array(n + 1);
  const tauOf = new Int8Array(n + 1);
  best[0] = 0;
  const logFloor = log(floor);
  for (let i = 0; i < n; i++) {
    const before = (best[i] as number) + penalty;
    if (!Number.isFinite(before)) continue;
    for (let k = 0; k < taus; k++) {
      const part = left[k] as Float64Array;
      let e = 1;
      let se = 0;
      let see = 0;
      let sy = 0;
      let sye = 0;
      let syy = 0;
      for (let j = i; j < n; j++) {
        if ((t[j] as number) - (t[i] as number) > LONGEST_S) break;
        if (j > i) e *= part[j] as number;
        const value = ys[j] as number;
        se += e;
        see += e * e;
        sy += value;
        sye += value * e;
        syy += value * value;
        const count = j - i + 1;
        if (count < 2 && i > 0 && j < n - 1) continue;
        const rss = restOf(count, se, see, sy, sye, syy);
        const variance = rss / count;
        const cost = before + (variance > floor ? count * (log(variance) - logFloor + 1) : rss / floor);
        if (cost < (best[j + 1] as number)) {
          best[j + 1] = cost;
          from[j + 1] = i;
          tauOf[j + 1] = k;
        }
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

/** Borders that are less likely than one in twenty beside the best one are left out: twice the logarithm. */
const LIKELY = 6;
/** So far on both sides a border is looked for, seconds. */
const LOOKED_S = 8;

/**
 * Between which times each piece's begin may lie: all borders to the piece before that explain the row nearly as well as the best one, both pieces fitted anew for each. Of the first piece its own
 * first line twice. `least` as of `settlingPieces`. Seconds. Complexity: O(lines in 16 s · lines of both pieces · 4) a piece. Source: profile likelihood; about 95 of 100 (own figure).
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
    const likely: { at: number; cost: number }[] = [];
    for (let i = before.from + 1; i < piece.to; i++) {
      if (abs((t[i] as number) - here) > LOOKED_S) continue;
      likely.push({ at: i, cost: costOf(t, ys, before.from, i, sigma) + costOf(t, ys, i, piece.to, sigma) });
    }
    const best = likely.reduce((a, b) => (b.cost < a ? b.cost : a), Number.POSITIVE_INFINITY);
    const kept = likely.filter(({ cost }) => cost <= best + LIKELY);
    const [first, last] = [kept[0], kept.at(-1)];
    if (!first || !last) return [here, here];
    // It began somewhere behind the line before.
    return [t[first.at - 1] as number, t[last.at] as number];
  });
}

/** The cost of one piece, its best curve taken. */
function costOf(t: ArrayLike<number>, ys: Float64Array, from: number, to: number, sigma: number): number {
  const n = to - from;
  const floor = sigma * sigma;
  return SETTLE_S.reduce((best, settle) => {
    const { se, see, sy, sye, syy } = sumsOf(t, ys, from, to, settle);
    const rss = restOf(n, se, see, sy, sye, syy);
    const variance = rss / n;
    return Math.min(best, variance > floor ? n * (log(variance) - log(floor) + 1) : rss / floor);
  }, Number.POSITIVE_INFINITY);
}

/** The sums of one piece that a curve through it is fitted from; e is what is left of how far off it began. */
function sumsOf(t: ArrayLike<number>, ys: Float64Array, from: number, to: number, settle: number) {
  const sums = { se: 0, see: 0, sy: 0, sye: 0, syy: 0 };
  for (let i = from; i < to; i++) {
    const e = exp(-((t[i] as number) - (t[from] as number)) / settle);
    const value = ys[i] as number;
    sums.se += e;
    sums.see += e * e;
    sums.sy += value;
    sums.sye += value * e;
    sums.syy += value * value;
  }
  return sums;
}

/** What a curve leaves over, from the sums of a piece: a line in e, or its mean where e says nothing. */
function restOf(n: number, se: number, see: number, sy: number, sye: number, syy: number): number {
  const spread = see - (se * se) / n;
  const about = syy - (sy * sy) / n;
  if (spread < 1e-6) return max(0, about);
  const along = sye - (se * sy) / n;
  return max(0, about - (along * along) / spread);
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
