import { randomInt } from "node:crypto";
import { createServer } from "node:net";

/** Below the range for outgoing connections: a port from there could be taken at any moment. */
const LOWEST = 15_000;
const HIGHEST = 32_000;
const TRIES = 60;

/** A random free port on loopback, so that two callers get different ones. */
export async function freePort(): Promise<number> {
  for (let i = 0; i < TRIES; i++) {
    const port = randomInt(LOWEST, HIGHEST);
    if ((await portError(port, "127.0.0.1")) === undefined) return port;
  }
  throw new Error("there is no free port on this machine");
}

/** Error code if a port cannot be used; undefined if it is free. */
export function portError(port: number, host: string): Promise<string | undefined> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once("error", (error: NodeJS.ErrnoException) => resolve(error.code ?? error.message));
    probe.listen(port, host, () => probe.close(() => resolve(undefined)));
  });
}
