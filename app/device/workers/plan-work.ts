import { askWorker } from "./ask-worker";
import type { PlannedAircraft, VisitsAsked } from "./visits.worker";

let worker: Worker | undefined;

/** Plans the fewest workshop visits for each aircraft in a worker. */
export function planInWorker(asked: VisitsAsked): Promise<PlannedAircraft[]> {
  worker ??= new Worker(new URL("./visits.worker.ts", window.location.href));
  return askWorker(worker, asked, "visit plan");
}
