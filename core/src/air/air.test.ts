import fc from "fast-check";
import type { Source } from "../judgement/judgement";
import { judgeWind } from "./judge-wind";
import { windComponents } from "./wind-components";

// Published: FAA-H-8083-25, component chart sample (from memory): runway 17, wind 140° at 25 kt → 22 kt head, 13 kt cross.
test("the handbook's sample: runway 17, wind 140 at 25", () => {
  const { headwindKt, crosswindKt } = windComponents(170, { fromDeg: 140, kt: 25 });
  // Read from the chart to the nearest knot: 21.65 and 12.50.
  expect(Math.abs(headwindKt - 22)).toBeLessThanOrEqual(0.5);
  expect(Math.abs(Math.abs(crosswindKt) - 13)).toBeLessThanOrEqual(0.5 + 1e-9);
  expect(crosswindKt).toBeLessThan(0);
});

test("straight down, straight across, from behind", () => {
  expect(windComponents(240, { fromDeg: 240, kt: 12 }).headwindKt).toBeCloseTo(12);
  expect(windComponents(240, { fromDeg: 330, kt: 12 }).crosswindKt).toBeCloseTo(12);
  expect(windComponents(240, { fromDeg: 60, kt: 12 }).headwindKt).toBeCloseTo(-12);
  expect(windComponents(360, { fromDeg: 0, kt: 9 }).headwindKt).toBeCloseTo(9);
});

test("the two components always make up the wind", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 360 }),
      fc.integer({ min: 0, max: 360 }),
      fc.integer({ min: 0, max: 80 }),
      (runway, fromDeg, kt) => {
        const { headwindKt, crosswindKt } = windComponents(runway, { fromDeg, kt });
        expect(Math.hypot(headwindKt, crosswindKt)).toBeCloseTo(kt, 9);
      },
    ),
  );
});

test.each([
  [361, 10, "0 to 360"],
  [-1, 10, "0 to 360"],
  [90, -3, "negative"],
])("wind from %d at %d is rejected", (fromDeg, kt, reason) => {
  expect(() => windComponents(90, { fromDeg, kt })).toThrow(reason);
});

const source: Source = { kind: "handbook", text: "demonstrated", example: true };
const judge = (fromDeg: number, kt: number, gustKt?: number, limits = [{ kt: 15, source }]) =>
  judgeWind({ runwayDeg: 240, wind: { fromDeg, kt, ...(gustKt !== undefined && { gustKt }) }, limits });

test("the gust counts, against the lowest limit on file", () => {
  expect(judge(330, 12)[0]?.grade).toBe("within limits");
  expect(judge(330, 12, 18)[0]).toMatchObject({ grade: "ask", margin: { value: -3 } });
  expect(judge(330, 12, 0)[0]?.grade).toBe("within limits");
  const own: Source = { kind: "own limit", text: "mine", example: false };
  expect(
    judge(330, 12, undefined, [
      { kt: 15, source },
      { kt: 8, source: own },
    ])[0],
  ).toMatchObject({ grade: "ask", source: own });
});

test("a tailwind is asked about, no limit is not judged, a gust below the wind is rejected", () => {
  expect(judge(60, 5).map((j) => [j.id, j.grade])).toContainEqual(["wind.tail", "ask"]);
  expect(judge(330, 5, undefined, [])[0]?.grade).toBe("unjudged");
  expect(() => judge(330, 12, 8)).toThrow("less than the mean wind");
});
