import { planCsv } from "@cravix/contract/logs";
import type { AirworthinessOnFile } from "@cravix/core/logs/apply-airworthiness-events";
import { and, eq } from "drizzle-orm";
import { type Context, Hono } from "hono";
import { callerOf } from "../access/identity";
import { readShelf } from "../airworthiness/effective-record";
import { readAirworthiness } from "../airworthiness/read-airworthiness";
import { readPlan } from "../airworthiness/workshop-plan";
import type { Database } from "../db/database";
import { aircraft } from "../db/schema/fleet";
import { runInWorker } from "../worker-pool/run-in-worker";

/** Maximum aircraft in a calendar. */
const MAX_AIRCRAFT = 60;

/** Published workshop plan, components in storage, and the group's calendar for other programs. */
export function workshopRoutes({ db }: Database, clock: () => Date) {
  const rowsOf = async (c: Context) => {
    const { groupId } = callerOf(c);
    const now = clock();
    const own = await db
      .select({ registration: aircraft.registration })
      .from(aircraft)
      .where(and(eq(aircraft.groupId, groupId)))
      .orderBy(aircraft.registration)
      .limit(MAX_AIRCRAFT);
    const papers: AirworthinessOnFile[] = [];
    for (const { registration } of own) {
      const found = await readAirworthiness(db, registration, groupId, { now });
      if (found) papers.push(found);
    }
    return runInWorker({
      kind: "plan rows",
      papers,
      plan: await readPlan(db, groupId),
      at: now.toISOString(),
    });
  };
  return new Hono()
    .get("/workshop", async (c) => {
      const { groupId } = callerOf(c);
      return c.json({ plan: await readPlan(db, groupId), shelf: await readShelf(db, groupId) });
    })
    .get("/workshop/plan.csv", async (c) =>
      c.body(planCsv(await rowsOf(c)), 200, {
        "content-type": "text/csv; charset=utf-8",
        "content-disposition": 'attachment; filename="workshop-plan.csv"',
      }),
    )
    .get("/workshop/plan.ics", async (c) => {
      const { planIcs } = await import("../paper/plan-ics");
      return c.body(planIcs(await rowsOf(c), clock()), 200, {
        "content-type": "text/calendar; charset=utf-8",
        "content-disposition": 'attachment; filename="workshop-plan.ics"',
      });
    });
}
