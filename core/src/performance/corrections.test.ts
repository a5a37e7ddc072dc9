import type { Runway } from "../aircraft/aircraft-type";
import { calculateDeparture, type DepartureInput } from "../departure/calculate-departure";
import type { Source } from "../judgement/judgement";
import { LOADING } from "../testing/complete-flight";
import { accelerateStopNeeded, type DistanceConditions, distanceNeeded } from "./distance-needed";
import type { HandbookCorrections, PerformanceProfile } from "./performance-profile";
import { OutsideChartError } from "./read-chart";

const source: Source = { kind: "handbook", text: "example", example: true };
const profile = (corrections?: Omit<HandbookCorrections, "source">): PerformanceProfile => ({
  takeOff: { kind: "single", kg: 1000, rollM: 250, over50M: 400, source },
  landing: { kind: "single", kg: 1000, rollM: 200, over50M: 400, source },
  liftOffKt: 50,
  approachKt: 60,
  climbKt: 75,
  ...(corrections && { corrections: { ...corrections, source } }),
});
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
const needed = (conditions: Partial<DistanceConditions>, own?: Omit<HandbookCorrections, "source">) =>
  distanceNeeded(profile(own), "takeOff", at(conditions), 1);

test("the handbook's wind correction ends where the handbook ends", () => {
  const own = { tailwindPercentPerKt: 5, headwindPercentPerKt: 2, mostTailwindKt: 10, mostHeadwindKt: 20 };
  // One and a half times ten knots at five percent.
  expect(needed({ alongKt: -10 }, own).neededM).toBeCloseTo(400 * 1.75, 9);
  expect(() => needed({ alongKt: -11 }, own)).toThrow(OutsideChartError);
  expect(() => needed({ alongKt: -11 }, own)).toThrow("ends at 10 kt");
  // More headwind than the handbook has is not credited.
  expect(needed({ alongKt: 40 }, own).neededM).toBe(needed({ alongKt: 20 }, own).neededM);
});

/** UK CAA Safety Sense Leaflet, take-off: dry grass 1.20, wet grass 1.30, 2 % uphill 1.10 (from memory). */
test("grass and slope are the handbook's or the leaflet's, never one upon the other", () => {
  const own = { grassPercentOfRoll: 15, slopePercentPerPercent: 7 };
  const names = (conditions: Partial<DistanceConditions>, corrections?: typeof own | object) =>
    needed(conditions, corrections).factors.map(({ what, by }) => `${what} ${by.toFixed(4)}`);
  // 15 % of a roll of 250 m, in 400 m.
  expect(names({ grass: true }, own)).toEqual(["grass 1.0938"]);
  expect(names({ grass: true })).toEqual(["dry grass 1.2000"]);
  // The handbook has no wet grass: the leaflet's alone.
  expect(names({ grass: true, state: "wet" }, own)).toEqual(["wet grass 1.3000"]);
  expect(names({ grass: true, state: "wet" }, { ...own, wetGrassPercentOfRoll: 40 })).toEqual([
    "wet grass 1.2500",
  ]);
  // Never better than the handbook's dry grass.
  expect(names({ grass: true, state: "wet" }, { grassPercentOfRoll: 60 })).toEqual(["wet grass 1.3750"]);
  expect(names({ slopePercent: 2 }, own)).toEqual(["uphill 1.1400"]);
  expect(names({ slopePercent: 2 })).toEqual(["uphill 1.1000"]);
});

test("what the figures contain already is not added again", () => {
  const own = { contained: ["wind" as const, "grass" as const, "slope" as const] };
  expect(needed({ grass: true, slopePercent: 2, alongKt: -5 }, own).factors).toEqual([]);
  // Wet on top of the dry grass in the figures: 1.30 / 1.20.
  expect(needed({ grass: true, state: "wet" }, own).factors).toMatchObject([
    { what: "wet grass", by: expect.closeTo(1.3 / 1.2, 9) },
  ]);
});

test("accelerate-stop takes wind, surface and slope either way", () => {
  const stop = (conditions: Partial<DistanceConditions>) =>
    accelerateStopNeeded(600, profile(), at(conditions)).neededM;
  expect(stop({})).toBe(600);
  // Five knots of tailwind are a tenth of the lift-off speed: 1.20.
  expect(stop({ alongKt: -5 })).toBeCloseTo(720, 9);
  expect(stop({ slopePercent: 2 })).toBeCloseTo(660, 9);
  expect(stop({ slopePercent: -2 })).toBeCloseTo(660, 9);
  // The worse of take-off (1.30) and landing (1.35) on wet grass.
  expect(stop({ grass: true, state: "wet" })).toBeCloseTo(810, 9);
});

const runway = (more: Partial<Runway> = {}): Runway => ({
  id: "24",
  headingDeg: 240,
  lengthM: 900,
  surface: "asphalt",
  declared: { toraM: 900, todaM: 900, asdaM: 900, ldaM: 900 },
  ...more,
});
const input = (of: Runway): DepartureInput => ({
  type: { performance: { ...profile(), climbFpm: { chart: CLIMB, source } } },
  airfield: { elevationFt: 0, runways: [of] },
  runway: of,
  loading: { ...LOADING, weighing: { ...LOADING.weighing, emptyKg: 920 }, tanks: [] },
  load: { stations: { front: 80 }, litres: {}, kgPerL: 0.72 },
  burn: { taxiL: 0, tripL: 0 },
  wind: { fromDeg: 240, kt: 0 },
  settingHpa: 1013.25,
  celsius: 15,
});
const CLIMB = {
  kg: [1200],
  pressureAltitudeFt: [0, 4000],
  celsius: [0, 40],
  values: [
    [
      [600, 500],
      [500, 400],
    ],
  ],
};

test("of several declared distances that are short the one that lacks most is named, with its own number", () => {
  // 400 m × 1.33 = 532 m to 50 ft, 250 m × 1.33 = 332.5 m of run.
  const { takeOff } = calculateDeparture(
    input(runway({ declared: { toraM: 200, todaM: 500, asdaM: 500, ldaM: 900 } })),
  );
  expect(takeOff).toMatchObject({
    declared: "take-off run",
    availableM: 200,
    declaredNeededM: expect.closeTo(332.5, 6),
    leftM: expect.closeTo(-132.5, 6),
  });
  const other = calculateDeparture(
    input(runway({ declared: { toraM: 500, todaM: 500, asdaM: 500, ldaM: 900 } })),
  );
  expect(other.takeOff).toMatchObject({ declared: "take-off distance", leftM: expect.closeTo(-32, 6) });
});

test("an obstacle is cleared from where the factored take-off reaches 50 ft", () => {
  const beyond = { what: "the wood", heightFt: 60, distanceM: 200 };
  const { climb } = calculateDeparture(input(runway({ beyond })));
  const leftM = 900 + 200 - 400 * 1.33;
  expect(climb?.aboveFt).toBeCloseTo(50 + (leftM * (climb?.gradientPercent ?? 0)) / 100 / 0.3048 - 60, 6);
});
