import fc from "fast-check";
import { TheilSenRegression } from "ml-regression-theil-sen";
import { median as libraryMedian } from "simple-statistics";
import { normalNumbers, seededRandom } from "../units/seeded-random";
import { median, midmean } from "./median";
import { slopeChange } from "./slope-change";
import { theilSen } from "./theil-sen";
import { thinForPlot } from "./thin-for-plot";

const point = fc.record({
  x: fc.integer({ min: 0, max: 400 }).map((tenths) => tenths / 10),
  y: fc.integer({ min: -200, max: 200 }).map((tenths) => tenths / 10),
});

/** Sen's definition: every pair listed. */
function allSlopes(xs: readonly number[], ys: readonly number[]): number[] {
  const slopes: number[] = [];
  for (let i = 0; i < xs.length; i++)
    for (let k = i + 1; k < xs.length; k++)
      if (xs[i] !== xs[k]) slopes.push(((ys[k] ?? 0) - (ys[i] ?? 0)) / ((xs[k] ?? 0) - (xs[i] ?? 0)));
  return slopes.sort((a, b) => a - b);
}

describe("the robust line", () => {
  // Library: ml-regression-theil-sen. For an even number of slopes it may return one of the middle two, so compare odd ones.
  test("has the slope that the library finds", () => {
    for (const seed of [1, 2, 3, 4]) {
      const random = seededRandom(seed);
      const normal = normalNumbers(random);
      const n = 30 + seed;
      const xs = Array.from({ length: n }, (_, i) => i + random() / 2);
      const ys = xs.map((x) => 3 + 0.21 * x + 0.3 * normal());
      const slopes = allSlopes(xs, ys);
      const { slope } = theilSen(xs, ys);
      const theirs = new TheilSenRegression(xs, ys).slope;
      if (slopes.length % 2 === 1) expect(slope).toBeCloseTo(theirs, 9);
      else {
        const middle = [slopes[slopes.length / 2 - 1] ?? 0, slopes[slopes.length / 2] ?? 0];
        expect(theirs).toBeGreaterThanOrEqual(Math.min(...middle) - 1e-12);
        expect(theirs).toBeLessThanOrEqual(Math.max(...middle) + 1e-12);
      }
      // Library: simple-statistics.
      expect(slope).toBeCloseTo(libraryMedian(slopes), 9);
      expect(median(slopes)).toBe(libraryMedian(slopes));
    }
  });

  test("is the median of every pair's slope, and its interval their ranks, ties and all", () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 3, maxLength: 40 }), (points) => {
        const xs = points.map((p) => p.x);
        const ys = points.map((p) => p.y);
        fc.pre(new Set(xs).size > 1);
        const slopes = allSlopes(xs, ys);
        const line = theilSen(xs, ys);
        expect(line.slope).toBeCloseTo(libraryMedian(slopes), 6);
        const n = xs.length;
        const spread = 1.959964 * Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18);
        const at = (rank: number) => slopes[Math.min(Math.max(rank, 1), slopes.length) - 1] ?? Number.NaN;
        expect(line.low).toBeCloseTo(at(Math.floor((slopes.length - spread) / 2)), 6);
        expect(line.high).toBeCloseTo(at(Math.ceil((slopes.length + spread) / 2) + 1), 6);
      }),
    );
  });

  // More than two hundred points, so pairs are counted instead of listed. Library: simple-statistics.
  test("is the same for hundreds of readings in tenths, with ties by the thousand", () => {
    for (const seed of [1, 2]) {
      const random = seededRandom(seed);
      const normal = normalNumbers(random);
      const xs = Array.from({ length: 400 }, (_, i) =>
        Number((i * 1.1 + Math.floor(random() * 3) / 10).toFixed(1)),
      );
      const ys = xs.map((x) => Number((0.2 * x + 0.2 * normal()).toFixed(1)));
      const slopes = allSlopes(xs, ys);
      const line = theilSen(xs, ys);
      expect(line.slope).toBeCloseTo(libraryMedian(slopes), 10);
      const spread = 1.959964 * Math.sqrt((400 * 399 * 805) / 18);
      expect(line.low).toBeCloseTo(slopes[Math.floor((slopes.length - spread) / 2) - 1] ?? 0, 10);
      expect(line.high).toBeCloseTo(slopes[Math.ceil((slopes.length + spread) / 2)] ?? 0, 10);
    }
    // All on one line: every pair has the same slope.
    const flat = Array.from({ length: 300 }, (_, i) => i);
    expect(
      theilSen(
        flat,
        flat.map((x) => 5 - x / 4),
      ),
    ).toMatchObject({
      slope: expect.closeTo(-0.25, 9),
      low: expect.closeTo(-0.25, 9),
      high: expect.closeTo(-0.25, 9),
    });
  });

  // Published: Sen 1968: breakdown point 29 %, so a quarter of outliers is tolerated.
  test("does not follow a quarter of wild readings", () => {
    const xs = Array.from({ length: 40 }, (_, i) => i);
    const ys = xs.map((x) => (x % 4 === 0 ? 100 : 2 + 0.5 * x));
    expect(Math.abs(theilSen(xs, ys).slope - 0.5)).toBeLessThan(0.1);
  });

  test("holds the true slope in nineteen of twenty intervals", () => {
    const normal = normalNumbers(seededRandom(11));
    let held = 0;
    for (let run = 0; run < 400; run++) {
      const xs = Array.from({ length: 15 }, (_, i) => i * 1.1);
      const ys = xs.map((x) => 0.2 * x + 0.15 * normal());
      const { low, high } = theilSen(xs, ys);
      if (low <= 0.2 && 0.2 <= high) held++;
    }
    expect(held / 400).toBeGreaterThan(0.92);
    expect(held / 400).toBeLessThan(0.99);
  });

  test.each([
    [[1], [1], "at least two"],
    [[2, 2, 2], [1, 2, 3], "all readings"],
    [[1, Number.NaN], [1, 2], "not a number"],
  ])("of %j is rejected", (xs, ys, reason) => {
    expect(() => theilSen(xs, ys)).toThrow(new RegExp(reason, "i"));
  });
});

describe("a bend", () => {
  const series = (bend: number, seed: number) => {
    const normal = normalNumbers(seededRandom(seed));
    const xs = Array.from({ length: 40 }, (_, i) => i * 1.1);
    const ys = xs.map((x, i) => 0.1 * x + (i > 25 ? bend * (x - 25 * 1.1) : 0) + 0.1 * normal());
    return [xs, ys] as const;
  };
  test("is found where it is", () => {
    for (const seed of [1, 2, 3]) {
      const found = slopeChange(...series(0.15, seed), 6, 0.1);
      expect(Math.abs((found?.index ?? 0) - 25)).toBeLessThanOrEqual(3);
      expect(found?.before.slope).toBeCloseTo(0.1, 1);
      expect(found?.after.slope).toBeCloseTo(0.25, 1);
      expect(found?.z).toBeGreaterThan(4);
    }
  });
  test("is hardly ever seen in a straight line", () => {
    const seen = Array.from(
      { length: 100 },
      (_, seed) => Math.abs(slopeChange(...series(0, 50 + seed), 6, 0.1)?.z ?? 0) >= 4,
    );
    expect(seen.filter(Boolean).length).toBeLessThanOrEqual(2);
  });
  test("needs readings on both sides", () => {
    const [xs, ys] = series(0.2, 1);
    expect(slopeChange(xs.slice(0, 10), ys.slice(0, 10), 6, 0.1)).toBeUndefined();
  });
});

describe("a plot of years", () => {
  test("keeps every column's ends and extremes, in order, and nothing else", () => {
    const points = fc
      .array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 1, maxLength: 400 })
      .map((ys) => ys.map((y, x) => ({ x, y })));
    fc.assert(
      fc.property(points, fc.integer({ min: 1, max: 20 }), (all, columns) => {
        const kept = thinForPlot(all, columns);
        expect(kept.length).toBeLessThanOrEqual(Math.max(4 * columns, 1));
        expect(kept[0]).toEqual(all[0]);
        expect(kept.at(-1)).toEqual(all.at(-1));
        expect(kept.map((p) => p.x)).toEqual([...kept.map((p) => p.x)].sort((a, b) => a - b));
        const ys = (list: { y: number }[]) => [
          Math.min(...list.map((p) => p.y)),
          Math.max(...list.map((p) => p.y)),
        ];
        expect(ys(kept)).toEqual(ys(all));
        expect(kept.every((p) => all.includes(p))).toBe(true);
      }),
    );
    expect(() => thinForPlot([], 0)).toThrow("at least one column");
  });
});

test("the normal numbers have the mean, the spread and the tails of the normal distribution", () => {
  const normal = normalNumbers(seededRandom(5));
  const drawn = Array.from({ length: 40_000 }, normal);
  const mean = drawn.reduce((a, b) => a + b, 0) / drawn.length;
  const variance = drawn.reduce((a, b) => a + (b - mean) ** 2, 0) / drawn.length;
  expect(Math.abs(mean)).toBeLessThan(0.02);
  expect(variance).toBeCloseTo(1, 1);
  // Standard normal table: 5 % are above 1.645.
  expect(drawn.filter((z) => z > 1.644854).length / drawn.length).toBeCloseTo(0.05, 2);
});

describe("the middle half", () => {
  it("is the mean of what lies between the quartiles", () => {
    // By hand: of 1 … 8 the middle half is 3 to 6; of 5, 6, 8, 100 it is 6 and 8.
    expect(midmean([8, 1, 5, 3, 2, 7, 6, 4])).toBe(4.5);
    expect(midmean([5, 100, 6, 8])).toBe(7);
    expect(midmean([3])).toBe(3);
    // Between two steps of a coarse instrument it is closer to the more frequent one.
    expect(midmean([1750, 1750, 1750, 1750, 1775, 1775, 1750, 1775])).toBeGreaterThan(1750);
    expect(() => midmean([])).toThrow("nothing");
  });
});
