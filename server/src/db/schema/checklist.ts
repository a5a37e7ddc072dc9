import type { Condition, EventType, SignedVerdict, StreamKind, Unit } from "@cravix/core";
import {
  char,
  datetime,
  double,
  index,
  int,
  json,
  mysqlTable,
  primaryKey,
  tinyint,
  varchar,
} from "drizzle-orm/mysql-core";
import { groupId } from "./group";

const moment = (name: string) => datetime(name, { mode: "string", fsp: 3 });

/** What people did, appended and never changed. Everything else in this file can be made again from it. */
export const event = mysqlTable(
  "event",
  {
    id: char("id", { length: 36 }).primaryKey(),
    groupId: groupId(),
    stream: varchar("stream", { length: 12 }).$type<StreamKind>().notNull().default("preflight"),
    /** The id of its stream, whatever its kind. */
    streamId: char("stream_id", { length: 36 }).notNull(),
    deviceId: char("device_id", { length: 36 }).notNull(),
    crewId: varchar("crew_id", { length: 120 }).notNull(),
    type: varchar("type", { length: 40 }).$type<EventType>().notNull(),
    at: moment("at").notNull(),
    /** What the device's clock said, where `at` was put right afterwards. */
    deviceAt: moment("device_at"),
    receivedAt: moment("received_at").notNull(),
    /** The discrepancy it is about, if any. */
    discrepancyId: char("discrepancy_id", { length: 36 }),
    /** The event that it takes back, if any. */
    undoesId: char("undoes_id", { length: 36 }),
    data: json("data").notNull(),
    /** 1: on record before it was settled who may take back what; it goes on meaning what it meant then. */
    rules: tinyint("rules").notNull().default(2),
    /** Of an event about a discrepancy: whether it counts in its own stream, and so in the discrepancy. Made again from the stream. */
    counts: tinyint("counts").notNull().default(1),
  },
  (t) => [
    index("event_preflight").on(t.streamId, t.id),
    index("event_discrepancy").on(t.discrepancyId),
    index("event_undoes").on(t.undoesId),
  ],
);

/** The streams that there are; its row is the lock under which a stream grows. */
export const stream = mysqlTable("stream", {
  id: char("id", { length: 36 }).primaryKey(),
  groupId: groupId(),
  kind: varchar("kind", { length: 12 }).$type<StreamKind>().notNull(),
  /** 0 while nothing of it is on record. */
  seen: tinyint("seen").notNull().default(0),
});

/** A composed list, under its content hash: what a preflight really asked. */
export const list = mysqlTable(
  "list",
  {
    groupId: groupId(),
    hash: char("hash", { length: 71 }).notNull(),
    body: json("body").notNull(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.hash] })],
);

/** Projection: one row a preflight. */
export const preflight = mysqlTable(
  "preflight",
  {
    id: char("id", { length: 36 }).primaryKey(),
    groupId: groupId(),
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
  (t) => [index("preflight_registration").on(t.groupId, t.registration, t.id)],
);

/** Projection: one row a reading, the memory of the aircraft. */
export const reading = mysqlTable(
  "reading",
  {
    preflightId: char("preflight_id", { length: 36 }).notNull(),
    groupId: groupId(),
    key: varchar("reading_key", { length: 120 }).notNull(),
    registration: varchar("registration", { length: 20 }),
    value: double("value").notNull(),
    unit: varchar("unit", { length: 12 }).$type<Unit>().notNull(),
    at: moment("at").notNull(),
    crewId: varchar("crew_id", { length: 120 }),
  },
  (t) => [
    primaryKey({ columns: [t.preflightId, t.key] }),
    index("reading_memory").on(t.groupId, t.registration, t.key, t.at),
  ],
);
