import type { Page, PreflightDetail, PreflightSummary } from "@cravix/contract";
import { readList } from "@cravix/contract/files";
import { eq } from "drizzle-orm";
import { type Context, Hono } from "hono";
import { bodyLimit } from "hono/body-limit";
import type { Database } from "../db/database";
import { event, list, preflight } from "../db/schema/checklist";
import { putList } from "../events/put-list";
import { readEvents } from "../events/read-events";
import { readPreflights, toSummary } from "../fleet/read-fleet";
import { listPdf } from "../paper/list-pdf";
import { problem } from "../problem";

const MAX_LIMIT = 100;

const listLimit = bodyLimit({
  maxSize: 8 * 1024 * 1024,
  onError: (c) => problem(c, 413, "A list may have at most 8 MiB."),
});

/** The body as JSON, or undefined for what is none. */
async function jsonOf(c: Context): Promise<unknown> {
  try {
    return await c.req.json();
  } catch {
    return undefined;
  }
}

export function preflightRoutes({ db }: Database) {
  return new Hono()
    .get("/preflights", async (c) => {
      const { registration, before } = c.req.query();
      const limit = Number(c.req.query("limit") ?? 20);
      if (!Number.isInteger(limit) || limit < 1 || limit > MAX_LIMIT)
        return problem(c, 422, `limit goes from 1 to ${MAX_LIMIT}.`, [
          { path: "limit", expected: `a whole number from 1 to ${MAX_LIMIT}` },
        ]);
      // One more than asked for tells whether there is a next page.
      const found = await readPreflights(db, {
        limit: limit + 1,
        ...(registration && { registration }),
        ...(before && { before }),
      });
      const items = found.slice(0, limit);
      const last = items.at(-1);
      const page: Page<PreflightSummary> = { items, ...(found.length > limit && last && { next: last.id }) };
      return c.json(page);
    })
    .get("/preflights/:id", async (c) => {
      const [row] = await db
        .select()
        .from(preflight)
        .where(eq(preflight.id, c.req.param("id")));
      if (!row) return problem(c, 404, "There is no such preflight.");
      const detail: PreflightDetail = {
        summary: toSummary(row),
        listHash: row.listHash,
        events: await readEvents(db, eq(event.preflightId, row.id)),
      };
      return c.json(detail);
    })
    .get("/lists/:hash", async (c) => {
      const [row] = await db
        .select()
        .from(list)
        .where(eq(list.hash, c.req.param("hash")));
      return row ? c.json(row.body as object) : problem(c, 404, "There is no such list.");
    })
    .post("/lists/pdf", listLimit, async (c) => {
      const body = await jsonOf(c);
      if (body === undefined) return problem(c, 400, "The body must be the list as JSON.");
      const reading = readList(body);
      if ("faults" in reading)
        return problem(c, 422, "This is no list that could be printed.", reading.faults);
      const pdf = await listPdf(reading.list);
      return c.body(new Uint8Array(pdf), 200, {
        "content-type": "application/pdf",
        "content-disposition": `attachment; filename="${reading.list.registration.replace(/[^\w-]/g, "")}-list.pdf"`,
      });
    })
    .put("/lists/:hash", listLimit, async (c) => {
      const body = await jsonOf(c);
      if (body === undefined) return problem(c, 400, "The body must be the list as JSON.");
      if (!(await putList(db, c.req.param("hash"), body)))
        return problem(c, 422, "The list does not have the content hash of its address.");
      return c.body(null, 204);
    });
}
