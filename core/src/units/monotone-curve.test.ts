import fc from "fast-check";
import { onMonotoneCurve, readingForValue, slopeOfMonotoneCurve } from "./monotone-curve";

/** Any increasing scale of two to nine points. */
const rising = fc
  .array(
    fc.record({
      step: fc.double({ min: 0.1, max: 8, noNaN: true }),
      more: fc.double({ min: 0, max: 60, noNaN: true }),
    }),
    { minLength: 1, maxLength: 8 },
  )
  .map((steps) => {
    const points = [{ at: 0, value: 1 }];
    for (const { step, more } of steps) {
      const before = points.at(-1) ?? { at: 0, value: 1 };
      points.push({ at: before.at + step, value: before.value + more });
    }
    return points;
  });

// Published: Fritsch & Carlson, SIAM J. Numer. Anal. 17 (1980): through its points, monotone, within the data's range.
describe("a curve through calibration points", () => {
  test("goes through each of them, never falls, never leaves their range", () => {
    fc.assert(
      fc.property(
        rising,
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 2 }),
        (points, parts) => {
          const last = points.at(-1) ?? { at: 0, value: 0 };
          for (const { at, value } of points) expect(onMonotoneCurve(points, at)).toBeCloseTo(value, 9);
          const at = parts.map((part) => part * last.at).sort((a, b) => a - b);
          const values = at.map((x) => onMonotoneCurve(points, x));
          values.forEach((value, i) => {
            expect(value).toBeGreaterThanOrEqual(1);
            expect(value).toBeLessThanOrEqual(last.value);
            if (i > 0) expect(value).toBeGreaterThanOrEqual((values[i - 1] ?? 0) - 1e-9);
          });
        },
      ),
    );
  });

  test("is read backwards to the reading that it came from", () => {
    fc.assert(
      fc.property(rising, fc.double({ min: 0, max: 1, noNaN: true }), (points, part) => {
        const value = 1 + part * ((points.at(-1)?.value ?? 1) - 1);
        const at = readingForValue(points, value);
        expect(Math.abs(onMonotoneCurve(points, at) - value)).toBeLessThan(1e-5);
      }),
    );
  });

  test("rises as steeply as a difference quotient says", () => {
    const points = [
      { at: 0, value: 2 },
      { at: 3, value: 12 },
      { at: 6, value: 26 },
      { at: 10, value: 45 },
    ];
    for (const at of [0.5, 2.9, 4, 8.3])
      expect(slopeOfMonotoneCurve(points, at)).toBeCloseTo(
        (onMonotoneCurve(points, at + 1e-5) - onMonotoneCurve(points, at - 1e-5)) / 2e-5,
        4,
      );
  });

  test("says nothing beyond its ends", () => {
    const points = [
      { at: 0, value: 2 },
      { at: 3, value: 12 },
    ];
    expect(() => onMonotoneCurve(points, 3.1)).toThrow("outside");
    expect(() => onMonotoneCurve(points, -0.1)).toThrow("outside");
    expect(() => readingForValue(points, 1)).toThrow("outside");
    expect(() => onMonotoneCurve(points.slice(0, 1), 0)).toThrow("at least two points");
  });
});
