import { formatNumber, type Quantity } from "../../units/format";
import { FUEL_UNITS, type FuelUnit, fuelFromLitres } from "./fuel-amount";

/** Formats amounts of fuel in the pilot's unit. */
export interface FuelUnits {
  unit: FuelUnit;
  /** "72 L", "19.0 US gal". */
  say(litres: number): string;
  /** Rounded up, for required amounts. */
  atLeast(litres: number): string;
  /** Number without unit. */
  number(litres: number): string;
  /** For a reading or a margin of a judgement. */
  quantity(litres: number): Quantity;
}

/** Gallons to a tenth, other units whole. */
const DECIMALS: Record<FuelUnit, number> = { L: 0, "US gal": 1, "imp gal": 1, kg: 0, lb: 0 };

/**
 * Formatter for amounts of fuel in a unit; masses by the density in kg per litre. A margin may be negative.
 * Valid range: any finite number of litres, density > 0 (QuantityError otherwise). Source: `fuelFromLitres`.
 * @example fuelWords("US gal", 0.719).say(37.85411784) // "10.0 US gal"
 */
export function fuelUnits(unit: FuelUnit, kgPerL: number): FuelUnits {
  const inUnit = (litres: number) => Math.sign(litres) * fuelFromLitres(Math.abs(litres), unit, kgPerL);
  const number = (litres: number) => formatNumber(inUnit(litres), DECIMALS[unit]);
  return {
    unit,
    number,
    say: (litres) => `${number(litres)} ${unit}`,
    atLeast: (litres) => {
      const step = 10 ** DECIMALS[unit];
      return `${formatNumber(Math.ceil(inUnit(litres) * step - 1e-9) / step, DECIMALS[unit])} ${unit}`;
    },
    quantity: (litres) => ({ value: inUnit(litres), unit }),
  };
}

/** True for a fuel unit. */
export function isFuelUnit(unit: string): unit is FuelUnit {
  return (FUEL_UNITS as readonly string[]).includes(unit);
}
