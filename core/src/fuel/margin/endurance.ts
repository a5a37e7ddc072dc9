import { assertNotNegative, QuantityError } from "../../units/convert";

export interface EnduranceInput {
  /** Usable fuel in all tanks, litres, ≥ 0. */
  usableL: number;
  /** Start, taxi and run-up allowance, litres, ≥ 0. */
  taxiL: number;
  /** Planned consumption in cruise, litres per hour, > 0. */
  burnLPerH: number;
}

/**
 * Usable litres in a tank: its content less the unusable fuel; never below zero.
 * Valid range: both ≥ 0; throws QuantityError otherwise. Source: definition (FAA-H-8083-25, fuel systems), from memory.
 */
export function usableFuelL(volumeL: number, unusableL: number): number {
  assertNotNegative("The volume", volumeL);
  assertNotNegative("The unusable fuel", unusableL);
  return Math.max(0, volumeL - unusableL);
}

/**
 * Minutes until the usable fuel is used up, after the taxi allowance, at the planned consumption. Never below zero.
 * Valid range: fuel and taxi ≥ 0 L, burn > 0 L/h; throws QuantityError otherwise. Source: arithmetic.
 */
export function enduranceMin({ usableL, taxiL, burnLPerH }: EnduranceInput): number {
  assertNotNegative("The usable fuel", usableL);
  assertNotNegative("The taxi fuel", taxiL);
  assertNotNegative("The planned burn", burnLPerH);
  if (burnLPerH === 0) throw new QuantityError("The planned burn must be more than zero.");
  return (Math.max(0, usableL - taxiL) / burnLPerH) * 60;
}
