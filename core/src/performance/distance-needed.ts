import type { Source } from "../judgement/judgement";
import { assertFinite, assertNotNegative, QuantityError } from "../units/convert";
import type { HandbookCorrections, PerformanceProfile } from "./performance-profile";
import { type ChartPoint, readChart } from "./read-chart";

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
  const { kg, celsius, elevationFt, alongKt, grass, state, slopePercent } = conditions;
  assertNotNegative("The mass", kg);
  assertFinite("The wind", alongKt);
  assertFinite("The slope", slopePercent);
  if (Math.abs(slopePercent) > 15) throw new QuantityError("Enter the slope in percent, from −15 to 15.");
  const data = profile[way];
  const published = PUBLISHED[way];
  const factors: Factor[] = [];
  const put = (what: string, by: number, source: Source) => {
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
  const speed = way === "takeOff" ? profile.liftOffKt : profile.approachKt;
  windFactor(alongKt, speed, published.tail, corrections, put);
  const own = corrections?.grassPercentOfRoll;
  if (grass && own !== undefined)
    put("grass", (over50 + (roll * own) / 100) / over50, (corrections as HandbookCorrections).source);
  if (state === "soft")
    put("soft surface", published.soft * (grass && own === undefined ? published.grass : 1), LEAFLET);
  else if (grass && state === "wet")
    put(
      own === undefined ? "wet grass" : "wet",
      own === undefined ? published.wetGrass : published.wetGrass / published.grass,
      LEAFLET,
    );
  else if (grass && own === undefined) put("dry grass", published.grass, LEAFLET);
  else if (!grass && state === "wet") put("wet", published.wetPaved, LEAFLET);
  // Uphill lengthens take-off, downhill landing; the opposite benefit is not counted.
  const against = way === "takeOff" ? slopePercent : -slopePercent;
  if (against > 0) put(way === "takeOff" ? "uphill" : "downhill", published.slope ** (against / 2), LEAFLET);
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

function windFactor(
  alongKt: number,
  speedKt: number,
  tailFactor: number,
  corrections: HandbookCorrections | undefined,
  put: (what: string, by: number, source: Source) => void,
): void {
  const head = corrections?.headwindPercentPerKt;
  const tail = corrections?.tailwindPercentPerKt;
  if (alongKt > 0 && head !== undefined)
    // At least a third of the distance in any headwind, since no handbook's line extends forever.
    put("headwind", Math.max(1 / 3, 1 - (head * alongKt * 0.5) / 100), HALF_WIND);
  if (alongKt < 0 && tail !== undefined) put("tailwind", 1 + (tail * -alongKt * 1.5) / 100, HALF_WIND);
  else if (alongKt < 0) put("tailwind", tailFactor ** (-alongKt / (speedKt * 0.1)), LEAFLET);
}
