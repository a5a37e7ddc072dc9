import { assertFinite, assertNotNegative } from "./convert";

/** A value and the standard deviation of its error, in the same unit. */
export interface Uncertain {
  value: number;
  sigma: number;
}

/** Standard deviations for a two-sided 95 % interval (standard normal table). */
export const Z_95_TWO_SIDED = 1.959964;
/** Standard deviations for a one-sided 95 % limit (standard normal table). */
export const Z_95_ONE_SIDED = 1.644854;

/** Rejects an invalid value or a negative sigma. `what` names it in the message. Throws QuantityError. */
export function assertUncertain(what: string, { value, sigma }: Uncertain): void {
  assertFinite(what, value);
  assertNotNegative(`The uncertainty of ${what.charAt(0).toLowerCase()}${what.slice(1)}`, sigma);
}

/**
 * Sum of quantities with independent errors: values add, variances add.
 * Valid range: any number of quantities; none gives zero. Source: JCGM 100:2008 (GUM), 5.1.2.
 */
export function sumOfUncertain(parts: readonly Uncertain[]): Uncertain {
  return {
    value: parts.reduce((sum, part) => sum + part.value, 0),
    sigma: Math.hypot(...parts.map((part) => part.sigma)),
  };
}
