import { midmean } from "../../../trend/median";
import { type StretchLevel, unsettledLevel } from "./unsettled-level";

/** Values of which so many share one figure come from an instrument that shows no others between. */
const COARSE_STEP = 4;

/** The steps in which an instrument shows its values: the least that two of them are apart; 0 where no two differ. */
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
 * The level of a stretch in which the needle stood, and how sure it is: one standard deviation, which has the scatter by the number of values and what the steps hide. Of a fine instrument it is the
 * mean of the middle half; of a coarse one what explains best how often each of its figures came, since where the needle stood between two steps shows in that (`levelOnTheWay`).
 * Valid range: at least one number; `grain` ≥ 0, the instrument's step in the values' unit. Source: the midmean is Tukey's; what steps hide is Widrow's theory of quantisation noise (from memory).
 */
export function levelOf(values: readonly number[], grain: number): StretchLevel {
  const middle = midmean(values);
  if (grain >= COARSE_STEP) {
    const near = values.filter((value) => Math.abs(value - middle) <= 2 * grain);
    return unsettledLevel({ there: near.length > 0 ? near : values, onTheWay: [], from: middle }, grain);
  }
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  const scatter = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length);
  // What the steps themselves scatter is no scatter of the needle.
  const own = Math.sqrt(Math.max(0, scatter ** 2 - grain ** 2 / 12));
  const hidden = grain > 0 ? (grain / Math.PI) * Math.exp(-2 * (Math.PI * (own / grain)) ** 2) : 0;
  return { value: middle, sigma: Math.hypot(scatter / Math.sqrt(values.length), hidden / Math.SQRT2) };
}
