import { assertNotNegative } from "../units/convert";

/** Something beside the runway that can be seen, so far from where the take-off begins, m. */
export interface RunwayMark {
  name: string;
  atM: number;
}

export interface AbortPoint {
  /** Half of the run that is available. */
  atM: number;
  /** By then so much has to be on the airspeed indicator, kt. */
  speedKt: number;
  /** What stands there or just before, with how far before it is. */
  mark?: RunwayMark;
  /** Where seven tenths of the speed are reached on paper: behind the point, nothing has to be tried. */
  expectedAtM: number;
}

/** Seven tenths of the speed by half of the run. */
const PART_OF_SPEED = 0.7;
const PART_OF_RUN = 0.5;

/**
 * Where a take-off is given up: seven tenths of the lift-off speed by half of the run that is available. Valid range: numbers ≥ 0; throws QuantityError otherwise.
 * Source: common practice; with even acceleration, seven tenths of the speed need half of the roll (0.7² = 0.49).
 * The mark is the last one before the point: what comes behind it comes too late.
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
  // A mark where the speed cannot be there yet would stop every take-off.
  const mark = [...marks]
    .filter((one) => one.atM <= atM && one.atM >= expectedAtM)
    .sort((a, b) => b.atM - a.atM)[0];
  return { atM, speedKt: liftOffKt * PART_OF_SPEED, ...(mark && { mark }), expectedAtM };
}
