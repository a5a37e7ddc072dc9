import { midmean } from "../../../trend/median";
import { type StretchLevel, unsettledLevel } from "./unsettled-level";

/** Number of equal values that indicates an instrument with coarse steps. */
const COARSE_STEP = 4;

/** Step size of an instrument: the smallest difference between two values; 0 if all are equal. */
export function instrumentResolution(values: ArrayLike<number>): number {
  const seen = Float64Array.from(new Set(Array.from(values).filter(Number.isFinite))).sort();
  let least = Number.POSITIVE_INFINITY;
  for (let i = 1; i < seen.length; i++) {
    const apart = (seen[i] as number) - (seen[i - 1] as number);
    if (apart > 1e-6) least = Math.min(least, apart);
  }
  return Number.isFinite(least) ? least : 0;
}

/**
 * Level of a steady stretch with its standard deviation, from scatter, sample size and step size. For a fine instrument the
 * midmean; for a coarse one the level that best explains the frequencies of the displayed values (`unsettledLevel`).
 * Valid range: at least one number; `grain` ≥ 0, the instrument's step in the values' unit. Source: the midmean is Tukey's;
 * quantisation noise theory is Widrow's (from memory).
 */
export function levelOf(values: readonly number[], grain: number): StretchLevel {
  const middle = midmean(values);
  if (grain >= COARSE_STEP) {
    const near = values.filter((value) => Math.abs(value - middle) <= 2 * grain);
    return unsettledLevel({ there: near.length > 0 ? near : values, onTheWay: [], from: middle }, grain);
  }
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  const scatter = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length);
  // Remove the scatter caused by the steps themselves.
  const own = Math.sqrt(Math.max(0, scatter ** 2 - grain ** 2 / 12));
  const hidden = grain > 0 ? (grain / Math.PI) * Math.exp(-2 * (Math.PI * (own / grain)) ** 2) : 0;
  return { value: middle, sigma: Math.hypot(scatter / Math.sqrt(values.length), hidden / Math.SQRT2) };
}
