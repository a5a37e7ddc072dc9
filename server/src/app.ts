import { Hono } from "hono";
import { compress } from "hono/compress";
import { HTTPException } from "hono/http-exception";
import { secureHeaders } from "hono/secure-headers";
import { timeout } from "hono/timeout";
import type { Logger } from "pino";
import { errorFields } from "./access/error-fields";
import { problem } from "./access/problem";
import type { Database } from "./db/database";
import { codeOf, isBusy, isGone } from "./db/database-error";
import { atMost } from "./middleware/body";
import { sameOriginOnly } from "./middleware/same-origin-only";
import { eventRoutes } from "./routes/events";
import { fleetRoutes } from "./routes/fleet";
import { flightRoutes } from "./routes/flights";
import { fluidRoutes } from "./routes/fluids";
import { healthRoutes } from "./routes/health";
import { monitorRoutes } from "./routes/monitor";
import { peopleRoutes } from "./routes/people";
import { photographRoutes } from "./routes/photographs";
import { preflightRoutes } from "./routes/preflights";
import { pumpRoutes } from "./routes/pump";
import { releaseRoutes } from "./routes/releases";
import { weatherRoutes } from "./routes/weather";
import { webRoutes } from "./routes/web";
import { workshopRoutes } from "./routes/workshop";

export interface AppOptions {
  database: Database;
  logger: Logger;
  clock?: () => Date;
  /** Host names accepted besides localhost and IP addresses. */
  hosts?: readonly string[];
  /** Folder of the built interface; absent: API only. */
  webRoot?: string;
}

/** All API routes in one type, used by the interface's client. */
function apiRoutes(database: Database, clock: () => Date, onError: (error: unknown) => void) {
  return new Hono()
    .route("/", eventRoutes(database, clock, onError))
    .route("/", fleetRoutes(database, clock))
    .route("/", fluidRoutes(database, clock))
    .route("/", flightRoutes(database, clock, onError))
    .route("/", releaseRoutes(database))
    .route("/", preflightRoutes(database))
    .route("/", peopleRoutes(database, clock))
    .route("/", photographRoutes(database, clock))
    .route("/", workshopRoutes(database, clock))
    .route("/", pumpRoutes(database, clock))
    .route("/", weatherRoutes(database, clock))
    .route("/", monitorRoutes(database, clock));
}

export type Api = ReturnType<typeof apiRoutes>;

/** Maximum response time, ms, even if the database hangs. */
const MAX_MS = 25_000;

export function createApp({ database, logger, clock = () => new Date(), hosts = [], webRoot }: AppOptions) {
  const app = new Hono();
  app.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        // The interface adds styles by script.
        styleSrc: ["'self'", "'unsafe-inline'"],
        // Photos on this device not sent yet.
        imgSrc: ["'self'", "data:", "blob:"],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    }),
  );
  app.use(sameOriginOnly(hosts));
  app.use(compress());
  app.use("/api/*", async (c, next) => {
    const from = performance.now();
    await next();
    // A HEAD request is answered like a GET, but nobody reads the body: a stream would wait for ever.
    if (c.req.raw.method === "HEAD") await c.res.body?.cancel();
    if (!c.res.headers.has("cache-control")) c.header("cache-control", "no-store");
    logger.debug({
      method: c.req.method,
      path: c.req.path,
      status: c.res.status,
      ms: Math.round(performance.now() - from),
    });
  });
  app.use("/api/*", atMost("file"));
  app.use(
    "/api/*",
    timeout(MAX_MS, () => new HTTPException(503, { message: "The request took too long. Try again later." })),
  );
  app.route("/api", healthRoutes(database));
  app.route(
    "/api/v1",
    apiRoutes(database, clock, (error) =>
      logger.error({ error: errorFields(error) }, "an event could not be recorded"),
    ),
  );
  app.all("/api/*", (c) => problem(c, 404, "Nothing found at this address."));
  if (webRoot) app.route("/", webRoutes(webRoot));
  app.notFound((c) => problem(c, 404, "Nothing found at this address."));
  app.onError((error, c) => {
    if (error instanceof HTTPException) return problem(c, error.status, error.message);
    const passes = isGone(error) || isQueueFull(error) || isBusy(error);
    // While the database is down every client is told; log briefly.
    if (passes) logger.warn({ path: c.req.path, code: codeOf(error) });
    else logger.error({ error: errorFields(error), path: c.req.path });
    if (isGone(error) || isQueueFull(error))
      return problem(c, 503, "The database is not responding. Try again later; sending twice does no harm.");
    if (isBusy(error))
      return problem(
        c,
        503,
        "Too many changes to the same record at once. Try again; sending twice does no harm.",
      );
    return problem(c, 500, "The server failed. Try again later; sending twice does no harm.");
  });
  return app;
}

const isQueueFull = (error: unknown) =>
  String((error as Error).message).includes("Queue limit") ||
  String((error as { cause?: Error }).cause?.message).includes("Queue limit");
