import { assertNotNegative, convert, QuantityError, type Unit } from "../../units/convert";

/** Units in which fuel is sold, carried and logged. */
export const FUEL_UNITS = ["L", "US gal", "imp gal", "kg", "lb"] as const satisfies readonly Unit[];
export type FuelUnit = (typeof FUEL_UNITS)[number];

const IS_MASS: ReadonlySet<string> = new Set(["kg", "lb"]);

/**
 * Reads a unit as written by people or on receipts: "ltr", "USG", "gallons (US)". Undefined if ambiguous. Never throws. Source:
 * spellings on receipts (common practice); a bare "gal" is never assumed to be either gallon.
 */
export function readFuelUnit(text: string): FuelUnit | undefined {
  return SPELLINGS.get(text.trim().toLowerCase().replace(/[.()]/g, "").replace(/\s+/g, " "));
}

const SPELLINGS = new Map<string, FuelUnit>([
  ...["l", "lt", "ltr", "litre", "litres", "liter", "liters"].map((s) => [s, "L"] as const),
  ...["us gal", "usg", "us gallon", "us gallons", "gal us", "gallons us"].map((s) => [s, "US gal"] as const),
  ...["imp gal", "ig", "imp gallon", "imp gallons", "imperial gallons", "gal imp"].map(
    (s) => [s, "imp gal"] as const,
  ),
  ...["kg", "kgs", "kilogram", "kilograms"].map((s) => [s, "kg"] as const),
  ...["lb", "lbs", "pound", "pounds"].map((s) => [s, "lb"] as const),
]);

/**
 * Litres of an amount of fuel in any unit; masses by the density in kg per litre.
 * Valid range: amount ≥ 0, density > 0; throws QuantityError otherwise. Source: NIST SP 811; definition of density.
 * @example litresOfFuel(10, "US gal", 0.719) // 37.85411784
 */
export function litresOfFuel(amount: number, unit: FuelUnit, kgPerL: number): number {
  assertNotNegative("The amount", amount);
  assertDensity(kgPerL);
  return IS_MASS.has(unit) ? convert(amount, unit, "kg") / kgPerL : convert(amount, unit, "L");
}

/** Converts litres to another unit. Valid range and errors as above. */
export function fuelFromLitres(litres: number, unit: FuelUnit, kgPerL: number): number {
  assertNotNegative("The amount", litres);
  assertDensity(kgPerL);
  return IS_MASS.has(unit) ? convert(litres * kgPerL, "kg", unit) : convert(litres, "L", unit);
}

function assertDensity(kgPerL: number): void {
  assertNotNegative("The density", kgPerL);
  if (kgPerL === 0) throw new QuantityError("The density must be more than zero.");
}
