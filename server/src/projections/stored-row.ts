import { getTableColumns } from "drizzle-orm";
import type { MySqlTable } from "drizzle-orm/mysql-core";
import { dbMoment } from "../db/moment";
import type { Row } from "./projection";

/** A row as read, comparable with one to be written: times with all their digits. */
export function storedRow<T extends MySqlTable>(table: T, row: T["$inferSelect"]): Row {
  const columns = getTableColumns(table);
  return Object.fromEntries(
    Object.entries(row as Row).map(([key, value]) => [
      key,
      columns[key]?.columnType === "MySqlDateTimeString" ? dbMoment(value as string | null) : value,
    ]),
  );
}

/** A row in words that are equal for equal rows: keys sorted at every depth, what is empty left out. */
export const canonicalRow = (row: unknown): string =>
  JSON.stringify(row, (_key, value: unknown) => {
    if (typeof value !== "object" || value === null || Array.isArray(value)) return value;
    return Object.fromEntries(
      Object.entries(value)
        .filter(([, part]) => part !== null && part !== undefined)
        .sort(([a], [b]) => (a < b ? -1 : 1)),
    );
  });
