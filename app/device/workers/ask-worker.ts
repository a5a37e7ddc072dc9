type Answer<R> = { id: number; result: R } | { id: number; error: string };

let asked = 0;

/**
 * Asks a worker one question and resolves with its answer; rejects with the worker's own words, or where it cannot run at all. How long it took,
 * as seen from here, is left with the browser's own measures under `measure`.
 */
export function askWorker<R>(worker: Worker, question: object, measure: string): Promise<R> {
  const id = ++asked;
  const from = performance.now();
  return new Promise((resolve, reject) => {
    const hear = ({ data }: MessageEvent<Answer<R>>) => {
      if (data.id !== id) return;
      done();
      performance.measure(measure, { start: from, end: performance.now() });
      if ("error" in data) reject(new Error(data.error));
      else resolve(data.result);
    };
    const fail = (event: ErrorEvent) => {
      done();
      reject(new Error(event.message || "This could not be calculated on this device."));
    };
    const done = () => {
      worker.removeEventListener("message", hear);
      worker.removeEventListener("error", fail);
    };
    worker.addEventListener("message", hear);
    worker.addEventListener("error", fail);
    worker.postMessage({ id, ...question });
  });
}
