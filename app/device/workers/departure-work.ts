import type { DepartureInput } from "@cravix/core/departure/calculate-departure";
import type { DistanceRisk } from "@cravix/core/departure/departure-risk";
import { runInWorker } from "./ask-worker";

let worker: Worker | undefined;

/** Simulates the worst reasonable take-off in a worker; undefined if its distance cannot be calculated. */
export function distanceRiskOf(input: DepartureInput, samples = 10_000): Promise<DistanceRisk | undefined> {
  worker ??= new Worker(new URL("./departure.worker.ts", window.location.href));
  return runInWorker(worker, { input, samples }, "departure risk");
}
