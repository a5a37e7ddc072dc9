import { QuantityError } from "../../units/convert";
import { formatNumber } from "../../units/format";
import { assertUncertain, type Uncertain } from "../../units/uncertain";
import { FUEL_UNITS, type FuelUnit, litresOfFuel } from "../grade/fuel-amount";
import { DISAGREE_AT } from "./fuel-sources";

/** Uplift as on a receipt or note. */
export interface Uplift {
  amount: number;
  unit: FuelUnit;
}

export interface Reconciled {
  agrees: boolean;
  /** Uplift by measurement before and after, litres. */
  measuredL: number;
  /** Uplift on the receipt, litres. */
  receiptL: number;
  /** Difference in standard deviations. */
  residual: number;
  /** Corrected readings of the receipt that match the measurement, best first; empty if it matches as it is. */
  instead: { uplift: Uplift; why: string }[];
}

/** Relative error of a pump (common practice: half a per cent). */
const PUMP_ERROR = 0.005;

/**
 * Compares a receipt with measurements before and after, and searches for errors that explain a difference: another unit, a
 * misplaced decimal point, swapped digits.
 * Valid range: litres before and after with their uncertainties, amount > 0, density > 0; throws QuantityError otherwise.
 * Source: differences of uncertain quantities (JCGM 100:2008); typical errors are common practice.
 * @example 100 on the receipt as "US gal", 100 L measured: does not agree; instead 100 L.
 */
export function reconcileUplift(
  before: Uncertain,
  after: Uncertain,
  receipt: Uplift,
  kgPerL: number,
): Reconciled {
  assertUncertain("The fuel before the uplift", before);
  assertUncertain("The fuel after the uplift", after);
  if (!(receipt.amount > 0)) throw new QuantityError("Enter the amount on the receipt.");
  const measuredL = after.value - before.value;
  const sigma = Math.hypot(before.sigma, after.sigma);
  const fit = (uplift: Uplift) => {
    const litres = litresOfFuel(uplift.amount, uplift.unit, kgPerL);
    return { litres, residual: (measuredL - litres) / Math.hypot(sigma, PUMP_ERROR * litres, 0.5) };
  };
  const { litres: receiptL, residual } = fit(receipt);
  const agrees = Math.abs(residual) <= DISAGREE_AT;
  const instead = agrees
    ? []
    : typicalErrors(receipt)
        .map((slip) => ({ ...slip, off: Math.abs(fit(slip.uplift).residual) }))
        .filter(({ off }) => off <= DISAGREE_AT)
        .sort((a, b) => a.off - b.off)
        .map(({ uplift, why }) => ({ uplift, why }));
  return { agrees, measuredL, receiptL, residual, instead };
}

function typicalErrors({ amount, unit }: Uplift): { uplift: Uplift; why: string }[] {
  const units = FUEL_UNITS.filter((other) => other !== unit).map((other) => ({
    uplift: { amount, unit: other },
    why: `logged in the wrong unit: ${formatNumber(amount, decimalsOf(amount))} ${other} would fit, not ${unit}`,
  }));
  const points = [10, 0.1].map((factor) => ({
    uplift: { amount: amount * factor, unit },
    why: `decimal point in the wrong place: ${formatNumber(amount * factor, 1)} ${unit} would fit`,
  }));
  return [
    ...units,
    ...points,
    ...swapped(amount).map((other) => ({
      uplift: { amount: other, unit },
      why: `two digits swapped: ${formatNumber(other, decimalsOf(other))} ${unit} would fit`,
    })),
  ];
}

const decimalsOf = (amount: number) => Math.min(2, (String(amount).split(".")[1] ?? "").length);

/** Amounts with two neighbouring digits swapped. */
function swapped(amount: number): number[] {
  const text = String(amount);
  const found = new Set<number>();
  for (let i = 0; i + 1 < text.length; i++) {
    const [a, b] = [text[i] ?? "", text[i + 1] ?? ""];
    if (a === "." || b === "." || a === b) continue;
    found.add(Number(text.slice(0, i) + b + a + text.slice(i + 2)));
  }
  return [...found].filter((other) => other > 0 && other !== amount);
}
