import { assertNotNegative } from "../../units/convert";

const CM_PER_FT = 30.48;

/**
 * Minutes for water stirred up by refuelling to sink to the drains: 15 per foot of gasoline, 60 per foot of kerosene. Valid
 * range: depth ≥ 0 cm; throws QuantityError otherwise. Source: common practice.
 * @example settlingMin(30.48, false) // 15
 */
export function settlingMin(depthCm: number, kerosene: boolean): number {
  assertNotNegative("The depth of the fuel", depthCm);
  return (depthCm / CM_PER_FT) * (kerosene ? 60 : 15);
}
