import fc from "fast-check";
import { windComponents } from "../air/wind-components";
import { compareRunways, magneticWind, windsockDisagrees } from "./compare-runways";
import { variationDeg } from "./variation";
import { type WindRange, worstWind } from "./worst-wind";

const degrees = fc.integer({ min: 0, max: 360 });

// Published: FAA-H-8083-25, component chart sample (from memory): runway 17, wind 140° at 25 kt → 22 kt head, 13 kt cross.
test("the handbook's sample: runway 17, wind 140 at 25; with a gust the worst of it counts across, the mean against", () => {
  const plain = worstWind(170, { fromDeg: 140, kt: 25 });
  expect([plain.alongKt, plain.crossKt, plain.side, plain.tailKt]).toEqual([
    expect.closeTo(21.65, 2),
    expect.closeTo(12.5, 2),
    "left",
    0,
  ]);
  const gusty = worstWind(170, { fromDeg: 140, kt: 25, gustKt: 40 });
  expect(gusty.crossKt).toBeCloseTo(20, 6);
  expect(gusty.alongKt).toBeCloseTo(21.65, 2);
});

test("a wind that swings across the runway, round north, or blows from anywhere, is taken at its worst", () => {
  // 210V280 on runway 25: 40° to the left, 30° to the right.
  expect(worstWind(250, { fromDeg: 250, kt: 10, between: [210, 280] })).toMatchObject({
    crossKt: expect.closeTo(6.43, 2),
    side: "either",
  });
  // 330V040 on runway 36 crosses north, and on 09 it is a full crosswind within the range.
  expect(worstWind(360, { fromDeg: 10, kt: 10, between: [330, 40] }).crossKt).toBeCloseTo(6.43, 2);
  expect(worstWind(90, { fromDeg: 10, kt: 10, between: [330, 40] })).toMatchObject({
    crossKt: 10,
    tailKt: expect.closeTo(5, 6),
  });
  expect(worstWind(90, { kt: 4, gustKt: 12 })).toEqual({
    alongKt: -12,
    crossKt: 12,
    side: "either",
    tailKt: 12,
  });
  expect(worstWind(90, { fromDeg: 0, kt: 0 })).toMatchObject({ crossKt: 0, tailKt: 0 });
});

test("nothing that a wind does in its range is worse than the worst, by trying each degree", () => {
  fc.assert(
    fc.property(
      degrees,
      degrees,
      fc.integer({ min: 0, max: 120 }),
      fc.integer({ min: 0, max: 40 }),
      fc.integer({ min: 0, max: 20 }),
      (runway, from, swing, kt, more) => {
        const between: [number, number] = [from, (from + swing) % 360];
        const worst = worstWind(runway, { fromDeg: from, kt, gustKt: kt + more, between });
        let [cross, tail, along] = [0, 0, Number.POSITIVE_INFINITY];
        for (let turn = 0; turn <= swing; turn++) {
          for (const speed of [kt, kt + more]) {
            const one = windComponents(runway, { fromDeg: (from + turn) % 360, kt: speed });
            cross = Math.max(cross, Math.abs(one.crosswindKt));
            tail = Math.max(tail, -one.headwindKt);
            along = Math.min(along, one.headwindKt);
          }
        }
        expect(worst.crossKt).toBeGreaterThanOrEqual(cross - 1e-6);
        expect(worst.tailKt).toBeGreaterThanOrEqual(tail - 1e-6);
        expect(worst.alongKt).toBeLessThanOrEqual(along + 1e-6);
        // No worse than one degree beside it.
        expect(worst.crossKt - cross).toBeLessThan((kt + more) * 0.0175 + 1e-6);
        expect(worst.tailKt - tail).toBeLessThan((kt + more) * 0.0175 + 1e-6);
      },
    ),
  );
});

test.each([
  [361, { fromDeg: 10, kt: 5 }, "0 to 360"],
  [90, { fromDeg: -1, kt: 5 }, "0 to 360"],
  [90, { fromDeg: 10, kt: -5 }, "negative"],
  [90, { fromDeg: 10, kt: 15, gustKt: 10 }, "less than the mean wind"],
  [90, { fromDeg: Number.NaN, kt: 15 }, "not a number"],
  [90, { fromDeg: 10, kt: 15, between: [10, 400] as [number, number] }, "0 to 360"],
])("runway %d, wind %j is rejected", (runway, wind, why) => {
  expect(() => worstWind(runway, wind)).toThrow(why);
});

const FIELD = {
  runways: [
    { id: "06", headingDeg: 60, lengthM: 780, surface: "grass" },
    { id: "24", headingDeg: 240, lengthM: 780, surface: "grass" },
    { id: "11", headingDeg: 110, lengthM: 910, surface: "asphalt" },
    { id: "29", headingDeg: 290, lengthM: 910, surface: "asphalt" },
  ],
};

test("the better runway and why; in no wind the longest; as it stands in the file makes no difference", () => {
  const west = compareRunways(FIELD, { fromDeg: 280, kt: 14 });
  expect(west.runways.map(({ runway }) => runway.id)).toEqual(["29", "24", "06", "11"]);
  expect(west.why).toBe("Runway 29: 14 kt headwind, crosswind up to 2 kt; 24 has up to 9 kt crosswind.");
  expect(compareRunways(FIELD, { fromDeg: 0, kt: 0 }).best?.runway.lengthM).toBe(910);
  expect(compareRunways(FIELD, { fromDeg: 100, kt: 12 }).why).toContain("Runway 11");
  expect(compareRunways({ runways: [] }, { kt: 0 }).why).toBe("No runway on file.");
  fc.assert(
    fc.property(
      degrees,
      fc.integer({ min: 0, max: 40 }),
      fc.shuffledSubarray(FIELD.runways, { minLength: 4 }),
      (fromDeg, kt, runways) => {
        const ids = (choice: ReturnType<typeof compareRunways>) =>
          choice.runways.map(({ runway }) => runway.id);
        const one = compareRunways({ runways }, { fromDeg, kt });
        expect(ids(one)).toHaveLength(4);
        // No runway is chosen with over a knot more tailwind than another.
        expect(Math.min(...one.runways.map(({ tailKt }) => tailKt))).toBeGreaterThanOrEqual(
          (one.best?.tailKt ?? 0) - 1.001,
        );
      },
    ),
  );
});

test("true and magnetic are kept apart: 10° east variation turns a true 250 into 240", () => {
  expect(magneticWind({ fromDeg: 250, kt: 12, between: [5, 20] }, 10)).toEqual({
    fromDeg: 240,
    kt: 12,
    between: [355, 10],
  });
  expect(magneticWind({ kt: 3 }, 10)).toEqual({ kt: 3 });
});

// Library: geomagnetism (World Magnetic Model 2025). West variation in eastern North America and east in its west is common
// knowledge.
test("the variation has the sign that charts have, and ends with its model", () => {
  expect(variationDeg({ lat: 43, lon: -71 }, "2026-06-15")).toBeLessThan(-12);
  expect(variationDeg({ lat: 47, lon: -122 }, "2026-06-15")).toBeGreaterThan(12);
  expect(Math.abs(variationDeg({ lat: 53.4, lon: 2.1 }, "2026-06-15"))).toBeLessThan(4);
  expect(() => variationDeg({ lat: 53, lon: 2 }, "2040-01-01")).toThrow("Read it from the chart");
  expect(() => variationDeg({ lat: 99, lon: 2 }, "2026-01-01")).toThrow("Latitude");
});

test.each<[{ fromDeg: number; kt: number }, WindRange, string | undefined]>([
  [{ fromDeg: 240, kt: 10 }, { fromDeg: 250, kt: 12 }, undefined],
  [{ fromDeg: 300, kt: 10 }, { fromDeg: 250, kt: 12 }, "50° difference"],
  [{ fromDeg: 350, kt: 10 }, { fromDeg: 20, kt: 12 }, undefined],
  [{ fromDeg: 250, kt: 22 }, { fromDeg: 250, kt: 12 }, "windsock shows more wind"],
  [{ fromDeg: 250, kt: 20 }, { fromDeg: 250, kt: 12, gustKt: 22 }, undefined],
  [{ fromDeg: 100, kt: 3 }, { fromDeg: 250, kt: 2 }, undefined],
  [{ fromDeg: 215, kt: 10 }, { fromDeg: 270, kt: 10, between: [210, 290] }, undefined],
  [{ fromDeg: 250, kt: 3 }, { fromDeg: 250, kt: 14 }, "windsock shows less wind"],
])("sock %j, report %j: %s", (sock, report, words) => {
  if (words) expect(windsockDisagrees(sock, report)).toContain(words);
  else expect(windsockDisagrees(sock, report)).toBeUndefined();
});
