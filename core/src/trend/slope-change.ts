import { Z_95_TWO_SIDED } from "../units/uncertain";
import { type RobustLine, theilSen } from "./theil-sen";

/** A bend in a line. */
export interface SlopeChange {
  /** Index of the point common to both lines. */
  index: number;
  before: RobustLine;
  after: RobustLine;
  /** Difference of slopes in standard deviations. */
  z: number;
}

/**
 * Finds the clearest bend in a series: at every point with at least `least` readings on either side, robust lines are fitted to
 * both, and the largest difference of slopes in standard deviations is returned. `readingSigma` is the error of one reading, in
 * units of y: it limits the certainty of a slope. Undefined with too few readings. Because many points are tested, 4 rather than
 * 2 is significant (about one healthy series in a hundred, by simulation in the tests).
 * Valid range: x increasing. Complexity: O(n² log n): for a few dozen readings.
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
