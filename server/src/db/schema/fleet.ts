import type { CrewRole } from "@cravix/contract";
import type { Aircraft, AircraftType, Airfield } from "@cravix/core/aircraft/aircraft-type";
import type { PartSheet } from "@cravix/core/parts/part-sheet";
import type { RuleSet } from "@cravix/core/rules/rule-set";
import { char, datetime, int, json, mysqlTable, primaryKey, varchar } from "drizzle-orm/mysql-core";
import { groupId } from "./group";

/** Latest version of the group's files: types, aircraft, airfields and rules. */
export const aircraftType = mysqlTable(
  "aircraft_type",
  {
    groupId: groupId(),
    id: varchar("id", { length: 120 }).notNull(),
    body: json("body").$type<AircraftType>().notNull(),
    /** Hash of the library that a composed type was made with; null for a type that is not composed. */
    library: char("library", { length: 71 }),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.id] })],
);

/** Part sheets of a group, in addition to the shipped library or instead of one of its sheets. */
export const partSheet = mysqlTable(
  "part_sheet",
  {
    groupId: groupId(),
    id: varchar("id", { length: 120 }).notNull(),
    body: json("body").$type<PartSheet>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.id] })],
);

export const aircraft = mysqlTable(
  "aircraft",
  {
    groupId: groupId(),
    registration: varchar("registration", { length: 20 }).notNull(),
    typeId: varchar("type_id", { length: 120 }).notNull(),
    body: json("body").$type<Aircraft>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.registration] })],
);

export const airfield = mysqlTable(
  "airfield",
  {
    groupId: groupId(),
    id: varchar("id", { length: 120 }).notNull(),
    body: json("body").$type<Airfield>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.id] })],
);

export const ruleSet = mysqlTable(
  "rule_set",
  {
    groupId: groupId(),
    id: varchar("id", { length: 120 }).notNull(),
    body: json("body").$type<RuleSet>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.id] })],
);

export const crew = mysqlTable(
  "crew",
  {
    groupId: groupId(),
    id: varchar("id", { length: 120 }).notNull(),
    name: varchar("name", { length: 80 }).notNull(),
    role: varchar("role", { length: 20 }).$type<CrewRole>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.id] })],
);

/** Every version of every file: who, when, and the previous version. Appended, never changed. */
export const fileVersion = mysqlTable(
  "file_version",
  {
    groupId: groupId(),
    /** Format without version: "aircraft-type". */
    kind: varchar("kind", { length: 40 }).notNull(),
    fileId: varchar("file_id", { length: 120 }).notNull(),
    version: int("version").notNull(),
    hash: char("hash", { length: 71 }).notNull(),
    /** Content hash of the previous version; null for the first. */
    before: char("before_hash", { length: 71 }),
    at: datetime("at", { mode: "string", fsp: 3 }).notNull(),
    /** Who saved it; null if unknown. */
    crewId: varchar("crew_id", { length: 120 }),
    body: json("body").notNull(),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.kind, t.fileId, t.version] })],
);
