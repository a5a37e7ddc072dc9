import { fileURLToPath } from "node:url";
import { HTTPException } from "hono/http-exception";
import { Piscina } from "piscina";
import type { Job, Results } from "./jobs";

/** Maximum time for a job, ms. */
const MAX_MS = 20_000;
const MEMORY_MB = 512;
const WAITING = 24;

let pool: Piscina | undefined;

function workers(): Piscina {
  pool ??= new Piscina({
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
  return pool;
}

/**
 * Runs a job in a worker, so that only it fails if it exhausts time or memory. Throws HTTPException: 422 if it takes too long,
 * 503 if too many are waiting.
 */
export async function runInWorker<J extends Job>(job: J): Promise<Results[J["kind"]]> {
  try {
    return await workers().run(job, { signal: AbortSignal.timeout(MAX_MS) });
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
    if (/queue/i.test(message))
      throw new HTTPException(503, {
        message: "The server is busy reading other files. Try again in a minute.",
      });
    throw error;
  }
}

/** Ends the workers; the next job starts new ones. */
export async function endHeavyWork(): Promise<void> {
  const running = pool;
  pool = undefined;
  await running?.destroy();
}
