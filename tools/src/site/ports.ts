import { randomInt } from "node:crypto";
import { createServer } from "node:net";

/** Below what systems hand out to connections that go out: a port from there may be taken by any request between asking for it and listening on it. */
const LOWEST = 15_000;
const HIGHEST = 32_000;
const TRIES = 60;

/** A port that is free on loopback now, by chance: two that ask at one moment get different ones. */
export async function freePort(): Promise<number> {
  for (let i = 0; i < TRIES; i++) {
    const port = randomInt(LOWEST, HIGHEST);
    if ((await portTrouble(port, "127.0.0.1")) === undefined) return port;
  }
  throw new Error("there is no free port on this machine");
}

/** Whether a port can be listened on now; the error's code where it cannot. */
export function portTrouble(port: number, host: string): Promise<string | undefined> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once("error", (error: NodeJS.ErrnoException) => resolve(error.code ?? error.message));
    probe.listen(port, host, () => probe.close(() => resolve(undefined)));
  });
}
