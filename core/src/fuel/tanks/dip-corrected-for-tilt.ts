import { assertFinite, assertNotNegative, QuantityError } from "../../units/convert";

/** A tank as a box, and where its filler hole is: known for few tanks, and only there a tilt can be taken out. */
export interface TankGeometry {
  /** Length along the wing, centimetres. */
  spanCm: number;
  /** Length along the fuselage, centimetres. */
  chordCm: number;
  /** Height inside, centimetres. */
  depthCm: number;
  /** How far the hole is from the middle of the tank, to the right and to the front, centimetres. */
  holeRightCm: number;
  holeForwardCm: number;
}

/** How the aircraft stands: right wing down and nose up are positive, degrees. */
export interface Tilt {
  rightDownDeg: number;
  noseUpDeg: number;
}

/** Beyond this nothing is corrected: put it on level ground (our own bound). */
export const MOST_TILT_DEG = 6;

/**
 * What the dipstick would read with the aircraft level, in centimetres: fuel keeps its surface level while the tank tilts under it, so at the
 * hole it stands higher on the side that is down. The mean depth over the tank does not change as long as the surface cuts neither
 * floor nor roof; where it would, the dip says too little about the volume and QuantityError is thrown.
 * Valid range: tilt up to 6° each way, dip ≥ 0; throws QuantityError outside. Source: plane geometry.
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
    if (Math.abs(degrees) > MOST_TILT_DEG)
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
