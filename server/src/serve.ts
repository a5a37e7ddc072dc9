import type { Server } from "node:http";
import { serve } from "@hono/node-server";
import { type AppOptions, createApp } from "./app";

/** Listens on a port; rejects if the port is not available. */
export function listen(
  options: AppOptions,
  port: number,
  hostname: string,
): Promise<{ port: number; close(): Promise<void> }> {
  return new Promise((resolve, reject) => {
    const server = serve({ fetch: createApp(options).fetch, port, hostname }, (info) =>
      resolve({
        port: info.port,
        close: () =>
          new Promise((done) => {
            server.close(() => done());
            (server as Server).closeAllConnections();
          }),
      }),
    );
    server.once("error", reject);
  });
}
