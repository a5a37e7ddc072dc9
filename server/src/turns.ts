import { HTTPException } from "hono/http-exception";
import PQueue from "p-queue";

/** Jobs that may wait; more are told to come back. */
const WAITING = 2000;
/** Batches up to this size go before larger ones. */
const SMALL = 40;

/**
 * Turns for writing: at most so many at once, so that database connections and time remain for those who only read. Small batches
 * go first: a pilot's answer does not wait for somebody's import.
 */
export class Turns {
  readonly #queue: PQueue;

  constructor(atOnce: number) {
    this.#queue = new PQueue({ concurrency: atOnce });
  }

  /** Runs a job in its turn; `size` is its number of events. Throws HTTPException 503 if too many are waiting. */
  run<T>(size: number, job: () => Promise<T>): Promise<T> {
    if (this.#queue.size >= WAITING)
      throw new HTTPException(503, {
        message: "The server is busy. Try again later; sending twice does no harm.",
      });
    // Without an abort signal or a timeout the result is always that of the job.
    return this.#queue.add(job, { priority: size <= SMALL ? 1 : 0 }) as Promise<T>;
  }
}
