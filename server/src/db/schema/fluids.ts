import type { FluidRow, OilHeat, Unit } from "@cravix/core";
import { char, datetime, double, index, mysqlTable, primaryKey, varchar } from "drizzle-orm/mysql-core";
import { groupId } from "./group";

/**
 * The fuel and oil log, a row a line. Lines of a walk are a projection of its events and go with them; lines that came in a file have no
 * preflight. The id is made from what the line says: where two walks, or a walk and a file, say the same, it is one line.
 */
export const fluidLog = mysqlTable(
  "fluid_log",
  {
    id: char("id", { length: 32 }).notNull(),
    groupId: groupId(),
    registration: varchar("registration", { length: 20 }).notNull(),
    fluid: varchar("fluid", { length: 4 }).$type<FluidRow["fluid"]>().notNull(),
    entry: varchar("entry", { length: 10 }).$type<FluidRow["entry"]>().notNull(),
    /** The tank or the engine. */
    part: varchar("part", { length: 120 }),
    amount: double("amount").notNull(),
    unit: varchar("unit", { length: 12 }).$type<Unit>().notNull(),
    hours: double("hours"),
    grade: varchar("grade", { length: 40 }),
    receipt: varchar("receipt", { length: 40 }),
    heat: varchar("heat", { length: 4 }).$type<OilHeat>(),
    at: datetime("at", { mode: "string", fsp: 3 }).notNull(),
    /** Empty for a line that came in a file. */
    streamId: char("stream_id", { length: 36 }).notNull().default(""),
  },
  (t) => [
    primaryKey({ columns: [t.id, t.streamId] }),
    index("fluid_log_history").on(t.groupId, t.registration, t.fluid, t.at, t.id),
    index("fluid_log_preflight").on(t.streamId),
  ],
);
