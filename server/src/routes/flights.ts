import { type ImportOutcome, isEventId, type Page, whyNot } from "@cravix/contract";
import { flightCsv } from "@cravix/contract/logs";
import type { WorkRelease } from "@cravix/core/airworthiness/life/release";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { and, desc, eq, inArray } from "drizzle-orm";
import { type Context, Hono } from "hono";
import { stream } from "hono/streaming";
import { number, object, string } from "yup";
import { callerOf, knownCrew, principalOf } from "../access/identity";
import { problem } from "../access/problem";
import { effectiveRecord } from "../airworthiness/effective-record";
import { type FlightRow, knownTimes, readFlights } from "../airworthiness/read-flights";
import type { Database } from "../db/database";
import { fromDb } from "../db/moment";
import { releaseWithdrawn, workDone } from "../db/schema/airworthiness";
import { event } from "../db/schema/checklist";
import { discrepancy } from "../db/schema/discrepancy";
import { acceptEvents } from "../events/accept-events";
import { atMost } from "../middleware/body";
import { valid } from "../middleware/valid";
import { runInWorker } from "../worker-pool/run-in-worker";
import { ofAircraft } from "./addresses";

const CURSOR = /^(\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z)~([0-9a-f-]{36})$/;
const page = object({
  limit: number().integer().min(1).max(500).default(60),
  before: string().matches(CURSOR, 'the "next" value of the previous page'),
});
const PART = 500;

/** Maximum flights per PDF. */
const ON_PAPER = 500;

function asPdf(c: Context, pdf: Uint8Array, name: string): Response {
  c.header("content-type", "application/pdf");
  c.header("content-disposition", `attachment; filename="${name.replace(/[^\w-]/g, "")}.pdf"`);
  return c.body(pdf as Uint8Array<ArrayBuffer>);
}

async function namesOf(db: Database["db"], groupId: string): Promise<Record<string, string>> {
  const crew = await knownCrew(db, groupId);
  return Object.fromEntries([...crew].map(([id, { name }]) => [id, name]));
}

/** A release as signed. */
export type SignedRelease = WorkRelease & {
  id: string;
  at: string;
  crewId: string;
  /** Why it was struck out, if it was. */
  withdrawn?: string;
};

/** Technical log as pages, CSV and PDF, and releases of an aircraft. */
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
        let before: { off: string; id: string } | undefined;
        let head = true;
        for (;;) {
          const rows = await readFlights(db, {
            groupId,
            registration,
            limit: PART,
            ...(before && { before }),
          });
          const table = flightCsv(
            rows.filter(({ struck }) => !struck),
            record.meters,
          );
          await out.write(head ? table : table.slice(table.indexOf("\n") + 1));
          head = false;
          const last = rows.at(-1);
          if (rows.length < PART || !last || out.aborted) return;
          before = { off: last.off, id: last.id };
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
      const now = clock();
      const { text, faults } = await runInWorker({
        kind: "flight log",
        registration,
        meters: record.meters,
        text: await c.req.text(),
        now: now.getTime(),
      });
      const outcome: ImportOutcome = { taken: 0, repeated: 0, faults };
      const read = JSON.parse(text) as { id: string; line: Omit<FlightRow, "id"> }[];
      for (let i = 0; i < read.length; i += PART) {
        // A flight with identical times is the same flight, however it arrived first.
        const part = read.slice(i, i + PART);
        const known = await knownTimes(
          db,
          groupId,
          registration,
          part.map(({ line }) => line.off),
        );
        const fresh = part.filter(({ line }) => !known.has(`${line.off} ${line.on}`));
        outcome.repeated += part.length - fresh.length;
        const events = fresh.map(({ id, line }) => ({
          id,
          type: "flight.logged",
          stream: "flight",
          streamId: id,
          deviceId: id,
          crewId: member.id,
          at: line.on,
          data: line,
        }));
        const { taken, repeated, refused } = await acceptEvents(db, events, { now, groupId, onError });
        outcome.taken += taken;
        // Already imported: keep the recorded flight.
        outcome.repeated += repeated + refused.filter(({ field }) => field === "id").length;
        for (const { field, reason } of refused)
          if (field !== "id") outcome.faults.push({ row: 0, column: field ?? "", expected: reason });
      }
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
    })
    .get("/releases/:id/paper.pdf", async (c) => {
      const { groupId } = callerOf(c);
      const id = c.req.param("id");
      const [row] = isEventId(id)
        ? await db
            .select()
            .from(event)
            .where(and(eq(event.groupId, groupId), eq(event.id, id), eq(event.type, "work.released")))
        : [];
      if (!row) return problem(c, 404, "Release to service not found.");
      const release = row.data as WorkRelease;
      const record = await effectiveRecord(db, groupId, release.registration);
      const closed =
        release.closes.length > 0
          ? await db
              .select({ id: discrepancy.id, text: discrepancy.text })
              .from(discrepancy)
              .where(and(eq(discrepancy.groupId, groupId), inArray(discrepancy.id, release.closes)))
          : [];
      const pdf = await runInWorker({
        kind: "release pdf",
        release: { ...release, at: fromDb(row.at), crewId: row.crewId },
        closes: closed.map(({ text }) => text),
        items: release.works.map(({ item }) => record?.items.find((one) => one.id === item)?.name ?? item),
        meters: record?.meters ?? [],
        names: await namesOf(db, groupId),
      });
      return asPdf(c, pdf, `${release.registration}-release-${release.date}`);
    })
    .get("/aircraft/:registration/releases", valid("param", ofAircraft), async (c) => {
      const { registration } = c.req.valid("param");
      const { groupId } = callerOf(c);
      const ids = db
        .selectDistinct({ id: workDone.id })
        .from(workDone)
        .where(and(eq(workDone.groupId, groupId), eq(workDone.registration, registration)))
        .as("ids");
      const rows = await db
        .select()
        .from(event)
        .innerJoin(ids, eq(ids.id, event.id))
        .where(and(eq(event.groupId, groupId), eq(event.type, "work.released")))
        .orderBy(desc(event.at), desc(event.id))
        .limit(200);
      const struck = await db
        .select({ of: releaseWithdrawn.of, why: releaseWithdrawn.why })
        .from(releaseWithdrawn)
        .where(and(eq(releaseWithdrawn.groupId, groupId), eq(releaseWithdrawn.registration, registration)));
      const why = new Map(struck.map((one) => [one.of, one.why]));
      const items = rows.map(({ event: { id, at, crewId, data } }): SignedRelease => {
        const withdrawn = why.get(id);
        return {
          ...(data as Extract<PreflightEvent, { type: "work.released" }>["data"]),
          id,
          at: fromDb(at),
          crewId,
          ...(withdrawn !== undefined && { withdrawn }),
        };
      });
      return c.json({ items });
    });
}
