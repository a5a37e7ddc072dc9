import { fileURLToPath } from "node:url";
import { HTTPException } from "hono/http-exception";
import { Piscina } from "piscina";
import type { Job, Results } from "./jobs";

/** Maximum time for a job, ms. */
const MAX_MS = 20_000;
const MEMORY_MB = 512;
/** Jobs that may wait for a worker of each kind. */
const WAITING = 24;

/** Reading what was sent and making papers do not wait for each other. */
type Purpose = "reading" | "papers";
const pools = new Map<Purpose, Piscina>();

const purposeOf = ({ kind }: Job): Purpose =>
  kind === "list pdf" || kind === "flights pdf" || kind === "release pdf" || kind === "plan rows"
    ? "papers"
    : "reading";

function workersFor(purpose: Purpose): Piscina {
  const known = pools.get(purpose);
  if (known) return known;
  const pool = new Piscina({
    name: "work",
    // Beside this file, in the sources and when packed.
    filename: fileURLToPath(new URL("./worker.mjs", import.meta.url)),
    minThreads: 1,
    useAtomics: false,
    maxThreads: 2,
    maxQueue: WAITING,
    idleTimeout: 120_000,
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
  });
  // A worker that dies between jobs is replaced; without a listener the error would end the process.
  pool.on("error", () => undefined);
  pools.set(purpose, pool);
  return pool;
}

const busy = () =>
  new HTTPException(503, { message: "The server is busy with other files. Try again in a minute." });

/**
 * Runs a job in a worker, so that only it fails if it exhausts time or memory. Throws HTTPException: 422 if it takes too long,
 * 503 if too many are waiting.
 */
export async function runInWorker<J extends Job>(job: J): Promise<Results[J["kind"]]> {
  const pool = workersFor(purposeOf(job));
  if (pool.queueSize >= WAITING) throw busy();
  // Stopped by a timer that ends with the job: an abort that comes later would have nobody to catch it.
  const stop = new AbortController();
  const timer = setTimeout(() => stop.abort(), MAX_MS);
  try {
    return await pool.run(job, { signal: stop.signal });
  } catch (error) {
    const {
      name = "",
      message = "",
      code = "",
    } = error as { name?: string; message?: string; code?: string };
    if (/abort/i.test(name + message) || code === "ERR_WORKER_OUT_OF_MEMORY")
      throw new HTTPException(422, {
        message: "This file takes too long to read. Check it, or split it into smaller files.",
      });
    if (/queue/i.test(message)) throw busy();
    throw error;
  } finally {
    clearTimeout(timer);
  }
}

/** Ends the workers; the next job starts new ones. */
export async function endHeavyWork(): Promise<void> {
  const running = [...pools.values()];
  pools.clear();
  await Promise.all(running.map((pool) => pool.destroy()));
}
