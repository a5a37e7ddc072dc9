import { assertFinite, QuantityError } from "./convert";

/** Pairs of reading and value, readings rising, values never falling. */
export type CurvePoints = readonly { at: number; value: number }[];

/**
 * Value on a smooth curve through the points: exact at each, between two neighbours never outside of them, so never falling.
 * Valid range: from the first reading to the last, which the caller makes sure of: throws QuantityError outside. At least two points.
 * Source: Fritsch & Carlson, SIAM J. Numer. Anal. 17 (1980), with the sufficient condition alpha² + beta² ≤ 9.
 */
export function onMonotoneCurve(points: CurvePoints, at: number): number {
  const { k, t, h, tangent } = place(points, at);
  const y0 = points[k]?.value as number;
  const y1 = points[k + 1]?.value as number;
  const value =
    (1 + 2 * t) * (1 - t) ** 2 * y0 +
    t * (1 - t) ** 2 * h * (tangent[k] as number) +
    t * t * (3 - 2 * t) * y1 +
    t * t * (t - 1) * h * (tangent[k + 1] as number);
  // A hair of rounding must not carry it past its neighbours.
  return Math.min(Math.max(value, y0), y1);
}

/** How steep that curve is there: value for each unit of the reading, ≥ 0. Valid range and errors as above. */
export function slopeOfMonotoneCurve(points: CurvePoints, at: number): number {
  const { k, t, h, tangent } = place(points, at);
  const rise = ((points[k + 1]?.value as number) - (points[k]?.value as number)) / h;
  const slope =
    6 * t * (1 - t) * rise +
    (1 - t) * (1 - 3 * t) * (tangent[k] as number) +
    t * (3 * t - 2) * (tangent[k + 1] as number);
  return Math.max(0, slope);
}

/**
 * The reading at which the curve has this value, the lowest where it stands still. Valid range: values from the first point's to the last's;
 * throws QuantityError outside. Source: bisection, as near as a number can come.
 */
export function readingForValue(points: CurvePoints, value: number): number {
  assertFinite("The value", value);
  const [first, last] = ends(points);
  if (value < first.value || value > last.value)
    throw new QuantityError(`${value} is outside the range ${first.value} to ${last.value}.`);
  let low = first.at;
  let high = last.at;
  // However steep it is there: a narrow neck turns a hair of reading into much value.
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (onMonotoneCurve(points, middle) < value) low = middle;
    else high = middle;
  }
  return high;
}

function ends(points: CurvePoints) {
  const first = points[0];
  const last = points[points.length - 1];
  if (!first || !last || points.length < 2) throw new QuantityError("A curve needs at least two points.");
  return [first, last] as const;
}

function place(points: CurvePoints, at: number) {
  assertFinite("The reading", at);
  const [first, last] = ends(points);
  if (at < first.at || at > last.at)
    throw new QuantityError(`${at} is outside the range ${first.at} to ${last.at}.`);
  const x = points.map((p) => p.at);
  const y = points.map((p) => p.value);
  const n = points.length;
  const of = (list: number[], i: number) => list[i] as number;
  const slope = x.slice(1).map((right, i) => (of(y, i + 1) - of(y, i)) / (right - of(x, i)));
  const tangent = x.map((_, i) => {
    if (i === 0) return of(slope, 0);
    if (i === n - 1) return of(slope, n - 2);
    return of(slope, i - 1) * of(slope, i) <= 0 ? 0 : (of(slope, i - 1) + of(slope, i)) / 2;
  });
  slope.forEach((s, i) => {
    if (s === 0) {
      tangent[i] = 0;
      tangent[i + 1] = 0;
      return;
    }
    // alpha² + beta² ≤ 9, written without dividing by a slope that may be next to nothing.
    const length = Math.hypot(of(tangent, i), of(tangent, i + 1));
    if (length > 3 * s) {
      tangent[i] = (3 * s * of(tangent, i)) / length;
      tangent[i + 1] = (3 * s * of(tangent, i + 1)) / length;
    }
  });
  const k = Math.max(0, x.findIndex((right, i) => i > 0 && at <= right) - 1);
  const h = of(x, k + 1) - of(x, k);
  return { k, h, t: (at - of(x, k)) / h, tangent };
}
