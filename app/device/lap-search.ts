import type { OrderProblem, OrderResult } from "@cravix/core";

type Answer = { id: number; result: OrderResult } | { id: number; error: string };

let worker: Worker | undefined;
let asked = 0;

/** The shortest order of a lap, found in a worker. Rejects with the rules' own words where they contradict each other. */
export function searchLap(problem: OrderProblem): Promise<OrderResult> {
  worker ??= new Worker(new URL("./lap.worker.ts", window.location.href));
  const { distances, door, precedence, start } = problem;
  const id = ++asked;
  const at = worker;
  const from = performance.now();
  return new Promise((resolve, reject) => {
    const hear = ({ data }: MessageEvent<Answer>) => {
      if (data.id !== id) return;
      done();
      performance.measure("lap search", { start: from, end: performance.now() });
      if ("error" in data) reject(new Error(data.error));
      else resolve(data.result);
    };
    const fail = (event: ErrorEvent) => {
      done();
      reject(new Error(event.message || "The order could not be searched on this device."));
    };
    const done = () => {
      at.removeEventListener("message", hear);
      at.removeEventListener("error", fail);
    };
    at.addEventListener("message", hear);
    at.addEventListener("error", fail);
    at.postMessage({ id, problem: { distances, door, precedence, start } });
  });
}
