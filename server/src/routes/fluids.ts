import type { ImportOutcome, Page } from "@cravix/contract";
import { fluidCsv, readFluidCsv } from "@cravix/contract/logs";
import type { FluidRow } from "@cravix/core";
import { eq } from "drizzle-orm";
import { type Context, Hono } from "hono";
import { bodyLimit } from "hono/body-limit";
import type { Database } from "../db/database";
import { aircraft, aircraftType } from "../db/schema/fleet";
import { readAllFluids, readFluids } from "../fluids/read-fluids";
import { importFluids } from "../fluids/write-fluids";
import { problem } from "../problem";

const MAX_BYTES = 8 * 1024 * 1024;
const MAX_LIMIT = 5000;
const CURSOR = /^(\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z)~([0-9a-f]{32})$/;

/** The fuel and oil logs: read in pages, out and in as comma-separated text. */
export function fluidRoutes({ db }: Database, clock: () => Date) {
  const types = async () => {
    const rows = await db
      .select()
      .from(aircraft)
      .innerJoin(aircraftType, eq(aircraft.typeId, aircraftType.id));
    return new Map(rows.map((row) => [row.aircraft.registration, row.aircraft_type.body]));
  };
  const unknown = (c: Context, registration: string) =>
    problem(c, 404, `There is no aircraft ${registration} in the group.`);
  const app = new Hono();
  for (const fluid of ["fuel", "oil"] as const) {
    app.get(`/aircraft/:registration/${fluid}-log`, async (c) => {
      const registration = c.req.param("registration") ?? "";
      const limit = Number(c.req.query("limit") ?? 500);
      if (!Number.isInteger(limit) || limit < 1 || limit > MAX_LIMIT)
        return problem(c, 422, `limit goes from 1 to ${MAX_LIMIT}.`, [
          { path: "limit", expected: `a whole number from 1 to ${MAX_LIMIT}` },
        ]);
      const given = c.req.query("before");
      const cursor = given === undefined ? undefined : CURSOR.exec(given);
      if (cursor === null)
        return problem(c, 422, "before is the `next` of the page before.", [
          { path: "before", expected: "the next of the page before" },
        ]);
      // One more than asked for tells whether there is a next page.
      const found = await readFluids(db, {
        registration,
        fluid,
        limit: limit + 1,
        ...(cursor && { before: { at: cursor[1] ?? "", id: cursor[2] ?? "" } }),
      });
      if (found.length === 0 && !(await types()).has(registration)) return unknown(c, registration);
      const last = found.length > limit ? found[limit - 1] : undefined;
      const page: Page<FluidRow> = {
        items: found.slice(0, limit).map(({ id: _id, ...row }) => row),
        ...(last && { next: `${last.at}~${last.id}` }),
      };
      return c.json(page);
    });
    app.get(`/aircraft/:registration/${fluid}-log.csv`, async (c) => {
      const registration = c.req.param("registration") ?? "";
      if (!(await types()).has(registration)) return unknown(c, registration);
      return c.body(fluidCsv(fluid, await readAllFluids(db, registration, fluid)), 200, {
        "content-type": "text/csv; charset=utf-8",
        "content-disposition": `attachment; filename="${registration.replace(/[^\w-]/g, "")}-${fluid}-log.csv"`,
      });
    });
    app.post(
      `/${fluid}-log`,
      bodyLimit({ maxSize: MAX_BYTES, onError: (c) => problem(c, 413, "A log may have at most 8 MiB.") }),
      async (c) => {
        const known = await types();
        const { rows, faults } = readFluidCsv(
          fluid,
          await c.req.text(),
          (registration) => known.get(registration),
          clock(),
        );
        const taken = await importFluids(db, rows);
        const outcome: ImportOutcome = { taken, repeated: rows.length - taken, faults };
        return c.json(outcome);
      },
    );
  }
  return app;
}
