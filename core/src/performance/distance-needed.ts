import type { Source } from "../judgement/judgement";
import { assertFinite, assertNotNegative, QuantityError } from "../units/convert";
import { formatNumber } from "../units/format";
import type { HandbookCorrections, PerformanceProfile } from "./performance-profile";
import { type ChartPoint, OutsideChartError, readChart } from "./read-chart";

/** Condition of the surface. */
export type SurfaceState = "dry" | "wet" | "soft";

/** Conditions besides the aircraft that affect a distance. */
export interface DistanceConditions extends ChartPoint {
  /** Field elevation, for a handbook that gives a single distance at sea level. */
  elevationFt: number;
  /** Wind along the runway, negative for a tailwind: the least favourable, with variation and gusts. */
  alongKt: number;
  grass: boolean;
  state: SurfaceState;
  /** Slope in the direction of take-off or landing: positive uphill. */
  slopePercent: number;
}

/** A correction of a distance, with its source. */
export interface Factor {
  what: string;
  by: number;
  source: Source;
}

export interface DistanceNeeded {
  /** Ground roll and distance over 50 ft, before the safety factor, m. */
  rollM: number;
  over50M: number;
  /** Corrections applied, in order. */
  factors: Factor[];
  safety: Factor;
  /** With the safety factor: the length required. */
  neededM: number;
}

const LEAFLET: Source = {
  kind: "common practice",
  text: "UK CAA Safety Sense Leaflet, aeroplane performance (from memory)",
  example: false,
};
const HALF_WIND: Source = {
  kind: "common practice",
  text: "50 % of headwind and 150 % of tailwind used",
  example: false,
};

/**
 * Factors of the leaflet for take-off and landing: those for mass, elevation and temperature apply if the handbook has no chart,
 * the others if it has no figure of its own.
 */
const PUBLISHED = {
  takeOff: {
    mass: 1.2,
    elevation: 1.1,
    temperature: 1.1,
    grass: 1.2,
    wetGrass: 1.3,
    wetPaved: 1,
    slope: 1.1,
    tail: 1.2,
    soft: 1.25,
    safety: 1.33,
  },
  landing: {
    mass: 1.1,
    elevation: 1.05,
    temperature: 1.05,
    grass: 1.15,
    wetGrass: 1.35,
    wetPaved: 1.15,
    slope: 1.1,
    tail: 1.2,
    soft: 1.25,
    safety: 1.43,
  },
} as const;

/** Published factors, each per step of the leaflet: a tenth of the mass, 1,000 ft, 10 °C, 2 %, a tenth of the speed. */
export const publishedFactors = (way: "takeOff" | "landing") => PUBLISHED[way];

/**
 * Distance needed for take-off or landing: the handbook's chart or single distance, its corrections, published corrections for
 * what it does not cover, then the safety factor (1.33 and 1.43 unless given; never below 1). Factors multiply; between the
 * leaflet's steps they are exponentiated, so two steps apply the factor twice.
 * Valid range: inside the chart, finite state and numbers, mass and elevation ≥ 0 or as charted; throws OutsideChartError and
 * QuantityError otherwise.
 * Source: the aircraft's handbook; UK CAA Safety Sense Leaflet on aeroplane performance (from memory). Monotonic: heavier,
 * hotter, higher or more tailwind never gives a shorter distance.
 */
export function distanceNeeded(
  profile: PerformanceProfile,
  way: "takeOff" | "landing",
  conditions: DistanceConditions,
  safetyFactor?: number,
): DistanceNeeded {
  const { kg, celsius, elevationFt, alongKt, slopePercent } = conditions;
  assertNotNegative("The mass", kg);
  assertFinite("The wind", alongKt);
  assertFinite("The slope", slopePercent);
  if (Math.abs(slopePercent) > 15) throw new QuantityError("Enter the slope in percent, from −15 to 15.");
  const data = profile[way];
  const published = PUBLISHED[way];
  const factors: Factor[] = [];
  const put: Put = (what, by, source) => {
    if (Math.abs(by - 1) > 1e-9) factors.push({ what, by, source });
  };
  const [roll, over50] =
    data.kind === "chart"
      ? [readChart(data.rollM, conditions), readChart(data.over50M, conditions)]
      : [data.rollM, data.over50M];
  if (data.kind === "single") {
    const standardC = 15 - 1.98 * (elevationFt / 1000);
    put("mass", published.mass ** (Math.max(0, kg / data.kg - 1) / 0.1), LEAFLET);
    put(
      "elevation",
      published.elevation ** (Math.max(0, Math.max(elevationFt, conditions.pressureAltitudeFt)) / 1000),
      LEAFLET,
    );
    put("temperature", published.temperature ** (Math.max(0, celsius - standardC) / 10), LEAFLET);
  }
  const { corrections } = profile;
  const contained = new Set(corrections?.contained ?? []);
  const speed = way === "takeOff" ? profile.liftOffKt : profile.approachKt;
  if (!contained.has("wind")) windFactor(alongKt, speed, published.tail, corrections, put);
  surfaceFactor(way, conditions, { roll, over50 }, contained.has("grass") ? undefined : corrections, put, {
    grassContained: contained.has("grass"),
  });
  // Uphill lengthens take-off, downhill landing; the opposite benefit is not counted.
  const against = way === "takeOff" ? slopePercent : -slopePercent;
  if (against > 0 && !contained.has("slope")) {
    const own = corrections?.slopePercentPerPercent;
    const what = way === "takeOff" ? "uphill" : "downhill";
    if (own !== undefined) put(what, 1 + (own * against) / 100, (corrections as HandbookCorrections).source);
    else put(what, published.slope ** (against / 2), LEAFLET);
  }
  const all = factors.reduce((product, { by }) => product * by, 1);
  const safety = Math.max(1, safetyFactor ?? published.safety);
  return {
    rollM: roll * all,
    over50M: over50 * all,
    factors,
    safety: {
      what: "safety",
      by: safety,
      source:
        safetyFactor === undefined
          ? LEAFLET
          : { kind: "own limit", text: "personal minimum", example: false },
    },
    neededM: over50 * all * safety,
  };
}

type Put = (what: string, by: number, source: Source) => void;

/** Factor of the surface: the handbook's own, or the leaflet's, never one upon the other. */
function surfaceFactor(
  way: "takeOff" | "landing",
  { grass, state }: Pick<DistanceConditions, "grass" | "state">,
  { roll, over50 }: { roll: number; over50: number },
  corrections: HandbookCorrections | undefined,
  put: Put,
  { grassContained }: { grassContained: boolean },
): void {
  const published = PUBLISHED[way];
  const ofRoll = (percent: number) => (over50 + (roll * percent) / 100) / over50;
  const dry = corrections?.grassPercentOfRoll;
  const wet = corrections?.wetGrassPercentOfRoll;
  if (!grass) {
    if (state === "soft") put("soft surface", published.soft, LEAFLET);
    else if (state === "wet") put("wet", published.wetPaved, LEAFLET);
    return;
  }
  if (grassContained) {
    // Dry grass is in the figures; what is wet or soft comes on top of it.
    if (state === "soft") put("soft surface", published.soft, LEAFLET);
    else if (state === "wet") put("wet grass", published.wetGrass / published.grass, LEAFLET);
    return;
  }
  const own = state === "wet" ? wet : state === "dry" ? dry : undefined;
  if (own !== undefined)
    put(state === "wet" ? "wet grass" : "grass", ofRoll(own), corrections?.source ?? LEAFLET);
  else {
    const leaflet =
      state === "dry"
        ? published.grass
        : state === "wet"
          ? published.wetGrass
          : published.soft * published.grass;
    const what = state === "dry" ? "dry grass" : state === "wet" ? "wet grass" : "soft surface";
    // Never better than the handbook's dry grass.
    put(what, Math.max(leaflet, dry === undefined ? 1 : ofRoll(dry)), LEAFLET);
  }
}

/** Factor of the wind: half of a headwind, one and a half times a tailwind. Throws OutsideChartError beyond the correction's end. */
export function windFactor(
  alongKt: number,
  speedKt: number,
  tailFactor: number,
  corrections: HandbookCorrections | undefined,
  put: Put,
): void {
  const { headwindPercentPerKt: head, tailwindPercentPerKt: tail, mostTailwindKt } = corrections ?? {};
  if (alongKt > 0 && head !== undefined) {
    const kt = Math.min(alongKt, corrections?.mostHeadwindKt ?? alongKt);
    // At least a third of the distance in any headwind, since no handbook's line extends forever.
    put("headwind", Math.max(1 / 3, 1 - (head * kt * 0.5) / 100), HALF_WIND);
  }
  if (alongKt >= 0) return;
  if (mostTailwindKt !== undefined && -alongKt > mostTailwindKt + 1e-9)
    throw new OutsideChartError(
      `${formatNumber(-alongKt, 1)} kt tailwind is off the chart: the handbook's correction ends at ${formatNumber(mostTailwindKt)} kt.`,
    );
  if (tail !== undefined) put("tailwind", 1 + (tail * -alongKt * 1.5) / 100, HALF_WIND);
  else put("tailwind", tailFactor ** (-alongKt / (speedKt * 0.1)), LEAFLET);
}

/**
 * Accelerate-stop distance, m: the chart's figure with the corrections of both halves. Wind as for take-off; slope counts in either
 * direction, because it lengthens either the acceleration or the stop; the worse surface factor of take-off and landing.
 * Valid range and errors: as `distanceNeeded`. Source: the handbook's chart; UK CAA Safety Sense Leaflet (from memory).
 */
export function accelerateStopNeeded(
  chartM: number,
  profile: PerformanceProfile,
  { alongKt, grass, state, slopePercent }: DistanceConditions,
): { neededM: number; factors: Factor[] } {
  const factors: Factor[] = [];
  const put: Put = (what, by, source) => {
    if (Math.abs(by - 1) > 1e-9) factors.push({ what, by, source });
  };
  const { corrections } = profile;
  const contained = new Set(corrections?.contained ?? []);
  if (!contained.has("wind"))
    windFactor(alongKt, profile.liftOffKt, PUBLISHED.takeOff.tail, corrections, put);
  const surfaces = (["takeOff", "landing"] as const).map((way) => {
    const own: Factor[] = [];
    surfaceFactor(
      way,
      { grass, state },
      { roll: 1, over50: 1 },
      undefined,
      (what, by, source) => own.push({ what, by, source }),
      { grassContained: contained.has("grass") },
    );
    return own;
  });
  const product = (all: readonly Factor[]) => all.reduce((sum, { by }) => sum * by, 1);
  const [off = [], on = []] = surfaces;
  for (const { what, by, source } of product(on) > product(off) ? on : off) put(what, by, source);
  if (!contained.has("slope") && slopePercent !== 0)
    put(
      slopePercent > 0 ? "uphill" : "downhill",
      PUBLISHED.takeOff.slope ** (Math.abs(slopePercent) / 2),
      LEAFLET,
    );
  return { neededM: chartM * product(factors), factors };
}
