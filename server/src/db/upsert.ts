import { getTableColumns, type SQL, sql } from "drizzle-orm";
import type { MySqlTable } from "drizzle-orm/mysql-core";
import type { Tx } from "./database";

/** For each table: every column takes the value of the row that was to be inserted. */
const renewals = new WeakMap<MySqlTable, Record<string, SQL>>();

function renewalOf(table: MySqlTable): Record<string, SQL> {
  const known = renewals.get(table);
  if (known) return known;
  const made = Object.fromEntries(
    Object.entries(getTableColumns(table)).map(([key, column]) => [
      key,
      sql`values(${sql.identifier(column.name)})`,
    ]),
  );
  renewals.set(table, made);
  return made;
}

/** Inserts or replaces rows in one statement. */
export async function upsert<T extends MySqlTable>(
  tx: Tx,
  table: T,
  rows: readonly T["$inferInsert"][],
): Promise<void> {
  if (rows.length === 0) return;
  await tx
    .insert(table)
    .values([...rows] as never)
    .onDuplicateKeyUpdate({ set: renewalOf(table) as never });
}
