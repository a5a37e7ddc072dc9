import { assertFinite, QuantityError } from "./convert";

/** Pairs of reading and value: readings increasing, values never decreasing. */
export type CurvePoints = readonly { at: number; value: number }[];

/**
 * Value on a smooth monotone curve: exact at each point, never outside two neighbouring values.
 * Valid range: from the first to the last reading; throws QuantityError outside. At least two points.
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
  // Clamp rounding errors to the neighbours.
  return Math.min(Math.max(value, y0), y1);
}

/** Slope of the curve: value per unit of reading, ≥ 0. Valid range and errors as above. */
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
 * Reading at which the curve has this value, the lowest on a flat part. Valid range: values from the first to the last point;
 * throws QuantityError outside. Source: bisection to floating-point precision.
 */
export function readingForValue(points: CurvePoints, value: number): number {
  assertFinite("The value", value);
  const [first, last] = ends(points);
  if (value < first.value || value > last.value)
    throw new QuantityError(`${value} is outside the range ${first.value} to ${last.value}.`);
  let low = first.at;
  let high = last.at;
  // Enough iterations for steep parts.
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
    // alpha² + beta² ≤ 9, without dividing by a slope that may be near zero.
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
