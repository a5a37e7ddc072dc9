import { distanceNeeded } from "../performance/distance-needed";
import type { DistanceChart, SingleDistance } from "../performance/performance-profile";
import { QuantityError } from "../units/convert";
import { normalNumbers, seededRandom } from "../units/seeded-random";
import { calculateDeparture, type DepartureInput, isGrass } from "./calculate-departure";

/** Standard deviations of actual conditions from the calculated ones. Common practice. */
const USUAL = {
  /** Minimum for the wind along the runway; gusts add a third of their excess. */
  windKt: 2,
  celsius: 1.5,
  /** Scales, clothes, bags, fuel dip. */
  massPart: 0.012,
  /** Technique, tyres, worn propeller: more often longer than the handbook than shorter. */
  chartPart: 0.05,
  chartShift: 1.03,
} as const;

export interface DistanceRisk {
  /** 95th percentile of the distance, m, before the safety factor. */
  likelyMostM: number;
  /** Percentage of cases in which the runway itself is too short, without any safety factor. */
  tooShortPercent: number;
  runs: number;
}

/**
 * Simulates the worst reasonable case: wind, temperature, mass and chart accuracy varied together. Undefined if the distance
 * cannot be calculated. Values off the chart are clamped to its end, since mass limits are judged elsewhere. Complexity: O(runs).
 * Seeded, so repeatable. Source: Monte Carlo; spreads are common practice.
 */
export function distanceRisk(
  input: DepartureInput,
  way: "takeOff" | "landing",
  runs = 10_000,
  seed = 17,
): DistanceRisk | undefined {
  const { type, runway, airfield, celsius } = input;
  const { performance } = type;
  const base = calculateDeparture(input);
  const first = base[way];
  const kg = way === "takeOff" ? base.takeoffKg : base.landingKg;
  if (!performance || !first || kg === undefined || !base.air || celsius === undefined) return undefined;
  const normal = normalNumbers(seededRandom(seed));
  const alongKt = base.wind?.alongKt ?? 0;
  const [mostKg, mostC] = ends(performance[way]);
  const windSpread = USUAL.windKt + Math.max(0, (input.wind?.gustKt ?? 0) - (input.wind?.kt ?? 0)) / 3;
  const over: number[] = [];
  let short = 0;
  for (let i = 0; i < runs; i++) {
    const [wind, warm, heavy, chart] = [normal(), normal(), normal(), normal()];
    try {
      const { over50M } = distanceNeeded(performance, way, {
        kg: Math.min(mostKg, kg * (1 + USUAL.massPart * heavy)),
        celsius: Math.min(mostC, celsius + USUAL.celsius * warm),
        pressureAltitudeFt: base.air.pressureAltitudeFt,
        elevationFt: airfield.elevationFt,
        alongKt: alongKt + windSpread * wind,
        grass: isGrass(runway),
        state: input.state ?? "dry",
        slopePercent: runway.slopePercent ?? 0,
      });
      const metres = over50M * USUAL.chartShift * (1 + USUAL.chartPart * chart);
      over.push(metres);
      if (metres > first.availableM) short++;
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      over.push(Number.POSITIVE_INFINITY);
      short++;
    }
  }
  over.sort((a, b) => a - b);
  return {
    likelyMostM: over[Math.floor(runs * 0.95)] as number,
    tooShortPercent: (100 * short) / runs,
    runs,
  };
}

/** Chart limits in mass and temperature; infinite for a single distance. */
function ends(data: DistanceChart | SingleDistance): [kg: number, celsius: number] {
  if (data.kind === "single") return [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  const charts = [data.rollM, data.over50M];
  return [
    Math.min(...charts.map(({ kg }) => kg.at(-1) ?? 0)),
    Math.min(...charts.map(({ celsius }) => celsius.at(-1) ?? 0)),
  ];
}
