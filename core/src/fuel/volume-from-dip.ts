import { assertFinite, assertNotNegative, QuantityError } from "../units/convert";
import type { Source } from "../verdict/judgement";

/** What a dipstick reading means in one tank, as measured on level ground: pairs of dip and volume, rising. */
export interface DipCalibration {
  points: { dipCm: number; litres: number }[];
  source: Source;
}

/** Refuses a calibration that no stick can have: fewer than two points, dips that do not rise, volume that falls. */
export function assertCalibration({ points }: DipCalibration): void {
  if (points.length < 2) throw new QuantityError("A tank calibration needs at least two points.");
  points.forEach((point, i) => {
    assertNotNegative("A dip in the calibration", point.dipCm);
    assertNotNegative("A volume in the calibration", point.litres);
    const before = points[i - 1];
    if (before && point.dipCm <= before.dipCm)
      throw new QuantityError(
        `The dips of a calibration must rise: ${point.dipCm} cm follows ${before.dipCm} cm.`,
      );
    if (before && point.litres < before.litres)
      throw new QuantityError(
        `The volumes of a calibration cannot fall: ${point.litres} L follows ${before.litres} L.`,
      );
  });
}

/**
 * Litres in a tank from a dipstick reading in centimetres, by monotone cubic interpolation between the calibration's
 * points: smooth, exact at every point, never outside its neighbours' volumes.
 * Valid range: from the first to the last dip of the calibration; throws QuantityError beyond (a dip above the stick is a
 * slip), for a negative dip, and for a bad calibration.
 * Source: Fritsch & Carlson, SIAM J. Numer. Anal. 17 (1980), with the sufficient condition alpha² + beta² ≤ 9.
 */
export function volumeFromDip(calibration: DipCalibration, dipCm: number): number {
  assertCalibration(calibration);
  assertFinite("The dip", dipCm);
  const { points } = calibration;
  const first = points[0] as DipCalibration["points"][number];
  const last = points[points.length - 1] as DipCalibration["points"][number];
  if (dipCm < 0) throw new QuantityError("A dip cannot be negative.");
  if (dipCm > last.dipCm)
    throw new QuantityError(`The stick ends at ${last.dipCm} cm. Wipe it and dip again.`);
  if (dipCm < first.dipCm)
    throw new QuantityError(
      `The stick begins at ${first.dipCm} cm: less than that cannot be read. Treat the tank as empty.`,
    );

  const x = points.map((p) => p.dipCm);
  const y = points.map((p) => p.litres);
  const at = (list: number[], i: number) => list[i] as number;
  const n = points.length;
  const slope = x.slice(1).map((right, i) => (at(y, i + 1) - at(y, i)) / (right - at(x, i)));
  const tangent = x.map((_, i) => {
    if (i === 0) return at(slope, 0);
    if (i === n - 1) return at(slope, n - 2);
    return at(slope, i - 1) * at(slope, i) <= 0 ? 0 : (at(slope, i - 1) + at(slope, i)) / 2;
  });
  slope.forEach((s, i) => {
    if (s === 0) {
      tangent[i] = 0;
      tangent[i + 1] = 0;
      return;
    }
    // alpha² + beta² ≤ 9, written without dividing by a slope that may be next to nothing.
    const length = Math.hypot(at(tangent, i), at(tangent, i + 1));
    if (length > 3 * s) {
      tangent[i] = (3 * s * at(tangent, i)) / length;
      tangent[i + 1] = (3 * s * at(tangent, i + 1)) / length;
    }
  });

  let i = x.findIndex((right, k) => k > 0 && dipCm <= right) - 1;
  if (i < 0) i = 0;
  const h = at(x, i + 1) - at(x, i);
  const t = (dipCm - at(x, i)) / h;
  return (
    (1 + 2 * t) * (1 - t) ** 2 * at(y, i) +
    t * (1 - t) ** 2 * h * at(tangent, i) +
    t * t * (3 - 2 * t) * at(y, i + 1) +
    t * t * (t - 1) * h * at(tangent, i + 1)
  );
}
