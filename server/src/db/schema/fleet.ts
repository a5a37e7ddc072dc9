import type { CrewRole } from "@cravix/contract";
import type { Aircraft, AircraftType, Airfield, RuleSet } from "@cravix/core";
import { json, mysqlTable, varchar } from "drizzle-orm/mysql-core";

/** The group's files, as they were read: types, aircraft, airfields and rules are data. */
export const aircraftType = mysqlTable("aircraft_type", {
  id: varchar("id", { length: 120 }).primaryKey(),
  body: json("body").$type<AircraftType>().notNull(),
});

export const aircraft = mysqlTable("aircraft", {
  registration: varchar("registration", { length: 20 }).primaryKey(),
  typeId: varchar("type_id", { length: 120 }).notNull(),
  body: json("body").$type<Aircraft>().notNull(),
});

export const airfield = mysqlTable("airfield", {
  id: varchar("id", { length: 120 }).primaryKey(),
  body: json("body").$type<Airfield>().notNull(),
});

export const ruleSet = mysqlTable("rule_set", {
  id: varchar("id", { length: 120 }).primaryKey(),
  body: json("body").$type<RuleSet>().notNull(),
});

export const crew = mysqlTable("crew", {
  id: varchar("id", { length: 120 }).primaryKey(),
  name: varchar("name", { length: 80 }).notNull(),
  role: varchar("role", { length: 20 }).$type<CrewRole>().notNull(),
});
