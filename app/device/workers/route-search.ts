import type { OrderProblem, OrderResult } from "@cravix/core/route/best-order";
import { runInWorker } from "./ask-worker";

let worker: Worker | undefined;

/** Finds the shortest walkaround order in a worker. Rejects with the reason if rules contradict each other. */
export function searchRoute({ distances, door, precedence, start }: OrderProblem): Promise<OrderResult> {
  worker ??= new Worker(new URL("./route.worker.ts", window.location.href));
  return runInWorker(worker, { problem: { distances, door, precedence, start } }, "lap search");
}
