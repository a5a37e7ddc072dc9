import type { PersonDue, PersonWork } from "@cravix/core/airworthiness/people/person-due";
import { char, datetime, json, mysqlTable, primaryKey, varchar } from "drizzle-orm/mysql-core";
import { groupId } from "./group";

/** Projection: due items and works of people. Readable only by the person and with permission. */
export const personEntry = mysqlTable(
  "person_entry",
  {
    groupId: groupId(),
    personId: varchar("person_id", { length: 120 }).notNull(),
    /** Item id; for a work, its event id. */
    entry: varchar("entry", { length: 120 }).notNull(),
    kind: varchar("kind", { length: 4 }).$type<"item" | "work">().notNull(),
    /** Event of the row; of several for one item the latest counts. */
    eventId: char("event_id", { length: 36 }).notNull(),
    at: datetime("at", { mode: "string", fsp: 3 }),
    /** Null if the item was removed. */
    body: json("body").$type<PersonDue | PersonWork>(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.personId, t.kind, t.entry] })],
);
