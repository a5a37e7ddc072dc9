import type { OrderProblem, OrderResult } from "@cravix/core";
import { askWorker } from "./ask-worker";

let worker: Worker | undefined;

/** Finds the shortest walkaround order in a worker. Rejects with the reason if rules contradict each other. */
export function searchLap({ distances, door, precedence, start }: OrderProblem): Promise<OrderResult> {
  worker ??= new Worker(new URL("./route.worker.ts", window.location.href));
  return askWorker(worker, { problem: { distances, door, precedence, start } }, "lap search");
}
