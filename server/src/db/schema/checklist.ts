import type { Condition, EventType, SignedVerdict, Unit } from "@cravix/core";
import {
  char,
  datetime,
  double,
  index,
  int,
  json,
  mysqlTable,
  primaryKey,
  varchar,
} from "drizzle-orm/mysql-core";

const moment = (name: string) => datetime(name, { mode: "string", fsp: 3 });

/** What people did, appended and never changed. Everything else in this file can be made again from it. */
export const event = mysqlTable(
  "event",
  {
    id: char("id", { length: 36 }).primaryKey(),
    preflightId: char("preflight_id", { length: 36 }).notNull(),
    deviceId: char("device_id", { length: 36 }).notNull(),
    crewId: varchar("crew_id", { length: 120 }).notNull(),
    type: varchar("type", { length: 40 }).$type<EventType>().notNull(),
    at: moment("at").notNull(),
    receivedAt: moment("received_at").notNull(),
    /** The discrepancy it is about, if any. */
    discrepancyId: char("discrepancy_id", { length: 36 }),
    /** The event that it takes back, if any. */
    undoesId: char("undoes_id", { length: 36 }),
    data: json("data").notNull(),
  },
  (t) => [
    index("event_preflight").on(t.preflightId, t.id),
    index("event_discrepancy").on(t.discrepancyId),
    index("event_undoes").on(t.undoesId),
  ],
);

/** A composed list, under its content hash: what a preflight really asked. */
export const list = mysqlTable("list", {
  hash: char("hash", { length: 71 }).primaryKey(),
  body: json("body").notNull(),
});

/** Projection: one row a preflight. */
export const preflight = mysqlTable(
  "preflight",
  {
    id: char("id", { length: 36 }).primaryKey(),
    registration: varchar("registration", { length: 20 }),
    crewId: varchar("crew_id", { length: 120 }),
    listHash: char("list_hash", { length: 71 }),
    startedAt: moment("started_at"),
    lastAt: moment("last_at"),
    conditions: json("conditions").$type<Condition[]>().notNull(),
    answered: int("answered").notNull().default(0),
    found: int("found").notNull().default(0),
    verdict: varchar("verdict", { length: 20 }).$type<SignedVerdict>(),
    decision: varchar("decision", { length: 20 }).$type<"fly" | "not flying">(),
    signedAt: moment("signed_at"),
    eventCount: int("event_count").notNull().default(0),
  },
  (t) => [index("preflight_registration").on(t.registration, t.id)],
);

/** Projection: one row a reading, the memory of the aircraft. */
export const reading = mysqlTable(
  "reading",
  {
    preflightId: char("preflight_id", { length: 36 }).notNull(),
    key: varchar("reading_key", { length: 120 }).notNull(),
    registration: varchar("registration", { length: 20 }),
    value: double("value").notNull(),
    unit: varchar("unit", { length: 12 }).$type<Unit>().notNull(),
    at: moment("at").notNull(),
    crewId: varchar("crew_id", { length: 120 }),
  },
  (t) => [
    primaryKey({ columns: [t.preflightId, t.key] }),
    index("reading_memory").on(t.registration, t.key, t.at),
  ],
);
