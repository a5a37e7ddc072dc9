import { assertFinite, assertNotNegative } from "./convert";

/** A number and the standard deviation of its error, both in the same unit. */
export interface Uncertain {
  value: number;
  sigma: number;
}

/** Two-sided 95 %: so many standard deviations to either side (standard normal table). */
export const Z_95_TWO_SIDED = 1.959964;
/** One-sided 95 %: nineteen of twenty cases are better than this (standard normal table). */
export const Z_95_ONE_SIDED = 1.644854;

/**
 * Refuses what is not a number with an error that is not negative. `what` names it in the message. Throws QuantityError: the value must be a
 * number, its sigma one that is not negative.
 */
export function assertUncertain(what: string, { value, sigma }: Uncertain): void {
  assertFinite(what, value);
  assertNotNegative(`The uncertainty of ${what.charAt(0).toLowerCase()}${what.slice(1)}`, sigma);
}

/**
 * The sum of quantities whose errors have nothing to do with each other: values add, variances add.
 * Valid range: any number of quantities; none gives zero. Source: JCGM 100:2008 (GUM), 5.1.2.
 */
export function sumOfUncertain(parts: readonly Uncertain[]): Uncertain {
  return {
    value: parts.reduce((sum, part) => sum + part.value, 0),
    sigma: Math.hypot(...parts.map((part) => part.sigma)),
  };
}
