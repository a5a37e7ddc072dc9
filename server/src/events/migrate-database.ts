import { fileURLToPath } from "node:url";
import { migrate } from "drizzle-orm/mysql2/migrator";
import type { Database } from "../db/database";
import { rebuildOutdated } from "./check-projections";

/** Migrates the tables to this version, and rebuilds those that older code wrote differently. Safe at every start. */
export async function migrateDatabase({ db }: Database, folder = defaultFolder()): Promise<void> {
  await migrate(db, { migrationsFolder: folder });
  await rebuildOutdated(db);
}

function defaultFolder(): string {
  return fileURLToPath(new URL("../../drizzle", import.meta.url));
}
