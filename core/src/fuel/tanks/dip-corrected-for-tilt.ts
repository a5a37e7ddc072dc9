import { assertFinite, assertNotNegative, QuantityError } from "../../units/convert";

/** A tank as a box with its filler hole; known for few tanks, and required to correct for slope. */
export interface TankGeometry {
  /** Length along the wing, centimetres. */
  spanCm: number;
  /** Length along the fuselage, centimetres. */
  chordCm: number;
  /** Height inside, centimetres. */
  depthCm: number;
  /** Position of the hole relative to the tank's centre, to the right and forward, centimetres. */
  holeRightCm: number;
  holeForwardCm: number;
}

/** Attitude on the ground: right wing down and nose up are positive, degrees. */
export interface Tilt {
  rightDownDeg: number;
  noseUpDeg: number;
}

/** Maximum correctable slope; beyond it, move to level ground (own limit). */
export const MAX_TILT_DEG = 6;

/**
 * Dipstick reading the aircraft would give when level, in centimetres: the fuel surface stays level while the tank tilts, so at
 * the hole it is higher on the low side. The mean depth is unchanged as long as the surface cuts neither floor nor roof;
 * otherwise QuantityError is thrown.
 * Valid range: slope up to 6° each way, dip ≥ 0; throws QuantityError outside. Source: plane geometry.
 */
export function dipCorrectedForTilt(
  dipCm: number,
  { rightDownDeg, noseUpDeg }: Tilt,
  tank: TankGeometry,
): number {
  assertNotNegative("The dip", dipCm);
  for (const [what, degrees] of [
    ["The wing slope", rightDownDeg],
    ["The nose slope", noseUpDeg],
  ] as const) {
    assertFinite(what, degrees);
    if (Math.abs(degrees) > MAX_TILT_DEG)
      throw new QuantityError(`${what} (${degrees}°) is too large to correct. Dip on level ground.`);
  }
  const side = Math.tan((rightDownDeg * Math.PI) / 180);
  const along = Math.tan((-noseUpDeg * Math.PI) / 180);
  const mean = dipCm - tank.holeRightCm * side - tank.holeForwardCm * along;
  const reach = (tank.spanCm / 2) * Math.abs(side) + (tank.chordCm / 2) * Math.abs(along);
  if (mean - reach < 0 || mean + reach > tank.depthCm)
    throw new QuantityError(
      mean - reach < 0
        ? "On this slope so little fuel cannot be dipped. Dip on level ground."
        : "On this slope the fuel touches the top of the tank. Dip on level ground.",
    );
  return mean;
}
