import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { eq } from "drizzle-orm";
import type { MySqlColumn, MySqlTable } from "drizzle-orm/mysql-core";
import { upsert } from "../db/upsert";
import { addedIn, type GroupProjection } from "./projection";
import { storedRow } from "./stored-row";

/** A table of events of aircraft whose rows follow from one event each: written as events are added, in any order. */
export function rowsOfEvents<T extends MySqlTable & { groupId: MySqlColumn }>(
  name: GroupProjection["name"],
  table: T,
  toRows: (groupId: string, event: PreflightEvent) => T["$inferInsert"][],
): GroupProjection {
  const rows = (groupId: string, events: readonly PreflightEvent[]) =>
    events.flatMap((event) => toRows(groupId, event));
  return {
    name,
    per: "group",
    kinds: ["aircraft"],
    version: 1,
    write: (tx, batch) => upsert(tx, table, rows(batch.groupId, addedIn(batch, "aircraft"))),
    rows,
    insert: (tx, all) => upsert(tx, table, all as T["$inferInsert"][]),
    stored: async (db, groupId) =>
      (
        await db
          .select()
          .from(table as MySqlTable)
          .where(eq(table.groupId, groupId))
      ).map((row) => storedRow(table, row as T["$inferSelect"])),
    clear: async (tx, groupId) => {
      await tx.delete(table as MySqlTable).where(eq(table.groupId, groupId));
    },
  };
}
