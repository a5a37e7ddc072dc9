import type { PreflightEvent, WorkshopPlan } from "@cravix/core";
import { eq } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { fromDb, toDb } from "../db/moment";
import { workshopPlan } from "../db/schema/airworthiness";
import { upsert } from "../db/upsert";

/** A published plan. */
export type PublishedPlan = WorkshopPlan & { at: string; crewId: string };

/** Stores the latest plan by id, in any order of arrival. */
export async function projectPlan(tx: Tx, groupId: string, added: readonly PreflightEvent[]): Promise<void> {
  const last = added
    .filter((event) => event.type === "workshop.planned")
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .at(-1);
  if (!last) return;
  const [kept] = await tx
    .select({ id: workshopPlan.id })
    .from(workshopPlan)
    .where(eq(workshopPlan.groupId, groupId))
    .for("update");
  if (kept && kept.id > last.id) return;
  await upsert(tx, "workshop_plan", [
    {
      group_id: groupId,
      id: last.id,
      at: toDb(last.at),
      crew_id: last.crewId,
      body: JSON.stringify(last.data),
    },
  ]);
}

/** The current plan; null if none was published. */
export async function readPlan(db: Db, groupId: string): Promise<PublishedPlan | null> {
  const [row] = await db.select().from(workshopPlan).where(eq(workshopPlan.groupId, groupId));
  return row ? { ...row.body, at: fromDb(row.at), crewId: row.crewId } : null;
}
