import { char, customType, datetime, int, mysqlTable, primaryKey, varchar } from "drizzle-orm/mysql-core";
import { groupId } from "./group";

const mediumblob = customType<{ data: Buffer }>({ dataType: () => "mediumblob" });

/** Photos of discrepancies, re-encoded by the server without metadata; keyed by the hash of the uploaded file. */
export const photograph = mysqlTable(
  "photograph",
  {
    groupId: groupId(),
    hash: char("hash", { length: 71 }).notNull(),
    at: datetime("at", { mode: "string", fsp: 3 }).notNull(),
    crewId: varchar("crew_id", { length: 120 }),
    width: int("width").notNull(),
    height: int("height").notNull(),
    data: mediumblob("data").notNull(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.hash] })],
);
