import { char, customType, datetime, int, mysqlTable, primaryKey, varchar } from "drizzle-orm/mysql-core";
import { groupId } from "./group";

const mediumblob = customType<{ data: Buffer }>({ dataType: () => "mediumblob" });

/** Pictures of discrepancies, made anew by the server without anything but the picture; under the hash of what the device has sent. */
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
