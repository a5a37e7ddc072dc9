import { changePoints } from "../../trace/change-points";
import type { Trace } from "../../trace/trace";
import { median } from "../../trend/median";

/** A stretch in which the rpm stands. */
export interface Plateau {
  from: number;
  to: number;
  rpm: number;
  /** Scatter within it, rpm. */
  sigma: number;
}

/** Length of the pieces in which the trace is first looked at, seconds. */
const BLOCK_S = 0.5;
/** Blocks that are cut at once: two minutes. */
const PART = 240;

/**
 * Where the rpm stands still, found by its change points; ramps between are left out, and pieces that go on at the same level are one.
 * `scale` is 1 for an engine run up at 1,800 rpm, more for a faster one. Valid range: times rising, NaN for what did not come.
 */
export function findPlateaus({ t, channels: { rpm } }: Trace, interval: number, scale: number): Plateau[] {
  if (!rpm) return [];
  const blocks: { from: number; to: number; mean: number; sum2: number; count: number }[] = [];
  const size = Math.max(1, Math.round(BLOCK_S / Math.max(interval, 0.01)));
  let begin = 0;
  while (begin < t.length) {
    let sum = 0;
    let sum2 = 0;
    let count = 0;
    let end = begin;
    while (end < t.length && end - begin < size) {
      // A hole in the trace ends the block: what lies behind it may be another level.
      if (end > begin && (t[end] as number) - (t[end - 1] as number) > Math.max(1.5, 5 * interval)) break;
      const value = rpm[end] as number;
      if (!Number.isNaN(value)) {
        sum += value;
        sum2 += value * value;
        count++;
      }
      end++;
    }
    if (count > 0)
      blocks.push({ from: t[begin] as number, to: t[end - 1] as number, mean: sum / count, sum2, count });
    begin = end;
  }
  if (blocks.length < 4) return [];
  const means = blocks.map((block) => block.mean);
  // A long calm stretch costs with its square: it is looked at in parts, and what goes on at one level is joined again below.
  const cuts: number[] = [];
  for (let part = 0; part < means.length; part += PART) {
    const own = means.slice(part, part + PART);
    if (part > 0) cuts.push(part);
    if (own.length < 4) break;
    const found = changePoints(own, { penalty: 2.2 * Math.log(PART), least: 2, sigmaFloor: 2.2 * scale });
    cuts.push(...found.map((cut) => part + cut));
  }
  const pieces = [0, ...cuts].map((start, i) => blocks.slice(start, cuts[i] ?? blocks.length));
  const found: Plateau[] = [];
  for (const piece of pieces) {
    const plateau = standing(piece, scale);
    if (!plateau) continue;
    const last = found.at(-1);
    const alike =
      last &&
      Math.abs(last.rpm - plateau.rpm) <= Math.max(6.5 * scale, 0.5 * Math.min(last.sigma, plateau.sigma));
    if (last && alike && plateau.from - last.to < 2.5) {
      const a = last.to - last.from;
      const b = plateau.to - plateau.from;
      last.rpm = (last.rpm * a + plateau.rpm * b) / (a + b);
      last.sigma = Math.max(last.sigma, plateau.sigma);
      last.to = plateau.to;
    } else found.push(plateau);
  }
  return found;
}

function standing(
  piece: readonly { from: number; to: number; mean: number; sum2: number; count: number }[],
  scale: number,
): Plateau | undefined {
  const first = piece[0];
  const last = piece.at(-1);
  if (!first || !last) return undefined;
  const seconds = last.to - first.from;
  if (seconds < 0.9) return undefined;
  const third = Math.max(1, Math.floor(piece.length / 3));
  const early = median(piece.slice(0, third).map((block) => block.mean));
  const late = median(piece.slice(-third).map((block) => block.mean));
  const count = piece.reduce((sum, block) => sum + block.count, 0);
  const mean = piece.reduce((sum, block) => sum + block.mean * block.count, 0) / count;
  const variance = piece.reduce((sum, block) => sum + block.sum2, 0) / count - mean * mean;
  const sigma = Math.sqrt(Math.max(0, variance));
  // A ramp runs through its piece from one end to the other.
  if (Math.abs(late - early) / Math.max(seconds, 1) > 12 * scale && Math.abs(late - early) > 1.1 * sigma)
    return undefined;
  return { from: first.from, to: last.to, rpm: median(piece.map((block) => block.mean)), sigma };
}
