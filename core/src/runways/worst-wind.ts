import { assertFinite, assertNotNegative, QuantityError } from "../units/convert";

/** Wind for a runway, with the same north reference as its heading. */
export interface WindRange {
  /** Absent: variable. */
  fromDeg?: number;
  kt: number;
  gustKt?: number;
  /** Variable between these directions, clockwise. */
  between?: [number, number];
}

export interface WorstWind {
  /** Least headwind at the mean wind; negative: largest tailwind, at the gust. */
  alongKt: number;
  /** Largest crosswind at the gust, from either side. */
  crossKt: number;
  /** Side of the crosswind; "either" if the wind varies across the runway. */
  side: "left" | "right" | "either";
  /** Largest tailwind at the gust, 0 if none is possible. */
  tailKt: number;
}

const wrap = (deg: number) => ((deg % 360) + 360) % 360;
const rad = Math.PI / 180;

/** True if a direction is within a clockwise range. */
const inside = ([from, to]: readonly [number, number], deg: number) => wrap(deg - from) <= wrap(to - from);

/**
 * Worst wind on a runway over all directions of a variable wind and its gust: largest crosswind and tailwind, least headwind.
 * Valid range: directions 0 to 360 degrees with one north reference, speeds ≥ 0, gust not below the mean; throws QuantityError
 * otherwise. A mean direction outside its range counts too.
 * Source: trigonometry, at the ends of the range and at maxima of sine and cosine inside it.
 */
export function worstWind(runwayDeg: number, { fromDeg, kt, gustKt, between }: WindRange): WorstWind {
  for (const [what, value] of [
    ["The runway direction", runwayDeg],
    ["The wind direction", fromDeg ?? 0],
    ["The wind direction", between?.[0] ?? 0],
    ["The wind direction", between?.[1] ?? 0],
  ] as const) {
    assertFinite(what, value);
    if (value < 0 || value > 360) throw new QuantityError(`${what} must be from 0 to 360 degrees.`);
  }
  assertNotNegative("The wind speed", kt);
  if (gustKt !== undefined && gustKt < kt)
    throw new QuantityError("The gust cannot be less than the mean wind. Check both.");
  const most = Math.max(kt, gustKt ?? 0);
  const range: readonly [number, number] =
    fromDeg === undefined ? [0, 359.999999] : (between ?? [fromDeg, fromDeg]);
  const directions = [
    ...(fromDeg === undefined ? [] : [fromDeg]),
    ...range,
    ...[0, 90, 180, 270].map((turn) => wrap(runwayDeg + turn)).filter((deg) => inside(range, deg)),
  ].map((deg) => (deg - runwayDeg) * rad);
  const across = directions.map((angle) => Math.sin(angle));
  const along = directions.map((angle) => Math.cos(angle));
  const [left, right] = [Math.min(...across), Math.max(...across)];
  const least = Math.min(...along);
  const HAIR = 0.02;
  return {
    alongKt: least >= 0 ? least * kt : least * most,
    crossKt: Math.max(Math.abs(left), Math.abs(right)) * most,
    side: left < -HAIR && right > HAIR ? "either" : right > -left ? "right" : "left",
    tailKt: Math.max(0, -least * most),
  };
}
