import { MAX_BATCH } from "@cravix/contract";
import { Hono } from "hono";
import { bodyLimit } from "hono/body-limit";
import type { Database } from "../db/database";
import { acceptEvents } from "../events/accept-events";
import { problem } from "../problem";

const MAX_BYTES = 4 * 1024 * 1024;

export function eventRoutes({ db }: Database, clock: () => Date) {
  return new Hono().post(
    "/events",
    bodyLimit({ maxSize: MAX_BYTES, onError: (c) => problem(c, 413, "A batch may have at most 4 MiB.") }),
    async (c) => {
      let body: unknown;
      try {
        body = await c.req.json();
      } catch {
        return problem(c, 400, 'The body must be JSON: {"events": [...]}.');
      }
      const events = (body as { events?: unknown } | null)?.events;
      if (!Array.isArray(events))
        return problem(c, 422, "There is no list of events in the body.", [
          { path: "events", expected: "a list of events" },
        ]);
      if (events.length > MAX_BATCH)
        return problem(
          c,
          413,
          `A batch may have at most ${MAX_BATCH} events; this one has ${events.length}.`,
        );
      return c.json(await acceptEvents(db, events, clock()));
    },
  );
}
