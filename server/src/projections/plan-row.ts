import { byTime, type PreflightEvent } from "@cravix/core/checklist/stream/events";
import { eq } from "drizzle-orm";
import { dbMoment, fromDb, toDb } from "../db/moment";
import { workshopPlan } from "../db/schema/airworthiness";
import { upsert } from "../db/upsert";
import { addedIn, type GroupProjection, type Row } from "./projection";

/** The latest plan. */
function toPlanRow(groupId: string, events: readonly PreflightEvent[]): Row[] {
  const last = events
    .filter((event) => event.type === "workshop.planned")
    .sort(byTime)
    .at(-1);
  return last
    ? [
        {
          group_id: groupId,
          id: last.id,
          at: toDb(last.at),
          crew_id: last.crewId,
          body: JSON.stringify(last.data),
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
    await upsert(tx, "workshop_plan", toPlanRow(batch.groupId, later));
  },
  rows: toPlanRow,
  stored: async (db, groupId) =>
    (await db.select().from(workshopPlan).where(eq(workshopPlan.groupId, groupId))).map((one) => ({
      group_id: one.groupId,
      id: one.id,
      at: dbMoment(one.at),
      crew_id: one.crewId,
      body: JSON.stringify(one.body),
    })),
  insert: (tx, rows) => upsert(tx, "workshop_plan", rows),
  clear: async (tx, groupId) => {
    await tx.delete(workshopPlan).where(eq(workshopPlan.groupId, groupId));
  },
};
