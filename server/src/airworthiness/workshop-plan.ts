import type { WorkshopPlan } from "@cravix/core/airworthiness/plan/workshop-plan";
import { eq } from "drizzle-orm";
import type { Db } from "../db/database";
import { fromDb } from "../db/moment";
import { workshopPlan } from "../db/schema/airworthiness";

/** A published plan. */
export type PublishedPlan = WorkshopPlan & { at: string; crewId: string };

/** The current plan; null if none was published. */
export async function readPlan(db: Db, groupId: string): Promise<PublishedPlan | null> {
  const [row] = await db.select().from(workshopPlan).where(eq(workshopPlan.groupId, groupId));
  return row ? { ...row.body, at: fromDb(row.at), crewId: row.crewId } : null;
}
