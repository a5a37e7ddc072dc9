import { QuantityError } from "../units/convert";

/** Median. Valid range: at least one number; throws QuantityError for none. */
export function median(values: readonly number[]): number {
  if (values.length === 0) throw new QuantityError("There is no median of nothing.");
  const sorted = Float64Array.from(values).sort();
  const middle = sorted.length >> 1;
  const upper = sorted[middle] as number;
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] as number) + upper) / 2;
}

/**
 * Mean of the middle half: as robust as a median, but resolves levels between two steps of a coarse instrument. Valid range: at
 * least one number; throws QuantityError for none. Source: the interquartile mean (Tukey's midmean).
 */
export function midmean(values: readonly number[]): number {
  if (values.length === 0) throw new QuantityError("There is no middle of nothing.");
  const sorted = Float64Array.from(values).sort();
  const cut = values.length / 4;
  let sum = 0;
  let weight = 0;
  sorted.forEach((value, i) => {
    // A value on the boundary counts in part.
    const inside = Math.min(i + 1, values.length - cut) - Math.max(i, cut);
    if (inside <= 0) return;
    sum += value * inside;
    weight += inside;
  });
  return sum / weight;
}
