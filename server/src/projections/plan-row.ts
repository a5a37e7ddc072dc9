import { byTime, type PreflightEvent } from "@cravix/core/checklist/stream/events";
import { eq } from "drizzle-orm";
import { fromDb, toDb } from "../db/moment";
import { workshopPlan } from "../db/schema/airworthiness";
import { upsert } from "../db/upsert";
import { addedIn, type GroupProjection } from "./projection";
import { storedRow } from "./stored-row";

type PlanRow = typeof workshopPlan.$inferInsert;

/** The latest plan. */
function toPlanRow(groupId: string, events: readonly PreflightEvent[]): PlanRow[] {
  const last = events
    .filter((event) => event.type === "workshop.planned")
    .sort(byTime)
    .at(-1);
  return last
    ? [
        {
          groupId: groupId,
          id: last.id,
          at: toDb(last.at),
          crewId: last.crewId,
          body: last.data,
        },
      ]
    : [];
}

/** The group's published workshop plan. */
export const planProjection: GroupProjection = {
  name: "workshop_plan",
  per: "group",
  kinds: ["workshop"],
  version: 1,
  async write(tx, batch) {
    const added = addedIn(batch, "workshop");
    const [kept] = await tx.select().from(workshopPlan).where(eq(workshopPlan.groupId, batch.groupId));
    const later = kept
      ? added.filter((event) => byTime({ id: kept.id, at: fromDb(kept.at) }, event) <= 0)
      : added;
    await upsert(tx, workshopPlan, toPlanRow(batch.groupId, later));
  },
  rows: toPlanRow,
  stored: async (db, groupId) =>
    (await db.select().from(workshopPlan).where(eq(workshopPlan.groupId, groupId))).map((row) =>
      storedRow(workshopPlan, row),
    ),
  insert: (tx, rows) => upsert(tx, workshopPlan, rows as PlanRow[]),
  clear: async (tx, groupId) => {
    await tx.delete(workshopPlan).where(eq(workshopPlan.groupId, groupId));
  },
};
