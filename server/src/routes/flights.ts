import { type Page, whyNot } from "@cravix/contract";
import { type Context, Hono } from "hono";
import { stream } from "hono/streaming";
import { number, object, string } from "yup";
import { callerOf, principalOf } from "../access/identity";
import { problem } from "../access/problem";
import { effectiveRecord } from "../airworthiness/effective-record";
import { type FlightRow, readFlights } from "../airworthiness/read-flights";
import type { Database } from "../db/database";
import { atMost } from "../middleware/body";
import { valid } from "../middleware/valid";
import { runInWorker } from "../worker-pool/run-in-worker";
import { ofAircraft } from "./addresses";
import { flightCsvParts } from "./flight-csv-parts";
import { importFlights } from "./import-flights";
import { asPdf, namesOf } from "./papers";

const CURSOR = /^(\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z)~([0-9a-f-]{36})$/;
const page = object({
  limit: number().integer().min(1).max(500).default(60),
  before: string().matches(CURSOR, 'the "next" value of the previous page'),
});

/** Maximum flights per PDF. */
const ON_PAPER = 500;

/** Technical log as pages, CSV and PDF. */
export function flightRoutes({ db }: Database, clock: () => Date, onError: (error: unknown) => void) {
  const noRecord = (c: Context) => problem(c, 404, "Your group has no technical log for this aircraft.");
  return new Hono()
    .get("/aircraft/:registration/flights", valid("param", ofAircraft), valid("query", page), async (c) => {
      const { registration } = c.req.valid("param");
      const { groupId } = callerOf(c);
      const { limit, before } = c.req.valid("query");
      const [, off = "", id = ""] = CURSOR.exec(before ?? "") ?? [];
      const found = await readFlights(db, {
        groupId,
        registration,
        limit: limit + 1,
        ...(before && { before: { off, id } }),
      });
      if (found.length === 0 && !(await effectiveRecord(db, groupId, registration))) return noRecord(c);
      const last = found.length > limit ? found[limit - 1] : undefined;
      const result: Page<FlightRow> = {
        items: found.slice(0, limit),
        ...(last && { next: `${last.off}~${last.id}` }),
      };
      return c.json(result);
    })
    .get("/aircraft/:registration/flights.csv", valid("param", ofAircraft), async (c) => {
      const { registration } = c.req.valid("param");
      const { groupId } = callerOf(c);
      const record = await effectiveRecord(db, groupId, registration);
      if (!record) return noRecord(c);
      c.header("content-type", "text/csv; charset=utf-8");
      c.header(
        "content-disposition",
        `attachment; filename="${registration.replace(/[^\w-]/g, "")}-technical-log.csv"`,
      );
      return stream(c, async (out) => {
        const parts = flightCsvParts(db, { groupId, registration }, record.meters);
        for await (const part of parts) {
          if (out.aborted) return;
          await out.write(part);
        }
      });
    })
    .post("/aircraft/:registration/flight-log", atMost("file"), valid("param", ofAircraft), async (c) => {
      const { registration } = c.req.valid("param");
      const caller = callerOf(c);
      const { groupId } = caller;
      const record = await effectiveRecord(db, groupId, registration);
      if (!record) return noRecord(c);
      const member = await principalOf(db, caller);
      const reason = whyNot(member, "flight.correct");
      if (!member || reason !== undefined) return problem(c, 403, reason ?? "");
      const outcome = await importFlights(db, await c.req.text(), {
        groupId,
        registration,
        crewId: member.id,
        meters: record.meters,
        now: clock(),
        onError,
      });
      return c.json(outcome);
    })
    .get("/aircraft/:registration/flights.pdf", valid("param", ofAircraft), async (c) => {
      const { registration } = c.req.valid("param");
      const { groupId } = callerOf(c);
      const record = await effectiveRecord(db, groupId, registration);
      if (!record) return noRecord(c);
      const rows = await readFlights(db, { groupId, registration, limit: ON_PAPER });
      const lines = rows.filter(({ struck }) => !struck);
      const pdf = await runInWorker({
        kind: "flights pdf",
        registration,
        lines,
        meters: record.meters,
        names: await namesOf(db, groupId),
      });
      return asPdf(c, pdf, `${registration}-technical-log`);
    });
}
