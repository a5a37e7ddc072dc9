import { createServer } from "node:net";

/** A port that is free on loopback now. */
export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once("error", reject);
    probe.listen(0, "127.0.0.1", () => {
      const address = probe.address();
      probe.close(() =>
        address && typeof address === "object" ? resolve(address.port) : reject(new Error("no port")),
      );
    });
  });
}

/** Whether a port can be listened on now; the error's code where it cannot. */
export function portTrouble(port: number, host: string): Promise<string | undefined> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once("error", (error: NodeJS.ErrnoException) => resolve(error.code ?? error.message));
    probe.listen(port, host, () => probe.close(() => resolve(undefined)));
  });
}
