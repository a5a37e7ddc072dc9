import { fileURLToPath } from "node:url";
import { migrate } from "drizzle-orm/mysql2/migrator";
import type { Database } from "../db/database";
import { recomposeTypes } from "../fleet/group-library";
import { rebuildOutdated } from "./check-projections";

/**
 * Migrates the tables to this version, rebuilds those that older code wrote differently, and composes types again that an older
 * library made. Safe at every start.
 */
export async function migrateDatabase({ db }: Database, folder = defaultFolder()): Promise<void> {
  await migrate(db, { migrationsFolder: folder });
  await rebuildOutdated(db);
  await recomposeTypes(db);
}

function defaultFolder(): string {
  return fileURLToPath(new URL("../../drizzle", import.meta.url));
}
