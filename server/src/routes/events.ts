import { MAX_BATCH } from "@cravix/contract";
import { Hono } from "hono";
import { mixed, object } from "yup";
import { callerOf } from "../access/identity";
import { problem } from "../access/problem";
import type { Database } from "../db/database";
import { acceptEvents } from "../events/accept-events";
import { inTurn, Turns } from "../fairness/turns";
import { atMost, limitJsonDepth } from "../middleware/body";
import { valid } from "../middleware/valid";

/** Events are validated one by one: an invalid one is rejected by id and does not affect others. */
const events = mixed((value): value is unknown[] => Array.isArray(value))
  .typeError("a list of events")
  .required("a list of events");
/** Batches written at once: fewer than half of the database connections. */
const WRITERS = 3;

const batch = object({ events }).strict();

export function eventRoutes({ db }: Database, clock: () => Date, onError: (error: unknown) => void) {
  return new Hono().post(
    "/events",
    atMost("batch"),
    inTurn(new Turns(WRITERS)),
    limitJsonDepth,
    valid("json", batch, "The request body has no list of events."),
    async (c) => {
      const sent = c.req.valid("json").events;
      if (sent.length > MAX_BATCH)
        return problem(c, 413, `A batch can have at most ${MAX_BATCH} events; this one has ${sent.length}.`);
      const { groupId } = callerOf(c);
      return c.json(await acceptEvents(db, sent, { now: clock(), groupId, onError }));
    },
  );
}
