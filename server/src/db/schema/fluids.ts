import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import type { OilHeat } from "@cravix/core/oil/judge-oil";
import type { Unit } from "@cravix/core/units/convert";
import { char, datetime, double, index, mysqlTable, primaryKey, varchar } from "drizzle-orm/mysql-core";
import { groupId } from "./group";

/**
 * Fuel and oil log, one row per entry. Entries of a preflight are a projection of its events; imported ones have no preflight.
 * The id is derived from the content, so that duplicates become one entry.
 */
export const fluidLog = mysqlTable(
  "fluid_log",
  {
    id: char("id", { length: 32 }).notNull(),
    groupId: groupId(),
    registration: varchar("registration", { length: 20 }).notNull(),
    fluid: varchar("fluid", { length: 4 }).$type<FluidRow["fluid"]>().notNull(),
    entry: varchar("entry", { length: 10 }).$type<FluidRow["entry"]>().notNull(),
    /** Tank or engine. */
    part: varchar("part", { length: 120 }),
    amount: double("amount").notNull(),
    unit: varchar("unit", { length: 12 }).$type<Unit>().notNull(),
    hours: double("hours"),
    grade: varchar("grade", { length: 40 }),
    receipt: varchar("receipt", { length: 40 }),
    heat: varchar("heat", { length: 4 }).$type<OilHeat>(),
    at: datetime("at", { mode: "string", fsp: 3 }).notNull(),
    /** Empty for an imported entry. */
    streamId: char("stream_id", { length: 36 }).notNull().default(""),
  },
  (t) => [
    primaryKey({ columns: [t.id, t.streamId] }),
    index("fluid_log_history").on(t.groupId, t.registration, t.fluid, t.at, t.id),
    index("fluid_log_preflight").on(t.streamId),
  ],
);
