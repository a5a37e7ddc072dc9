import type { PersonDue, PersonWork } from "@cravix/core";
import { char, json, mysqlTable, primaryKey, varchar } from "drizzle-orm/mysql-core";
import { groupId } from "./group";

/** Projection: what is due of people, an item or a work a row. Read only for the person and for who may see it. */
export const personEntry = mysqlTable(
  "person_entry",
  {
    groupId: groupId(),
    personId: varchar("person_id", { length: 120 }).notNull(),
    /** An item's id; of a work, the id of the event that says it. */
    entry: varchar("entry", { length: 120 }).notNull(),
    kind: varchar("kind", { length: 4 }).$type<"item" | "work">().notNull(),
    /** The event that says so; of several about one item the last counts. */
    eventId: char("event_id", { length: 36 }).notNull(),
    /** Null where the item was dropped. */
    body: json("body").$type<PersonDue | PersonWork>(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.personId, t.kind, t.entry] })],
);
