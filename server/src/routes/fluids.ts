import type { ImportOutcome, Page } from "@cravix/contract";
import { fluidCsv } from "@cravix/contract/logs";
import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import { and, eq } from "drizzle-orm";
import { type Context, Hono } from "hono";
import { stream } from "hono/streaming";
import { number, object, string } from "yup";
import { callerOf, forbidden } from "../access/identity";
import { problem } from "../access/problem";
import type { Database } from "../db/database";
import { aircraft, aircraftType } from "../db/schema/fleet";
import { readAllFluids, readFluids } from "../fluids/read-fluids";
import { importFluids } from "../fluids/write-fluids";
import { atMost } from "../middleware/body";
import { valid } from "../middleware/valid";
import { runInWorker } from "../worker-pool/run-in-worker";
import { ofAircraft } from "./addresses";

const CURSOR = /^(\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z)~([0-9a-f]{32})$/;

const page = object({
  limit: number().integer().min(1).max(5000).default(500),
  before: string().matches(CURSOR, 'the "next" value of the previous page'),
});

type Fluid = FluidRow["fluid"];

/** Fuel and oil logs: paged reading, CSV import and export. */
export function fluidRoutes({ db }: Database, clock: () => Date) {
  /** Aircraft data needed to read a log. */
  const known = async (groupId: string) => {
    const rows = await db
      .select()
      .from(aircraft)
      .innerJoin(
        aircraftType,
        and(eq(aircraft.groupId, aircraftType.groupId), eq(aircraft.typeId, aircraftType.id)),
      )
      .where(eq(aircraft.groupId, groupId));
    return rows.map(({ aircraft: { registration }, aircraft_type: { body } }) => {
      const type: Pick<AircraftType, "fuel" | "engines"> = {
        ...(body.fuel && { fuel: body.fuel }),
        ...(body.engines && { engines: body.engines }),
      };
      return [registration, type] as [string, typeof type];
    });
  };
  const isKnown = async (groupId: string, registration: string) =>
    (await known(groupId)).some(([one]) => one === registration);
  const unknown = (c: Context) => problem(c, 404, "This is not one of your group's aircraft.");

  const onePage = async (
    c: Context,
    fluid: Fluid,
    registration: string,
    { limit, before }: { limit: number; before?: string | undefined },
  ) => {
    const { groupId } = callerOf(c);
    const [, at = "", id = ""] = CURSOR.exec(before ?? "") ?? [];
    // One more than requested shows whether there is a next page.
    const found = await readFluids(db, {
      groupId,
      registration,
      fluid,
      limit: limit + 1,
      ...(before && { before: { at, id } }),
    });
    if (found.length === 0 && !(await isKnown(groupId, registration))) return unknown(c);
    const last = found.length > limit ? found[limit - 1] : undefined;
    const result: Page<FluidRow> = {
      items: found.slice(0, limit).map(({ id: _id, ...row }) => row),
      ...(last && { next: `${last.at}~${last.id}` }),
    };
    return c.json(result);
  };
  const asTable = async (c: Context, fluid: Fluid, registration: string) => {
    const { groupId } = callerOf(c);
    if (!(await isKnown(groupId, registration))) return unknown(c);
    c.header("content-type", "text/csv; charset=utf-8");
    c.header(
      "content-disposition",
      `attachment; filename="${registration.replace(/[^\w-]/g, "")}-${fluid}-log.csv"`,
    );
    return stream(c, async (out) => {
      let head = true;
      for await (const rows of readAllFluids(db, registration, fluid, groupId)) {
        const table = fluidCsv(fluid, rows);
        await out.write(head ? table : table.slice(table.indexOf("\n") + 1));
        head = false;
        if (out.aborted) return;
      }
    });
  };
  const takeTable = async (c: Context, fluid: Fluid) => {
    const { groupId } = callerOf(c);
    const not = await forbidden(c, db, "fluids.import");
    if (not) return not;
    const { parts, faults } = await runInWorker({
      kind: "fluid log",
      fluid,
      text: await c.req.text(),
      known: await known(groupId),
      now: clock().getTime(),
    });
    const outcome: ImportOutcome = { taken: 0, repeated: 0, faults };
    for (const part of parts) {
      const rows = JSON.parse(part) as FluidRow[];
      const taken = await importFluids(db, rows, groupId);
      outcome.taken += taken;
      outcome.repeated += rows.length - taken;
    }
    return c.json(outcome);
  };

  return new Hono()
    .get("/aircraft/:registration/fuel-log", valid("param", ofAircraft), valid("query", page), (c) =>
      onePage(c, "fuel", c.req.valid("param").registration, c.req.valid("query")),
    )
    .get("/aircraft/:registration/oil-log", valid("param", ofAircraft), valid("query", page), (c) =>
      onePage(c, "oil", c.req.valid("param").registration, c.req.valid("query")),
    )
    .get("/aircraft/:registration/fuel-log.csv", valid("param", ofAircraft), (c) =>
      asTable(c, "fuel", c.req.valid("param").registration),
    )
    .get("/aircraft/:registration/oil-log.csv", valid("param", ofAircraft), (c) =>
      asTable(c, "oil", c.req.valid("param").registration),
    )
    .post("/fuel-log", atMost("file"), (c) => takeTable(c, "fuel"))
    .post("/oil-log", atMost("file"), (c) => takeTable(c, "oil"));
}
