import type { Source } from "../../judgement/judgement";
import { assertFinite, assertNotNegative, QuantityError } from "../../units/convert";
import {
  type CurvePoints,
  onMonotoneCurve,
  readingForValue,
  slopeOfMonotoneCurve,
} from "../../units/monotone-curve";

/** Dipstick calibration of one tank, measured on level ground: increasing pairs of dip and volume. */
export interface DipCalibration {
  points: { dipCm: number; litres: number }[];
  source: Source;
}

/**
 * Rejects an impossible calibration: fewer than two points, dips that do not increase, volumes that decrease, negative values.
 * Centimetres, litres. Throws QuantityError.
 */
export function assertCalibration({ points }: DipCalibration): void {
  if (points.length < 2) throw new QuantityError("A tank calibration needs at least two points.");
  points.forEach((point, i) => {
    assertNotNegative("A dip in the calibration", point.dipCm);
    assertNotNegative("A volume in the calibration", point.litres);
    const before = points[i - 1];
    if (before && point.dipCm <= before.dipCm)
      throw new QuantityError(
        `Calibration dips must increase: ${point.dipCm} cm follows ${before.dipCm} cm.`,
      );
    if (before && point.litres < before.litres)
      throw new QuantityError(
        `Calibration volumes cannot decrease: ${point.litres} L follows ${before.litres} L.`,
      );
  });
}

const curve = ({ points }: DipCalibration): CurvePoints =>
  points.map(({ dipCm, litres }) => ({ at: dipCm, value: litres }));

/**
 * Litres in a tank from a dipstick reading in centimetres, by monotone cubic interpolation between the calibration's points:
 * smooth, exact at every point, never outside its neighbours' volumes.
 * Valid range: from the first to the last dip of the calibration; throws QuantityError beyond, for a negative dip, and for a bad
 * calibration.
 * Source: Fritsch & Carlson, SIAM J. Numer. Anal. 17 (1980).
 */
export function volumeFromDip(calibration: DipCalibration, dipCm: number): number {
  assertOnDipstick(calibration, dipCm);
  return onMonotoneCurve(curve(calibration), dipCm);
}

/** Litres per centimetre of dipstick at this dip. Valid range and errors as for the volume. */
export function litresPerCm(calibration: DipCalibration, dipCm: number): number {
  assertOnDipstick(calibration, dipCm);
  return slopeOfMonotoneCurve(curve(calibration), dipCm);
}

/** Dip in centimetres for a volume. Valid range: the calibration's volumes; throws QuantityError outside. */
export function dipForVolume(calibration: DipCalibration, litres: number): number {
  assertCalibration(calibration);
  return readingForValue(curve(calibration), litres);
}

function assertOnDipstick(calibration: DipCalibration, dipCm: number): void {
  assertCalibration(calibration);
  assertFinite("The dip", dipCm);
  const first = calibration.points[0]?.dipCm ?? 0;
  const last = calibration.points.at(-1)?.dipCm ?? 0;
  if (dipCm < 0) throw new QuantityError("A dip cannot be negative.");
  if (dipCm > last) throw new QuantityError(`The dipstick ends at ${last} cm. Wipe it and dip again.`);
  if (dipCm < first)
    throw new QuantityError(
      `The dipstick starts at ${first} cm and cannot show less. Treat the tank as empty.`,
    );
}
