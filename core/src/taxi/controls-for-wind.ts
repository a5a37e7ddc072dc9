import { assertFinite, QuantityError } from "../units/convert";

/** Quarter the wind comes from, seen from the seat. */
export const WIND_QUARTERS = ["left front", "right front", "left rear", "right rear"] as const;
export type WindQuarter = (typeof WIND_QUARTERS)[number];

/** Control positions while taxiing, and the resulting surface positions. */
export interface TaxiControls {
  quarter: WindQuarter;
  /** Wheel or stick, left and right. */
  aileron: "left" | "right";
  elevator: "up" | "neutral" | "down";
  /** Aileron on the windward side. */
  windward: "up" | "down";
  words: string;
}

/**
 * Control positions while taxiing, by wind quarter. Headwind: into the wind, windward aileron up, elevator neutral; with a tail
 * wheel elevator up. Tailwind: away from the wind, windward aileron down, elevator down. Straight ahead or behind counts as left;
 * aileron neutral would be as good. Valid range: degrees 0 to 360, both with one north reference; throws QuantityError otherwise.
 * Source: FAA-H-8083-3, Airplane Flying Handbook, ground operations (from memory).
 */
export function controlsForWind(headingDeg: number, fromDeg: number, tailwheel = false): TaxiControls {
  for (const [what, value] of [
    ["The heading", headingDeg],
    ["The wind direction", fromDeg],
  ] as const) {
    assertFinite(what, value);
    if (value < 0 || value > 360) throw new QuantityError(`${what} must be from 0 to 360 degrees.`);
  }
  const angle = (((fromDeg - headingDeg) % 360) + 360) % 360;
  const side = angle > 0 && angle < 180 ? "right" : "left";
  const front = angle <= 90 || angle >= 270;
  const quarter = `${side} ${front ? "front" : "rear"}` as WindQuarter;
  if (front) {
    const elevator = tailwheel ? "up" : "neutral";
    return {
      quarter,
      aileron: side,
      elevator,
      windward: "up",
      words: `Quartering headwind from the ${side}: turn into it, ${side} aileron up, elevator ${tailwheel ? "up (stick back) to hold the tail down" : "neutral"}.`,
    };
  }
  const away = side === "left" ? "right" : "left";
  return {
    quarter,
    aileron: away,
    elevator: "down",
    windward: "down",
    words: `Quartering tailwind from the ${side}: dive away from it, ${side} aileron down, elevator down (stick forward).`,
  };
}
