import type { FuelPlan, OilEntry, OilTrend } from "@cravix/core";
import type { SimulatedMargin } from "@cravix/core/simulate-margin";
import { askWorker } from "./ask-worker";

let worker: Worker | undefined;

function fluidsWorker(): Worker {
  worker ??= new Worker(new URL("./fluids.worker.ts", window.location.href));
  return worker;
}

/** The plan flown so many times in a worker; the same seed gives the same figures. */
export function simulateFlights(plan: FuelPlan, samples = 10_000, seed = 1): Promise<SimulatedMargin> {
  return askWorker(fluidsWorker(), { kind: "flights", plan, samples, seed }, "fuel simulation");
}

/** An engine's oil log as a trend, worked out in a worker: ten years of it must not hold up a finger. */
export function trendOfOil(entries: readonly OilEntry[]): Promise<OilTrend> {
  return askWorker(fluidsWorker(), { kind: "oil", entries }, "oil trend");
}
