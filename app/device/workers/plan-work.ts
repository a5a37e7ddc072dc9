import { askWorker } from "./ask-worker";
import type { PlannedAircraft, VisitsAsked } from "./visits.worker";

let worker: Worker | undefined;

/** The fewest visits to the workshop for each aircraft, planned in a worker. */
export function planInWorker(asked: VisitsAsked): Promise<PlannedAircraft[]> {
  worker ??= new Worker(new URL("./visits.worker.ts", window.location.href));
  return askWorker(worker, asked, "visit plan");
}
