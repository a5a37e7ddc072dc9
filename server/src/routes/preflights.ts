import { isEventId, isName, type Page, type PreflightDetail, type PreflightSummary } from "@cravix/contract";
import { readList } from "@cravix/contract/files";
import { and, eq } from "drizzle-orm";
import { Hono } from "hono";
import { number, object, string } from "yup";
import { callerOf, forbidden } from "../access/identity";
import { problem } from "../access/problem";
import type { Database } from "../db/database";
import { event, list, preflight } from "../db/schema/checklist";
import { saveList } from "../events/put-list";
import { readPreflights, toSummary } from "../fleet/read-fleet";
import { atMost } from "../middleware/body";
import { valid } from "../middleware/valid";
import { readEvents } from "../record/read-events";
import { runInWorker } from "../worker-pool/run-in-worker";
import { ofList, ofPreflight } from "./addresses";

const page = object({
  registration: string()
    .max(20)
    .test("name", "a registration", (value) => value === undefined || isName(value)),
  before: string().test(
    "id",
    'the "next" value of the previous page',
    (value) => value === undefined || isEventId(value),
  ),
  limit: number().integer().min(1).max(100).default(20),
});

export function preflightRoutes({ db }: Database) {
  return new Hono()
    .get("/preflights", valid("query", page), async (c) => {
      const { registration, before, limit } = c.req.valid("query");
      // One more than requested shows whether there is a next page.
      const found = await readPreflights(db, {
        groupId: callerOf(c).groupId,
        limit: limit + 1,
        ...(registration && { registration }),
        ...(before && { before }),
      });
      const items = found.slice(0, limit);
      const last = items.at(-1);
      const result: Page<PreflightSummary> = {
        items,
        ...(found.length > limit && last && { next: last.id }),
      };
      return c.json(result);
    })
    .get("/preflights/:id", valid("param", ofPreflight), async (c) => {
      const [row] = await db
        .select()
        .from(preflight)
        .where(and(eq(preflight.groupId, callerOf(c).groupId), eq(preflight.id, c.req.valid("param").id)));
      if (!row) return problem(c, 404, "Preflight not found.");
      const detail: PreflightDetail = {
        summary: toSummary(row),
        listHash: row.listHash,
        events: await readEvents(db, eq(event.streamId, row.id)),
      };
      return c.json(detail);
    })
    .get("/lists/:hash", valid("param", ofList), async (c) => {
      const [row] = await db
        .select()
        .from(list)
        .where(and(eq(list.groupId, callerOf(c).groupId), eq(list.hash, c.req.valid("param").hash)));
      if (!row) return problem(c, 404, "Checklist not found.");
      // A checklist stored before validation existed may be unreadable: reported here only.
      const reading = readList(row.body);
      return "faults" in reading
        ? problem(
            c,
            409,
            "This checklist cannot be read. Its preflight remains on record; start a new one.",
            reading.faults,
          )
        : c.json(reading.list);
    })
    .post("/lists/pdf", atMost("file"), async (c) => {
      const made = await runInWorker({ kind: "list pdf", text: await c.req.text() });
      if ("faults" in made)
        return problem(
          c,
          made.json ? 422 : 400,
          "This checklist is not valid and cannot be printed.",
          made.faults,
        );
      return c.body(new Uint8Array(made.pdf), 200, {
        "content-type": "application/pdf",
        "content-disposition": `attachment; filename="${made.registration.replace(/[^\w-]/g, "")}-list.pdf"`,
      });
    })
    .put("/lists/:hash", atMost("file"), valid("param", ofList), async (c) => {
      const { hash } = c.req.valid("param");
      const not = await forbidden(c, db, "preflight.record");
      if (not) return not;
      const reading = await runInWorker({ kind: "list", text: await c.req.text() });
      if ("faults" in reading)
        return problem(
          c,
          reading.json ? 422 : 400,
          "This is not a valid checklist. Nothing was saved.",
          reading.faults,
        );
      if (reading.hash !== hash)
        return problem(c, 422, "The checklist does not match the content hash in its address.");
      await saveList(db, hash, reading.text, callerOf(c).groupId);
      return c.body(null, 204);
    });
}
