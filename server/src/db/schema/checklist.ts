import type { Condition } from "@cravix/core/aircraft/aircraft-type";
import type { EventType, StreamKind } from "@cravix/core/checklist/stream/events";
import type { SignedVerdict } from "@cravix/core/judgement/judgement";
import type { Unit } from "@cravix/core/units/convert";
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

/** Events: appended, never changed. Everything else in this file can be rebuilt from them. */
export const event = mysqlTable(
  "event",
  {
    id: char("id", { length: 36 }).primaryKey(),
    groupId: groupId(),
    stream: varchar("stream", { length: 12 }).$type<StreamKind>().notNull().default("preflight"),
    /** Id of its stream. */
    streamId: char("stream_id", { length: 36 }).notNull(),
    deviceId: char("device_id", { length: 36 }).notNull(),
    crewId: varchar("crew_id", { length: 120 }).notNull(),
    type: varchar("type", { length: 40 }).$type<EventType>().notNull(),
    at: moment("at").notNull(),
    /** Original device time, if `at` was corrected. */
    deviceAt: moment("device_at"),
    receivedAt: moment("received_at").notNull(),
    /** Discrepancy it concerns, if any. */
    discrepancyId: char("discrepancy_id", { length: 36 }),
    /** Event it undoes, if any. */
    undoesId: char("undoes_id", { length: 36 }),
    data: json("data").notNull(),
    /** 1: recorded before the undo rules; keeps its original meaning. */
    rules: tinyint("rules").notNull().default(2),
    /** For discrepancy events: whether it counts in its stream. Rebuilt from the stream. */
    counts: tinyint("counts").notNull().default(1),
  },
  (t) => [
    index("event_preflight").on(t.streamId, t.id),
    index("event_discrepancy").on(t.discrepancyId),
    index("event_undoes").on(t.undoesId),
  ],
);

/** Existing streams; the row is the lock for appending. Every append writes it, so that another database server notices. */
export const stream = mysqlTable("stream", {
  id: char("id", { length: 36 }).primaryKey(),
  groupId: groupId(),
  kind: varchar("kind", { length: 12 }).$type<StreamKind>().notNull(),
  /** 0 until the first event is on record. */
  seen: tinyint("seen").notNull().default(0),
  version: int("version").notNull().default(0),
});

/**
 * What the admission of an event depends on besides its stream: a discrepancy, an aircraft, a component, a person, a plan. The row is
 * its lock, and every transaction that decides on it writes its version.
 */
export const subjectVersion = mysqlTable("subject_version", {
  subject: varchar("subject", { length: 255 }).primaryKey(),
  version: int("version").notNull().default(0),
});

/** Version of each projection's rows; a start with newer code rebuilds them from the events. */
export const projectionVersion = mysqlTable("projection_version", {
  name: varchar("name", { length: 60 }).primaryKey(),
  version: int("version").notNull(),
});

/** Composed checklists by content hash: what a preflight really asked. */
export const list = mysqlTable(
  "list",
  {
    groupId: groupId(),
    hash: char("hash", { length: 71 }).notNull(),
    body: json("body").notNull(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.hash] })],
);

/** Projection: one row per preflight. */
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
  (t) => [index("preflight_started").on(t.groupId, t.registration, t.startedAt, t.id)],
);

/** Projection: one row per reading, the aircraft's history. */
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
