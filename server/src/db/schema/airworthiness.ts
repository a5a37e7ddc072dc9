import type { EquipmentFile } from "@cravix/contract/files";
import type { AircraftRecord } from "@cravix/core/airworthiness/aircraft-record";
import type { ComponentSnapshot } from "@cravix/core/airworthiness/component-moves";
import type { DueItem, WorkDone } from "@cravix/core/airworthiness/due/due-item";
import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import type { Totals } from "@cravix/core/airworthiness/meters/component";
import type { WorkshopPlan } from "@cravix/core/airworthiness/plan/workshop-plan";
import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
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

/** Latest airworthiness record of each aircraft. */
export const airworthiness = mysqlTable(
  "airworthiness",
  {
    groupId: groupId(),
    registration: varchar("registration", { length: 20 }).notNull(),
    body: json("body").$type<AircraftRecord>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.registration] })],
);

/** Latest mass and balance data of each aircraft. */
export const loadingProfile = mysqlTable(
  "loading_profile",
  {
    groupId: groupId(),
    registration: varchar("registration", { length: 20 }).notNull(),
    body: json("body").$type<LoadingProfile>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.registration] })],
);

export const equipmentList = mysqlTable(
  "equipment_list",
  {
    groupId: groupId(),
    id: varchar("id", { length: 120 }).notNull(),
    typeId: varchar("type_id", { length: 120 }).notNull(),
    body: json("body").$type<EquipmentFile>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.id] }), index("equipment_list_type").on(t.groupId, t.typeId)],
);

/** Projection: one row per flight of the technical log, after corrections. Removed entries stay and do not count. */
export const flightLog = mysqlTable(
  "flight_log",
  {
    /** Id of its event, or derived from the content if imported. */
    id: char("id", { length: 36 }).primaryKey(),
    groupId: groupId(),
    registration: varchar("registration", { length: 20 }).notNull(),
    streamId: char("stream_id", { length: 36 }).notNull(),
    off: moment("off_at").notNull(),
    on: moment("on_at").notNull(),
    pilot: varchar("pilot", { length: 120 }).notNull(),
    line: json("line").$type<Omit<TechnicalLogEntry, "id">>().notNull(),
    corrections: int("corrections").notNull().default(0),
    struck: tinyint("struck").notNull().default(0),
    loggedBy: varchar("logged_by", { length: 120 }),
  },
  (t) => [
    index("flight_log_page").on(t.groupId, t.registration, t.off, t.id),
    index("flight_log_pilot").on(t.groupId, t.pilot, t.off),
    index("flight_log_last").on(t.groupId, t.struck, t.registration, t.off),
    index("flight_log_stream").on(t.streamId),
  ],
);

/** Cache: meter totals of each aircraft by its log. Recalculated after a correction. */
export const meterTotals = mysqlTable(
  "meter_totals",
  {
    groupId: groupId(),
    registration: varchar("registration", { length: 20 }).notNull(),
    totals: json("totals").$type<Totals>().notNull(),
    flights: int("flights").notNull().default(0),
    lastOn: moment("last_on"),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.registration] })],
);

/** Projection: released works, one row per item, and open conditions. */
export const workDone = mysqlTable(
  "work_done",
  {
    id: char("id", { length: 36 }).notNull(),
    place: int("place").notNull(),
    groupId: groupId(),
    registration: varchar("registration", { length: 20 }).notNull(),
    item: varchar("item", { length: 120 }).notNull(),
    date: char("done_on", { length: 10 }).notNull(),
    /** Time of the signature, and the readings entered then: the totals follow from the meters on record. */
    at: moment("at"),
    readings: json("readings").$type<Totals>(),
    work: json("work").$type<WorkDone>(),
    leaves: json("leaves").$type<DueItem>(),
  },
  (t) => [
    primaryKey({ columns: [t.id, t.place] }),
    index("work_done_item").on(t.groupId, t.registration, t.item, t.date),
  ],
);

/** Projection: releases that were struck out. */
export const releaseWithdrawn = mysqlTable(
  "release_withdrawn",
  {
    id: char("id", { length: 36 }).primaryKey(),
    groupId: groupId(),
    registration: varchar("registration", { length: 20 }).notNull(),
    of: char("of_release", { length: 36 }).notNull(),
    why: varchar("why", { length: 400 }).notNull(),
  },
  (t) => [index("release_withdrawn_of").on(t.groupId, t.of)],
);

/** Projection: meter replacements. */
export const meterChange = mysqlTable(
  "meter_change",
  {
    id: char("id", { length: 36 }).primaryKey(),
    groupId: groupId(),
    registration: varchar("registration", { length: 20 }).notNull(),
    meter: varchar("meter", { length: 120 }).notNull(),
    at: moment("at").notNull(),
    oldReading: double("old_reading").notNull(),
    newReading: double("new_reading").notNull(),
  },
  (t) => [index("meter_change_aircraft").on(t.groupId, t.registration)],
);

/**
 * Projection: component moves. A fitted component comes with its snapshot; that of a removed one follows from its aircraft's record. A
 * component removed last and not fitted since is in storage.
 */
export const componentMove = mysqlTable(
  "component_move",
  {
    id: char("id", { length: 36 }).primaryKey(),
    groupId: groupId(),
    registration: varchar("registration", { length: 20 }).notNull(),
    component: varchar("component", { length: 120 }).notNull(),
    at: moment("at").notNull(),
    fitted: tinyint("fitted").notNull(),
    position: varchar("position", { length: 60 }),
    totals: json("totals").$type<Totals>().notNull(),
    as: json("as_it_is").$type<ComponentSnapshot>(),
  },
  (t) => [
    index("component_move_aircraft").on(t.groupId, t.registration),
    index("component_move_component").on(t.groupId, t.component, t.id),
  ],
);

/** Projection: the group's published workshop plan. */
export const workshopPlan = mysqlTable("workshop_plan", {
  groupId: groupId().primaryKey(),
  id: char("id", { length: 36 }).notNull(),
  at: moment("at").notNull(),
  crewId: varchar("crew_id", { length: 120 }).notNull(),
  body: json("body").$type<WorkshopPlan>().notNull(),
});
