import { assertNotNegative } from "../units/convert";

/** A visible landmark beside the runway, with its distance from the start of the take-off, m. */
export interface RunwayMark {
  name: string;
  atM: number;
}

export interface AbortPoint {
  /** Half of the available run. */
  atM: number;
  /** Airspeed that must be reached by then, kt. */
  speedKt: number;
  /** Last landmark at or before that point, with its distance. */
  mark?: RunwayMark;
  /** Calculated distance for seven tenths of the speed: beyond the point, the take-off is hopeless. */
  expectedAtM: number;
}

/** Seven tenths of the speed by half of the run. */
const PART_OF_SPEED = 0.7;
const PART_OF_RUN = 0.5;

/**
 * Abort point of a take-off: seven tenths of the lift-off speed by half of the available run. Valid range: numbers ≥ 0; throws
 * QuantityError otherwise.
 * Source: common practice; with constant acceleration, seven tenths of the speed need half of the roll (0.7² = 0.49). The
 * landmark is the last one before the point.
 */
export function abortPoint(
  { toraM, rollM, liftOffKt }: { toraM: number; rollM: number; liftOffKt: number },
  marks: readonly RunwayMark[] = [],
): AbortPoint {
  assertNotNegative("The run available", toraM);
  assertNotNegative("The ground roll", rollM);
  assertNotNegative("The lift-off speed", liftOffKt);
  const atM = toraM * PART_OF_RUN;
  const expectedAtM = rollM * PART_OF_SPEED ** 2;
  // A landmark before the speed can be reached would abort every take-off.
  const mark = [...marks]
    .filter((one) => one.atM <= atM && one.atM >= expectedAtM)
    .sort((a, b) => b.atM - a.atM)[0];
  return { atM, speedKt: liftOffKt * PART_OF_SPEED, ...(mark && { mark }), expectedAtM };
}
