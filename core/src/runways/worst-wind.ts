import { assertFinite, assertNotNegative, QuantityError } from "../units/convert";

/** A wind as far as a runway is concerned, in the same north as its heading. */
export interface WindRange {
  /** Absent: it blows from anywhere. */
  fromDeg?: number;
  kt: number;
  gustKt?: number;
  /** Between these two, clockwise. */
  between?: [number, number];
}

export interface WorstWind {
  /** The least headwind at the mean wind; below zero: the most tailwind, at the gust. */
  alongKt: number;
  /** The most across at the gust, from either side. */
  crossKt: number;
  /** From which side that is; either where the wind swings across the runway. */
  side: "left" | "right" | "either";
  /** The most tailwind at the gust, 0 where none can come. */
  tailKt: number;
}

const wrap = (deg: number) => ((deg % 360) + 360) % 360;
const rad = Math.PI / 180;

/** Whether a direction lies in a range that goes clockwise. */
const inside = ([from, to]: readonly [number, number], deg: number) => wrap(deg - from) <= wrap(to - from);

/**
 * The worst that a wind does on a runway, over all directions between which it swings and at its gust: most across, most from behind, least against. Valid range: directions 0 to
 * 360 degrees in one north, speeds ≥ 0, gust not below the mean; throws QuantityError otherwise. A mean direction outside of its own range counts too.
 * Source: trigonometry, at the ends of the range and where sine and cosine are greatest inside of it.
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
