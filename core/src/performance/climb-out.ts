import { assertNotNegative } from "../units/convert";

const FT_PER_NM = 6076.12;
const FT_PER_M = 1 / 0.3048;

/**
 * Climb gradient over the ground, percent, from a rate in feet per minute, true airspeed (kt) and headwind. Valid range: speed
 * above the tailwind, else QuantityError.
 * Source: trigonometry. @example climbGradient(500, 75, 0) // 6.6 %
 */
export function climbGradient(fpm: number, trueKt: number, alongKt: number): number {
  const groundKt = trueKt - alongKt;
  assertNotNegative("The speed over the ground", groundKt - 1);
  return ((fpm * 60) / (groundKt * FT_PER_NM)) * 100;
}

/**
 * True airspeed for an indicated one at a density altitude (ft): from the density ratio of the standard atmosphere. Source: ICAO
 * Doc 7488. Valid range: −5,000 to 20,000 ft.
 */
export function trueSpeedKt(indicatedKt: number, densityAltitudeFt: number): number {
  const ratio = (1 - 6.8756e-6 * densityAltitudeFt) ** 4.2559;
  return indicatedKt / Math.sqrt(ratio);
}

/** An obstacle beyond the end of a runway. */
export interface Obstacle {
  what: string;
  heightFt: number;
  /** From the end of the take-off distance available, m. */
  distanceM: number;
}

/**
 * Height above an obstacle, ft, negative if below it: 50 ft at the end of the take-off distance needed, then the climb gradient.
 * Valid range: distances in m ≥ 0.
 * Source: common practice.
 */
export function aboveObstacleFt(
  {
    todaM,
    rollM,
    over50M,
    gradientPercent,
  }: { todaM: number; rollM: number; over50M: number; gradientPercent: number },
  { heightFt, distanceM }: Obstacle,
): number {
  const leftM = todaM + distanceM - over50M;
  if (leftM < 0) return 50 * Math.max(0, 1 + leftM / (over50M - rollM || 1)) - heightFt;
  return 50 + ((leftM * gradientPercent) / 100) * FT_PER_M - heightFt;
}
