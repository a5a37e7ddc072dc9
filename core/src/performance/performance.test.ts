import fc from "fast-check";
import { frequencyFault, squawkFault } from "../departure/radio-sense";
import type { Source } from "../judgement/judgement";
import { controlsForWind } from "../taxi/controls-for-wind";
import { abortPoint } from "./abort-point";
import { aboveObstacleFt, climbGradient, trueSpeedKt } from "./climb-out";
import { type DistanceConditions, distanceNeeded, publishedFactors } from "./distance-needed";
import { type Chart, chartFaults, type PerformanceProfile, performanceFaults } from "./performance-profile";
import { OutsideChartError, readChart } from "./read-chart";

const source: Source = { kind: "handbook", text: "example", example: true };

/** A linear chart, so that values between its lines are known. */
const LINEAR: Chart = {
  kg: [800, 1000],
  pressureAltitudeFt: [0, 2000, 4000],
  celsius: [0, 20, 40],
  values: [800, 1000].map((kg) =>
    [0, 2000, 4000].map((ft) => [0, 20, 40].map((c) => kg * 0.3 + ft * 0.02 + c * 2)),
  ),
};
const over = (chart: Chart): Chart => ({
  ...chart,
  values: chart.values.map((plane) => plane.map((row) => row.map((v) => v * 1.6))),
});
const CHARTED: PerformanceProfile = {
  takeOff: { kind: "chart", rollM: LINEAR, over50M: over(LINEAR), source },
  landing: { kind: "chart", rollM: LINEAR, over50M: over(LINEAR), source },
  liftOffKt: 55,
  approachKt: 60,
  climbKt: 75,
};
const SINGLE: PerformanceProfile = {
  ...CHARTED,
  takeOff: { kind: "single", kg: 1000, rollM: 250, over50M: 400, source },
  landing: { kind: "single", kg: 1000, rollM: 200, over50M: 400, source },
};
const at = (more: Partial<DistanceConditions> = {}): DistanceConditions => ({
  kg: 1000,
  celsius: 15,
  pressureAltitudeFt: 0,
  elevationFt: 0,
  alongKt: 0,
  grass: false,
  state: "dry",
  slopePercent: 0,
  ...more,
});

test("a chart is read linearly between its lines and exactly on them", () => {
  expect(readChart(LINEAR, { kg: 1000, pressureAltitudeFt: 2000, celsius: 20 })).toBeCloseTo(380, 9);
  expect(readChart(LINEAR, { kg: 900, pressureAltitudeFt: 1500, celsius: 13 })).toBeCloseTo(270 + 30 + 26, 9);
});

test("it is never read outside: beyond its end it is rejected, before its beginning the beginning counts", () => {
  expect(() => readChart(LINEAR, { kg: 1000, pressureAltitudeFt: 0, celsius: 41 })).toThrow(
    OutsideChartError,
  );
  expect(() => readChart(LINEAR, { kg: 1001, pressureAltitudeFt: 0, celsius: 20 })).toThrow(
    "1,001 kg is off the chart, which ends at 1,000",
  );
  expect(() => readChart(LINEAR, { kg: 900, pressureAltitudeFt: 4001, celsius: 20 })).toThrow(
    "pressure altitude",
  );
  expect(() => readChart(LINEAR, { kg: Number.NaN, pressureAltitudeFt: 0, celsius: 20 })).toThrow(
    "not a number",
  );
  expect(readChart(LINEAR, { kg: 700, pressureAltitudeFt: -300, celsius: -9 })).toBe(240);
});

test("a hole, an axis that turns, a distance that gets shorter where it is hotter: named at their place", () => {
  expect(chartFaults(LINEAR, "c")).toEqual([]);
  const holed = structuredClone(LINEAR);
  holed.values[0]?.[1]?.pop();
  expect(chartFaults(holed, "c")).toMatchObject([
    { path: "c.values", expected: expect.stringContaining("one is missing") },
  ]);
  expect(chartFaults({ ...LINEAR, celsius: [0, 40, 20] }, "c")[0]?.path).toBe("c.celsius");
  const bent = structuredClone(LINEAR);
  (bent.values[1]?.[0] as number[])[2] = 5;
  expect(chartFaults(bent, "c").map(({ path }) => path)).toContain("c.values[1][0][2]");
  expect(
    performanceFaults({ ...SINGLE, landing: { ...SINGLE.landing, over50M: 100 } as never })[0]?.path,
  ).toBe("landing.over50M");
});

/**
 * UK CAA Safety Sense Leaflet on aeroplane performance: its table of factors (from memory), each alone at one step, then
 * multiplied.
 */
test.each<[string, Partial<DistanceConditions>, number, number]>([
  ["mass +10 %", { kg: 1100 }, 1.2, 1.1],
  ["elevation +1,000 ft, as cold as the standard has it", { elevationFt: 1000, celsius: 13.02 }, 1.1, 1.05],
  ["+10 °C", { celsius: 25 }, 1.1, 1.05],
  ["dry grass", { grass: true }, 1.2, 1.15],
  ["wet grass", { grass: true, state: "wet" }, 1.3, 1.35],
  ["wet paved", { state: "wet" }, 1, 1.15],
  ["2 % uphill", { slopePercent: 2 }, 1.1, 1],
  ["2 % downhill", { slopePercent: -2 }, 1, 1.1],
  ["soft", { state: "soft" }, 1.25, 1.25],
])("%s", (_, more, takeOff, landing) => {
  expect(distanceNeeded(SINGLE, "takeOff", at(more)).over50M).toBeCloseTo(400 * takeOff, 6);
  expect(distanceNeeded(SINGLE, "landing", at(more)).over50M).toBeCloseTo(400 * landing, 6);
});

test("a tailwind of a tenth of the speed is a fifth longer; the leaflet's safety is 1.33 and 1.43; factors multiply", () => {
  expect(distanceNeeded(SINGLE, "takeOff", at({ alongKt: -5.5 })).over50M).toBeCloseTo(480, 6);
  expect(distanceNeeded(SINGLE, "landing", at({ alongKt: -6 })).over50M).toBeCloseTo(480, 6);
  expect(distanceNeeded(SINGLE, "takeOff", at()).neededM).toBeCloseTo(532, 6);
  expect(distanceNeeded(SINGLE, "landing", at()).neededM).toBeCloseTo(572, 6);
  const hot = distanceNeeded(SINGLE, "takeOff", at({ kg: 1100, celsius: 25, grass: true, slopePercent: 2 }));
  expect(hot.over50M).toBeCloseTo(400 * 1.2 * 1.1 * 1.2 * 1.1, 6);
  expect(hot.factors.map(({ what }) => what)).toEqual(["mass", "temperature", "dry grass", "uphill"]);
  // A requested factor below 1 is ignored; a larger one counts.
  expect(distanceNeeded(SINGLE, "takeOff", at(), 0.5).neededM).toBe(400);
  expect(distanceNeeded(SINGLE, "takeOff", at(), 1.6)).toMatchObject({
    neededM: 640,
    safety: { source: { kind: "own limit" } },
  });
  expect(publishedFactors("landing").safety).toBe(1.43);
});

test("the handbook's own corrections come first: half of a headwind, one and a half of a tailwind, its grass", () => {
  const own: PerformanceProfile = {
    ...CHARTED,
    corrections: { headwindPercentPerKt: 1.1, tailwindPercentPerKt: 5, grassPercentOfRoll: 15, source },
  };
  const plain = distanceNeeded(own, "takeOff", at()).over50M;
  expect(distanceNeeded(own, "takeOff", at({ alongKt: 10 })).over50M).toBeCloseTo(plain * (1 - 0.055), 6);
  expect(distanceNeeded(own, "takeOff", at({ alongKt: -4 })).over50M).toBeCloseTo(plain * 1.3, 6);
  expect(distanceNeeded(own, "takeOff", at({ grass: true })).over50M).toBeCloseTo(
    plain * (1 + 0.15 / 1.6),
    6,
  );
  // Without a figure of its own a headwind is not counted.
  expect(distanceNeeded(CHARTED, "takeOff", at({ alongKt: 20 })).over50M).toBeCloseTo(plain, 9);
});

test("heavier, hotter, higher, more from behind, softer never comes out shorter", () => {
  const conditions = fc.record({
    kg: fc.integer({ min: 700, max: 1000 }),
    celsius: fc.integer({ min: -10, max: 40 }),
    pressureAltitudeFt: fc.integer({ min: -500, max: 4000 }),
    elevationFt: fc.integer({ min: 0, max: 4000 }),
    alongKt: fc.integer({ min: -15, max: 30 }),
    grass: fc.boolean(),
    state: fc.constantFrom("dry" as const, "wet" as const, "soft" as const),
    slopePercent: fc.integer({ min: -4, max: 4 }),
  });
  const own: PerformanceProfile = { ...CHARTED, corrections: { headwindPercentPerKt: 1.5, source } };
  fc.assert(
    fc.property(
      conditions,
      fc.constantFrom("takeOff" as const, "landing" as const),
      fc.constantFrom(SINGLE, CHARTED, own),
      (one, way, profile) => {
        const needed = (more: Partial<DistanceConditions>) =>
          distanceNeeded(profile, way, { ...one, ...more }).neededM;
        const here = needed({}) - 1e-9;
        if (one.kg < 1000) expect(needed({ kg: one.kg + 1 })).toBeGreaterThanOrEqual(here);
        if (one.celsius < 40) expect(needed({ celsius: one.celsius + 1 })).toBeGreaterThanOrEqual(here);
        if (one.pressureAltitudeFt < 4000)
          expect(
            needed({ pressureAltitudeFt: one.pressureAltitudeFt + 1, elevationFt: one.elevationFt + 1 }),
          ).toBeGreaterThanOrEqual(here);
        expect(needed({ alongKt: one.alongKt - 1 })).toBeGreaterThanOrEqual(here);
        if (one.state === "dry") expect(needed({ state: "wet" })).toBeGreaterThanOrEqual(here);
      },
    ),
    { numRuns: 300 },
  );
});

test("seven tenths of the speed by half of the run, and the last mark before it that the speed can be there at", () => {
  const marks = [
    { name: "the first windsock", atM: 120 },
    { name: "the second windsock", atM: 440 },
    { name: "the hangar", atM: 470 },
  ];
  expect(abortPoint({ toraM: 910, rollM: 300, liftOffKt: 56 }, marks)).toEqual({
    atM: 455,
    speedKt: expect.closeTo(39.2, 6),
    mark: marks[1],
    // Constant acceleration: v² is proportional to distance.
    expectedAtM: expect.closeTo(147, 6),
  });
  expect(abortPoint({ toraM: 910, rollM: 300, liftOffKt: 56 }).mark).toBeUndefined();
  expect(() => abortPoint({ toraM: -1, rollM: 3, liftOffKt: 5 })).toThrow("negative");
});

test("climb: 500 ft a minute at 75 kt is 6.6 %; true speed grows as the root of the density falls; an obstacle is cleared or not", () => {
  expect(climbGradient(500, 75, 0)).toBeCloseTo((500 / ((75 * 1852) / 60 / 0.3048)) * 100, 2);
  expect(climbGradient(500, 75, -10)).toBeLessThan(climbGradient(500, 75, 0));
  // ICAO Doc 7488: 0.7361 of 1.2250 kg/m³ at 5,000 m.
  expect(trueSpeedKt(100, 5000 / 0.3048)).toBeCloseTo(100 / Math.sqrt(0.7361 / 1.225), 0);
  const take = { todaM: 900, rollM: 300, over50M: 500, gradientPercent: 6 };
  expect(aboveObstacleFt(take, { what: "trees", heightFt: 60, distanceM: 300 })).toBeCloseTo(
    50 + (700 * 0.06) / 0.3048 - 60,
    6,
  );
  expect(
    aboveObstacleFt({ ...take, over50M: 1400 }, { what: "trees", heightFt: 60, distanceM: 100 }),
  ).toBeLessThan(0);
});

/** FAA-H-8083-3, ground operations: the figure of control positions (from memory). */
test.each([
  [0, 315, false, "left", "neutral", "up"],
  [0, 45, false, "right", "neutral", "up"],
  [0, 225, false, "right", "down", "down"],
  [0, 135, false, "left", "down", "down"],
  [0, 315, true, "left", "up", "up"],
  [0, 135, true, "left", "down", "down"],
  [350, 20, false, "right", "neutral", "up"],
  [10, 350, false, "left", "neutral", "up"],
] as const)("taxiing %d°, wind from %d°, tail wheel %s: aileron %s, elevator %s", (heading, from, tail, aileron, elevator, windward) => {
  expect(controlsForWind(heading, from, tail)).toMatchObject({ aileron, elevator, windward });
});

test("what cannot be a code or a frequency is shown; help is called for on purpose only", () => {
  expect(["7000", "1200", "0000"].map(squawkFault)).toEqual([undefined, undefined, undefined]);
  expect(squawkFault("7800")).toBe("Use digits from 0 to 7 only.");
  expect(squawkFault("700")).toBe("Enter four digits.");
  expect(squawkFault("7600")).toContain("radio failure");
  expect(["122.705", "118.0", "121.5", "118.02", "118.07", "136.975", "132,015"].map(frequencyFault)).toEqual(
    Array(7).fill(undefined),
  );
  expect(["117.9", "137.0", "122.702", "122", "122.720"].map(frequencyFault).every(Boolean)).toBe(true);
  expect(() => controlsForWind(400, 0)).toThrow("0 to 360");
});
