import { runInWorker } from "./ask-worker";
import type { PlannedAircraft, VisitsRequest } from "./visits.worker";

let worker: Worker | undefined;

/** Plans the fewest workshop visits for each aircraft in a worker. */
export function planInWorker(asked: VisitsRequest): Promise<PlannedAircraft[]> {
  worker ??= new Worker(new URL("./visits.worker.ts", window.location.href));
  return runInWorker(worker, asked, "visit plan");
}
