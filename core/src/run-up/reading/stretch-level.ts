import { midmean } from "../../trend/median";

/** What a needle stood at over a stretch, and how sure that is: one standard deviation. */
export interface StretchLevel {
  value: number;
  sigma: number;
}

/** Values of which so many share one figure come from an instrument that shows no others between. */
const COARSE_STEP = 4;

/** The steps in which an instrument shows its values: the least that two of them are apart; 0 where no two differ. */
export function grainOf(values: ArrayLike<number>): number {
  const seen = Float64Array.from(new Set(Array.from(values).filter(Number.isFinite))).sort();
  let least = Number.POSITIVE_INFINITY;
  for (let i = 1; i < seen.length; i++) {
    const apart = (seen[i] as number) - (seen[i - 1] as number);
    if (apart > 1e-6) least = Math.min(least, apart);
  }
  return Number.isFinite(least) ? least : 0;
}

/**
 * The level of a stretch: the mean of the middle half; of a coarse instrument the mean of all within two of its steps, since where the needle stood between two of them shows in how often each
 * came. Its sigma has the scatter by the number of values, and what the steps hide: (step/π)·exp(−2π²(scatter/step)²), which is most where nothing scatters.
 * Valid range: at least one number; `grain` ≥ 0, the instrument's step in the values' unit. Source: Widrow's theory of quantisation noise (from memory); the midmean is Tukey's.
 */
export function levelOf(values: readonly number[], grain: number): StretchLevel {
  const middle = midmean(values);
  const near =
    grain >= COARSE_STEP ? values.filter((value) => Math.abs(value - middle) <= 2 * grain) : values;
  const used = near.length > 0 ? near : values;
  const mean = used.reduce((sum, value) => sum + value, 0) / used.length;
  const scatter = Math.sqrt(used.reduce((sum, value) => sum + (value - mean) ** 2, 0) / used.length);
  // What the steps themselves scatter is no scatter of the needle.
  const own = Math.sqrt(Math.max(0, scatter ** 2 - grain ** 2 / 12));
  const hidden = grain > 0 ? (grain / Math.PI) * Math.exp(-2 * (Math.PI * (own / grain)) ** 2) : 0;
  return {
    value: grain >= COARSE_STEP ? mean : middle,
    sigma: Math.hypot(scatter / Math.sqrt(used.length), hidden / Math.SQRT2),
  };
}
