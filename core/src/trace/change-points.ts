import { QuantityError } from "../units/convert";

// Cached: this runs about a million times a second.
const { log, min } = Math;

/**
 * Change points of mean or scatter, as the starts of pieces: optimal partition with penalised cost. The cost of a piece is
 * n·ln(variance), with `sigmaFloor` as minimum scatter; each cut costs `penalty`. Pieces have at least `least` values. Valid
 * range: finite values, least ≥ 2, sigmaFloor > 0; throws QuantityError otherwise.
 * Complexity: O(n) with frequent changes, O(n²) at worst; exact. Source: Killick, Fearnhead & Eckley, J. Amer. Stat. Assoc. 107
 * (2012), PELT.
 */
export function changePoints(
  values: ArrayLike<number>,
  { penalty, least, sigmaFloor }: { penalty: number; least: number; sigmaFloor: number },
): number[] {
  const n = values.length;
  if (!(least >= 2) || !(sigmaFloor > 0)) throw new QuantityError("A piece needs two values and a scatter.");
  const sum = new Float64Array(n + 1);
  const square = new Float64Array(n + 1);
  const shift = n > 0 ? (values[0] as number) : 0;
  for (let i = 0; i < n; i++) {
    const value = (values[i] as number) - shift;
    if (!Number.isFinite(value)) throw new QuantityError("A value is not a number.");
    sum[i + 1] = (sum[i] as number) + value;
    square[i + 1] = (square[i] as number) + value * value;
  }
  const floor = sigmaFloor * sigmaFloor;
  const cost = (from: number, to: number) => {
    const count = to - from;
    const s = (sum[to] as number) - (sum[from] as number);
    const variance = ((square[to] as number) - (square[from] as number) - (s * s) / count) / count;
    return count * log(variance > 0 ? variance + floor : floor);
  };
  const best = new Float64Array(n + 1).fill(Number.POSITIVE_INFINITY);
  const from = new Int32Array(n + 1);
  best[0] = -penalty;
  /** Candidate starts of the last piece, each with the index from which it is pruned. */
  let starts: { at: number; until: number }[] = [];
  for (let to = least; to <= n; to++) {
    const newest = to - least;
    if (newest === 0 || newest >= least) starts.push({ at: newest, until: Number.POSITIVE_INFINITY });
    let lowest = Number.POSITIVE_INFINITY;
    let chosen = 0;
    for (const { at } of starts) {
      const total = (best[at] as number) + cost(at, to) + penalty;
      if (total < lowest) {
        lowest = total;
        chosen = at;
      }
    }
    best[to] = lowest;
    from[to] = chosen;
    // PELT pruning: a start already dearer without a penalty can never win.
    for (const start of starts)
      if ((best[start.at] as number) + cost(start.at, to) > lowest)
        start.until = min(start.until, to + least);
    starts = starts.filter(({ until }) => until > to);
  }
  const cuts: number[] = [];
  if (n < least) return cuts;
  for (let to = n; to > 0; ) {
    const start = from[to] as number;
    if (start > 0) cuts.push(start);
    to = start;
  }
  return cuts.reverse();
}
