import { Hono } from "hono";
import { compress } from "hono/compress";
import { HTTPException } from "hono/http-exception";
import { secureHeaders } from "hono/secure-headers";
import type { Logger } from "pino";
import type { Database } from "./db/database";
import { problem } from "./problem";
import { eventRoutes } from "./routes/events";
import { fleetRoutes } from "./routes/fleet";
import { fluidRoutes } from "./routes/fluids";
import { healthRoutes } from "./routes/health";
import { monitorRoutes } from "./routes/monitor";
import { preflightRoutes } from "./routes/preflights";
import { pumpRoutes } from "./routes/pump";
import { webRoutes } from "./routes/web";

export interface AppOptions {
  database: Database;
  logger: Logger;
  clock?: () => Date;
  /** Folder of the built interface; without it only the API is served. */
  webRoot?: string;
}

export function createApp({ database, logger, clock = () => new Date(), webRoot }: AppOptions) {
  const app = new Hono();
  app.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        // The interface's style sheet is written by its own script.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", "data:"],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        objectSrc: ["'none'"],
        frameAncestors: ["'none'"],
      },
    }),
  );
  app.use(compress());
  app.use("/api/*", async (c, next) => {
    const from = performance.now();
    await next();
    c.header("cache-control", "no-store");
    logger.debug({
      method: c.req.method,
      path: c.req.path,
      status: c.res.status,
      ms: Math.round(performance.now() - from),
    });
  });
  app.route("/api", healthRoutes(database));
  for (const routes of [
    eventRoutes(database, clock),
    fleetRoutes(database),
    fluidRoutes(database, clock),
    preflightRoutes(database),
    pumpRoutes(database, clock),
    monitorRoutes(database, clock),
  ])
    app.route("/api/v1", routes);
  app.all("/api/*", (c) => problem(c, 404, `There is nothing at ${c.req.path}.`));
  if (webRoot) app.route("/", webRoutes(webRoot));
  app.notFound((c) => problem(c, 404, `There is nothing at ${c.req.path}.`));
  app.onError((error, c) => {
    if (error instanceof HTTPException) return problem(c, error.status as 400, error.message);
    logger.error({ err: error, path: c.req.path });
    return isDatabaseGone(error)
      ? problem(c, 503, "The database does not answer. Nothing was taken; send it again later.")
      : problem(c, 500, "Something went wrong here. Nothing was taken; send it again later.");
  });
  return app;
}

const GONE = [
  "ECONNREFUSED",
  "ECONNRESET",
  "PROTOCOL_CONNECTION_LOST",
  "ETIMEDOUT",
  "ER_SERVER_SHUTDOWN",
  "EPIPE",
  "ENOENT",
];

function isDatabaseGone(error: unknown): boolean {
  for (let e = error as { code?: string; cause?: unknown } | undefined; e; e = e.cause as typeof e)
    if (e.code && GONE.includes(e.code)) return true;
  return false;
}
