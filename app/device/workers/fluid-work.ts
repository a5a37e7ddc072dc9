import type { FuelPlan } from "@cravix/core/fuel/margin/fuel-margin";
import type { SimulatedMargin } from "@cravix/core/fuel/margin/simulate-margin";
import type { OilEntry, OilTrend } from "@cravix/core/oil/oil-consumption";
import { runInWorker } from "./ask-worker";

let worker: Worker | undefined;

function fluidsWorker(): Worker {
  worker ??= new Worker(new URL("./fluids.worker.ts", window.location.href));
  return worker;
}

/** Simulates the fuel plan in a worker; the same seed gives the same result. */
export function simulateFlights(plan: FuelPlan, samples = 10_000, seed = 1): Promise<SimulatedMargin> {
  return runInWorker(fluidsWorker(), { kind: "flights", plan, samples, seed }, "fuel simulation");
}

/** Calculates an engine's oil trend in a worker, so that ten years of log do not block the interface. */
export function trendOfOil(entries: readonly OilEntry[]): Promise<OilTrend> {
  return runInWorker(fluidsWorker(), { kind: "oil", entries }, "oil trend");
}
