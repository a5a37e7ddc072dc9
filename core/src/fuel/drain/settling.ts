import { assertNotNegative } from "../../units/convert";

const CM_PER_FT = 30.48;

/**
 * Minutes that water stirred up by refuelling needs to sink to the drains: a quarter of an hour for each foot of gasoline, an hour for each foot
 * of kerosene. Valid range: depth ≥ 0 cm; throws QuantityError otherwise. Source: common practice.
 * @example settlingMin(30.48, false) // 15
 */
export function settlingMin(depthCm: number, kerosene: boolean): number {
  assertNotNegative("The depth of the fuel", depthCm);
  return (depthCm / CM_PER_FT) * (kerosene ? 60 : 15);
}
