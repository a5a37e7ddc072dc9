import { QuantityError } from "../units/convert";

/** The middle value, or the mean of the two in the middle. Valid range: at least one number; throws QuantityError for none. */
export function median(values: readonly number[]): number {
  if (values.length === 0) throw new QuantityError("There is no median of nothing.");
  const sorted = Float64Array.from(values).sort();
  const middle = sorted.length >> 1;
  const upper = sorted[middle] as number;
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] as number) + upper) / 2;
}
