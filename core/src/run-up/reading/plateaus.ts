import { beginsOf, type SettlingPiece, settlingPieces } from "../../trace/settling-pieces";
import type { Trace } from "../../trace/trace";

/** A stretch of steady rpm. */
export interface Plateau {
  /** Start of the change towards it, seconds; a slow change belongs to its destination. */
  onset: number;
  /** Possible range of the start. */
  onsetRange: [number, number];
  /** Start of the steady part, seconds. */
  from: number;
  to: number;
  rpm: number;
  /** Time constant, seconds. */
  settle: number;
  /** Scatter within it, rpm. */
  sigma: number;
}

/** Samples closer than this are averaged, seconds. */
const TOGETHER_S = 0.24;
/** A stretch ending further than this from its level is not steady, rpm at 1,800. */
const STANDS_WITHIN = 45;
/** Levels closer than this are the same, rpm at 1,800. */
const ALIKE = 6.5;

/**
 * Finds steady rpm by cutting the trace into pieces that each settle towards a level; ramps are left out, and pieces at the same
 * level are merged. `scale` is 1 for run-up rpm 1,800, more for a faster engine. Valid range: times increasing, NaN for missing
 * values.
 */
export function findPlateaus({ t, channels: { rpm } }: Trace, scale: number): Plateau[] {
  if (!rpm) return [];
  const row = together(t, rpm);
  const pieces = settlingPieces(row.t, row.y, { penalty: PENALTY, least: 2.2 * scale });
  const begins = beginsOf(row.t, row.y, pieces, 2.2 * scale);
  const found: Plateau[] = [];
  /** Start of a change that has not reached a level yet. */
  let moving: { at: number; range: [number, number] } | undefined;
  let before: SettlingPiece | undefined;
  for (const [i, piece] of pieces.entries()) {
    const at = onsetOf(row.t, piece, before);
    const [early, late] = begins[i] as [number, number];
    const begin = { at, range: [Math.min(early, at), Math.max(late, at)] as [number, number] };
    before = piece;
    const plateau = isSteady(row.t, piece, scale);
    if (!plateau) {
      moving ??= begin;
      continue;
    }
    const last = found.at(-1);
    const near = Math.max(ALIKE * scale, 0.5 * Math.min(last?.sigma ?? 0, plateau.sigma));
    if (last && Math.abs(last.rpm - plateau.rpm) <= near && plateau.from - last.to < 2.5) {
      const a = last.to - last.from;
      const b = plateau.to - plateau.from;
      if (a + b > 0) last.rpm = (last.rpm * a + plateau.rpm * b) / (a + b);
      last.sigma = Math.max(last.sigma, plateau.sigma);
      last.to = plateau.to;
    } else {
      const { at: onset, range: onsetRange } = moving ?? begin;
      found.push({ ...plateau, onset, onsetRange });
    }
    moving = undefined;
  }
  return found;
}

/** Penalty per piece: level, time constant and start, about three bits of evidence each. */
const PENALTY = 14;

/** Averages samples that are close together; missing ones are left out. */
function together(t: ArrayLike<number>, rpm: ArrayLike<number>): { t: number[]; y: number[] } {
  const row = { t: [] as number[], y: [] as number[] };
  for (let i = 0; i < t.length; ) {
    let sum = 0;
    let at = 0;
    let count = 0;
    const begin = t[i] as number;
    for (; i < t.length && (t[i] as number) - begin < TOGETHER_S; i++) {
      const value = rpm[i] as number;
      if (Number.isNaN(value)) continue;
      sum += value;
      at += t[i] as number;
      count++;
    }
    if (count === 0) continue;
    row.t.push(at / count);
    row.y.push(sum / count);
  }
  return row;
}

/** Time at which the engine left the previous level, from the deviation of the first sample. */
function onsetOf(t: readonly number[], piece: SettlingPiece, before: SettlingPiece | undefined): number {
  const first = t[piece.from] as number;
  if (!before || piece.from === 0) return first;
  const last = t[piece.from - 1] as number;
  const whole = before.level - piece.level;
  const part = piece.off / whole;
  if (!(part > 0)) return (first + last) / 2;
  return Math.min(first, Math.max(last, first + piece.settle * Math.log(part)));
}

function isSteady(
  t: readonly number[],
  { from, to, level, off, settle, sigma }: SettlingPiece,
  scale: number,
): Omit<Plateau, "onset" | "onsetRange"> | undefined {
  const first = t[from] as number;
  const last = t[to - 1] as number;
  const seconds = last - first;
  const rest = Math.abs(off) * Math.exp(-seconds / settle);
  if (rest > Math.max(STANDS_WITHIN * scale, 0.06 * Math.abs(off)) || seconds < 0.7) return undefined;
  // While approaching its level it is not steady.
  const way = Math.abs(off) > 8 * scale ? settle * Math.log(Math.abs(off) / (8 * scale)) : 0;
  // An unfinished approach uses the last value: extrapolating from a few samples is unreliable.
  const rpm = rest > 10 * scale ? level + Math.sign(off) * rest : level;
  return { from: Math.min(first + way, last - 0.3), to: last, rpm, settle, sigma };
}
