import { sql } from "drizzle-orm";
import { releaseWithdrawn, workDone } from "../db/schema/airworthiness";

/** Condition on `work_done`: its release was not struck out. */
export const STANDING = sql`not exists (
  select 1 from ${releaseWithdrawn}
  where ${releaseWithdrawn.groupId} = ${workDone.groupId} and ${releaseWithdrawn.of} = ${workDone.id}
)`;

/** Key of the daily inspection among works. */
export const DAILY = "daily inspection";
