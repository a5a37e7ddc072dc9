import { isEventId } from "@cravix/contract";
import type { WorkRelease } from "@cravix/core/airworthiness/life/release";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { and, desc, eq, inArray } from "drizzle-orm";
import { Hono } from "hono";
import { callerOf } from "../access/identity";
import { problem } from "../access/problem";
import { effectiveRecord } from "../airworthiness/effective-record";
import type { Database } from "../db/database";
import { fromDb } from "../db/moment";
import { releaseWithdrawn, workDone } from "../db/schema/airworthiness";
import { event } from "../db/schema/checklist";
import { discrepancy } from "../db/schema/discrepancy";
import { valid } from "../middleware/valid";
import { runInWorker } from "../worker-pool/run-in-worker";
import { ofAircraft } from "./addresses";
import { asPdf, namesOf } from "./papers";

/** A release as signed. */
export type SignedRelease = WorkRelease & {
  id: string;
  at: string;
  crewId: string;
  /** Why it was struck out, if it was. */
  withdrawn?: string;
};

/** Releases to service of an aircraft, and each as PDF. */
export function releaseRoutes({ db }: Database) {
  return new Hono()
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
