import { assertFinite, assertNotNegative, QuantityError } from "../units/convert";

export interface Wind {
  /** Direction the wind comes from, degrees 0 to 360, with the same north reference as the runway. */
  fromDeg: number;
  kt: number;
  gustKt?: number;
}

export interface WindComponents {
  /** Positive for a headwind, negative for a tailwind, knots. */
  headwindKt: number;
  /** Positive from the right, negative from the left, knots. */
  crosswindKt: number;
}

/**
 * Headwind and crosswind on a runway, knots. For gusts, call again with the gust speed.
 * Valid range: directions 0 to 360 degrees, speed ≥ 0; throws QuantityError otherwise.
 * Source: trigonometry; FAA-H-8083-25, component chart: runway 17, wind 140° at 25 kt → 22 kt head, 13 kt cross (from memory).
 */
export function windComponents(
  runwayDeg: number,
  { fromDeg, kt }: Pick<Wind, "fromDeg" | "kt">,
): WindComponents {
  for (const [what, value] of [
    ["The runway direction", runwayDeg],
    ["The wind direction", fromDeg],
  ] as const) {
    assertFinite(what, value);
    if (value < 0 || value > 360) throw new QuantityError(`${what} must be from 0 to 360 degrees.`);
  }
  assertNotNegative("The wind speed", kt);
  const angle = ((fromDeg - runwayDeg) * Math.PI) / 180;
  return { headwindKt: kt * Math.cos(angle), crosswindKt: kt * Math.sin(angle) };
}
