import { Z_95_TWO_SIDED } from "../units/uncertain";
import { type RobustLine, theilSen } from "./theil-sen";

/** Where a line bends. */
export interface SlopeChange {
  /** The point that belongs to both lines. */
  index: number;
  before: RobustLine;
  after: RobustLine;
  /** Their difference in standard deviations. */
  z: number;
}

/**
 * Where a series of readings bends most clearly: at every point with at least `least` readings on either side a robust line is laid through
 * both, and the bend with the greatest difference of slopes, in standard deviations, is returned. `readingSigma` is the error of one
 * reading, in the units of y: no slope is surer than the readings at its ends allow. Undefined for too few readings.
 * It looks at many places, so that 4 is no chance (about one healthy series in a hundred, by simulation in the tests), not 2.
 * Valid range: x rising. Complexity: O(n² log n): meant for some dozens of readings.
 * Source: Sen, J. Amer. Stat. Assoc. 63 (1968), for the lines and their intervals; the scan is our own.
 */
export function slopeChange(
  xs: readonly number[],
  ys: readonly number[],
  least: number,
  readingSigma: number,
): SlopeChange | undefined {
  let best: SlopeChange | undefined;
  for (let index = least - 1; index + least <= xs.length; index++) {
    const before = theilSen(xs.slice(0, index + 1), ys.slice(0, index + 1));
    const after = theilSen(xs.slice(index), ys.slice(index));
    const error = ({ low, high }: RobustLine, from: number, to: number) =>
      Math.max((high - low) / (2 * Z_95_TWO_SIDED), readingSigma / ((xs[to] ?? 0) - (xs[from] ?? 0)));
    const sigma = Math.hypot(error(before, 0, index), error(after, index, xs.length - 1));
    const z = (after.slope - before.slope) / sigma;
    if (!best || Math.abs(z) > Math.abs(best.z)) best = { index, before, after, z };
  }
  return best;
}
