import { QuantityError } from "../../units/convert";
import { normalNumbers, seededRandom } from "../../units/seeded-random";
import type { Uncertain } from "../../units/uncertain";
import { assertPlan, type FuelPlan } from "./fuel-margin";

export type { FuelPlan } from "./fuel-margin";

export interface SimulatedMargin {
  samples: number;
  /** Litres beyond flight and reserve: mean and 5th percentile. */
  meanL: number;
  worstL: number;
  /** Share of cases that use reserve fuel, 0 to 1. */
  short: number;
  /** Share of cases in which the engine stops before landing, 0 to 1. */
  dry: number;
  /** Counts in equal steps from the first edge to the last, for plotting. */
  histogram: { fromL: number; toL: number; counts: number[] };
}

const BINS = 24;

/**
 * Simulates the plan with its uncertainties: tank contents, consumption, taxi, climb, flight time. Unlike the closed form it
 * excludes impossible values: negative contents, or less than a third of the book consumption.
 * Valid range: 100 to 1,000,000 samples; throws QuantityError otherwise and for an impossible plan. Same seed, same result.
 * Source: Metropolis & Ulam, J. Amer. Stat. Assoc. 44 (1949); checked against the closed form of `fuelMargin`.
 */
export function simulateMargin(plan: FuelPlan, samples: number, seed: number): SimulatedMargin {
  assertPlan(plan);
  if (!Number.isInteger(samples) || samples < 100 || samples > 1_000_000)
    throw new QuantityError("A simulation takes from 100 to 1,000,000 samples.");
  const normal = normalNumbers(seededRandom(seed));
  const draw = ({ value, sigma }: Uncertain, least = 0) => Math.max(least, value + sigma * normal());
  const margins = new Float64Array(samples);
  let sum = 0;
  let short = 0;
  let dry = 0;
  for (let i = 0; i < samples; i++) {
    const burn = draw(plan.burn, plan.burn.value / 3) / 60;
    const left = draw(plan.usable) - draw(plan.taxi) - draw(plan.climb);
    const flight = draw(plan.flight);
    const margin = left - burn * (flight + plan.reserveMin);
    margins[i] = margin;
    sum += margin;
    if (margin < 0) short++;
    if (left - burn * flight < 0) dry++;
  }
  margins.sort();
  const fromL = margins[0] ?? 0;
  const toL = margins[samples - 1] ?? 0;
  const counts = new Array<number>(BINS).fill(0);
  const width = (toL - fromL) / BINS || 1;
  for (const margin of margins) {
    const bin = Math.min(BINS - 1, Math.floor((margin - fromL) / width));
    counts[bin] = (counts[bin] ?? 0) + 1;
  }
  return {
    samples,
    meanL: sum / samples,
    worstL: margins[Math.floor(0.05 * samples)] ?? 0,
    short: short / samples,
    dry: dry / samples,
    histogram: { fromL, toL, counts },
  };
}
