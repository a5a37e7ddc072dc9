import { createHash } from "node:crypto";
import { and, eq, sql } from "drizzle-orm";
import { Hono } from "hono";
import { callerOf, forbidden } from "../access/identity";
import { problem } from "../access/problem";
import type { Database } from "../db/database";
import { toDb } from "../db/moment";
import { whileBusy } from "../db/retried";
import { event } from "../db/schema/checklist";
import { photograph } from "../db/schema/photograph";
import { Turns } from "../fairness/turns";
import { atMost } from "../middleware/body";
import { valid } from "../middleware/valid";
import { ofPhotograph } from "./addresses";

/** A photo never changes under its hash, so it can be cached forever. */
const FOR_GOOD = "private, max-age=31536000, immutable";

/** Photos of discrepancies: uploaded by the device that took them, downloaded by others. */
export function photographRoutes({ db }: Database, clock: () => Date) {
  // Decoding a large photo takes a processor for seconds: one at a time.
  const turns = new Turns(1);
  return new Hono()
    .put("/photographs/:hash", atMost("picture"), valid("param", ofPhotograph), async (c) => {
      const { hash } = c.req.valid("param");
      const { groupId, crewId } = callerOf(c);
      const not = await forbidden(c, db, "preflight.record");
      if (not) return not;
      const sent = new Uint8Array(await c.req.arrayBuffer());
      if (`sha256:${createHash("sha256").update(sent).digest("hex")}` !== hash)
        return problem(c, 422, "The photo does not match the content hash in its address.");
      // Only photos named by a recorded discrepancy are accepted.
      const [named] = await db
        .select({ id: event.id })
        .from(event)
        .where(
          and(
            eq(event.groupId, groupId),
            eq(event.type, "discrepancy.photographed"),
            eq(sql`json_value(${event.data}, '$.photograph')`, hash),
          ),
        )
        .limit(1);
      if (!named)
        return problem(c, 409, "No recorded discrepancy refers to this photo. Send the discrepancy first.");
      const { cleanPicture } = await import("../photographs/clean-picture");
      const clean = await turns.run(1, () => cleanPicture(sent));
      if (!clean)
        return problem(c, 422, "The file is not a complete JPEG, PNG or WebP photo of a usual camera size.");
      await whileBusy(() =>
        db
          .insert(photograph)
          .ignore()
          .values({ groupId, hash, at: toDb(clock().toISOString()), crewId: crewId ?? null, ...clean }),
      );
      return c.body(null, 204);
    })
    .get("/photographs/:hash", valid("param", ofPhotograph), async (c) => {
      const [row] = await db
        .select({ data: photograph.data })
        .from(photograph)
        .where(
          and(eq(photograph.groupId, callerOf(c).groupId), eq(photograph.hash, c.req.valid("param").hash)),
        );
      if (!row) return problem(c, 404, "This photo has not been received yet.");
      return c.body(new Uint8Array(row.data), 200, {
        "content-type": "image/webp",
        "content-disposition": "inline",
        "cache-control": FOR_GOOD,
      });
    });
}
