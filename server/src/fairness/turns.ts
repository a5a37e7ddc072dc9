import type { MiddlewareHandler } from "hono";
import { HTTPException } from "hono/http-exception";
import PQueue from "p-queue";

/** Jobs that may wait; more are told to come back. */
const WAITING = 2000;
const KIB = 1024;
/** Sizes in bytes up to which a request goes before larger ones: a few answers, a few stations. */
const SMALL = [8 * KIB, 2 * KIB];

/**
 * Turns for writing: at most so many at once, so that database connections and time remain for those who only read. Small requests
 * go first: a pilot's answer does not wait for somebody's import.
 */
export class Turns {
  readonly #queue: PQueue;

  constructor(atOnce: number) {
    this.#queue = new PQueue({ concurrency: atOnce });
  }

  /** Runs a job in its turn; `bytes` is the size of its request. Throws HTTPException 503 if too many are waiting. */
  run<T>(bytes: number, job: () => Promise<T>): Promise<T> {
    if (this.#queue.size >= WAITING)
      throw new HTTPException(503, {
        message: "The server is busy. Try again later; sending twice does no harm.",
      });
    // Without an abort signal or a timeout the result is always that of the job.
    return this.#queue.add(job, { priority: SMALL.filter((most) => bytes <= most).length }) as Promise<T>;
  }
}

/** Lets a request wait for its turn before its body is read: two hundred bodies parsed at once would hold up everybody. */
export function inTurn(turns: Turns): MiddlewareHandler {
  return (c, next) => turns.run(Number(c.req.header("content-length") ?? Number.POSITIVE_INFINITY), next);
}
