import type { OrderProblem, OrderResult } from "@cravix/core";
import { askWorker } from "./ask-worker";

let worker: Worker | undefined;

/** The shortest order of a lap, found in a worker. Rejects with the rules' own words where they contradict each other. */
export function searchLap({ distances, door, precedence, start }: OrderProblem): Promise<OrderResult> {
  worker ??= new Worker(new URL("./route.worker.ts", window.location.href));
  return askWorker(worker, { problem: { distances, door, precedence, start } }, "lap search");
}
