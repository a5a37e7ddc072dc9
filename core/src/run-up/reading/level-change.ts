import { firstAt, type Trace } from "../../trace/trace";

// Cached: this runs about a million times a second.
const { abs, exp, floor, max, min, sqrt } = Math;

/** A change between two levels within a window of the trace. */
export interface LevelChange {
  /** Start, seconds. */
  at: number;
  before: number;
  after: number;
  /** Time constant, seconds. */
  settle: number;
  /** Significance: its size in standard deviations of the difference. */
  z: number;
}

const COARSE = [0.25, 0.7, 1.7];
const SETTLE = [0.1, 0.25, 0.45, 0.7, 1, 1.5, 2.2];

/**
 * Fits the single change of level in a window: constant, then approaching the new level as 1 − exp(−t/settle), by least squares
 * over start and time constant. Undefined for fewer than eight values. Valid range: times increasing. Complexity: O(values² · 7),
 * at most 240 values after thinning.
 */
export function findLevelChange(t: ArrayLike<number>, y: ArrayLike<number>): LevelChange | undefined {
  const n = t.length;
  if (n < 8) return undefined;
  const stride = max(1, floor(n / 240));
  const ts: number[] = [];
  const ys: number[] = [];
  for (let i = 0; i < n; i += stride) {
    ts.push(t[i] as number);
    ys.push(y[i] as number);
  }
  const m = ts.length;
  let best: { sse: number; at: number; before: number; after: number; settle: number } | undefined;
  const mean = ys.reduce((sum, value) => sum + value, 0) / m;
  let yy = 0;
  for (let i = 0; i < m; i++) {
    ys[i] = (ys[i] as number) - mean;
    yy += (ys[i] as number) ** 2;
  }
  const attempt = (at: number, settle: number) => {
    // y = before + rise · s(t): a straight line in s.
    let ss = 0;
    let s1 = 0;
    let sy = 0;
    for (let i = m - 1; i >= 0; i--) {
      const since = (ts[i] as number) - at;
      if (since <= 0) break;
      const s = since > 8 * settle ? 1 : 1 - exp(-since / settle);
      s1 += s;
      ss += s * s;
      sy += s * (ys[i] as number);
    }
    const spread = ss - (s1 * s1) / m;
    if (spread < 1e-9) return;
    // Values are centred on their mean, so their sum is zero.
    const rise = sy / spread;
    const before = (-rise * s1) / m;
    const sse = yy - rise * sy;
    if (!best || sse < best.sse) best = { sse, at, before, after: before + rise, settle };
  };
  const first = ts[0] as number;
  const last = ts[m - 1] as number;
  const coarse = max(0.2, (last - first) / 60);
  for (let at = first + 0.3; at < last - 0.5; at += coarse) for (const settle of COARSE) attempt(at, settle);
  if (!best) return undefined;
  const around = best.at;
  for (let at = max(first, around - coarse); at <= min(last - 0.3, around + coarse); at += coarse / 10)
    for (const settle of SETTLE) attempt(at, settle);
  const { at, before, after, settle, sse } = best;
  const sigma = sqrt(max(0, sse) / max(1, m - 4));
  const earlier = ts.filter((x) => x <= at).length;
  const later = m - earlier;
  const z = abs(after - before) / max(1e-6, sigma * sqrt(1 / max(1, earlier) + 1 / max(1, later)));
  return { at, before: before + mean, after: after + mean, settle, z };
}

/** Values of one channel between two times, without missing ones. Seconds, inclusive. */
export function valuesBetween(
  trace: Trace,
  values: Float64Array,
  from: number,
  to: number,
): { t: number[]; y: number[] } {
  const t: number[] = [];
  const y: number[] = [];
  for (let i = firstAt(trace.t, from); i < trace.t.length && (trace.t[i] as number) <= to; i++) {
    const value = values[i] as number;
    if (Number.isNaN(value)) continue;
    t.push(trace.t[i] as number);
    y.push(value);
  }
  return { t, y };
}
