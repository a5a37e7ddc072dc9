type Answer<R> = { id: number; result: R } | { id: number; error: string };

let asked = 0;

/**
 * Sends one question to a worker and resolves with its answer; rejects with its error, or if it cannot run. The duration is
 * recorded as performance measure `measure`.
 */
export function runInWorker<R>(worker: Worker, question: object, measure: string): Promise<R> {
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
