import type { DiscrepancyState } from "@cravix/core/checklist/stream/fold-discrepancies";
import type { FindingGrade } from "@cravix/core/judgement/judgement";
import { char, datetime, index, json, mysqlTable, text, varchar } from "drizzle-orm/mysql-core";

import { groupId } from "./group";

const moment = (name: string) => datetime(name, { mode: "string", fsp: 3 });

/** Projection: discrepancies with their status. */
export const discrepancy = mysqlTable(
  "discrepancy",
  {
    id: char("id", { length: 36 }).primaryKey(),
    groupId: groupId(),
    registration: varchar("registration", { length: 20 }).notNull(),
    stationId: varchar("station_id", { length: 120 }).notNull(),
    itemId: varchar("item_id", { length: 120 }),
    text: text("text").notNull(),
    grade: varchar("grade", { length: 10 }).$type<FindingGrade>().notNull(),
    openedAt: moment("opened_at").notNull(),
    openedBy: varchar("opened_by", { length: 120 }).notNull(),
    measure: varchar("measure", { length: 200 }),
    /** Cause, if judged: identifies the same fault. */
    cause: varchar("cause", { length: 120 }),
    observations: json("observations").$type<DiscrepancyState["observations"]>().notNull(),
    closedAt: moment("closed_at"),
    closedBy: varchar("closed_by", { length: 120 }),
    closedHow: text("closed_how"),
    /** Deferrals, grades, advice, merging, limits, photos. */
    life: json("life").$type<
      Pick<DiscrepancyState, "deferred" | "grades" | "asked" | "merged" | "limit" | "photographs"> &
        Pick<NonNullable<DiscrepancyState["closed"]>, "noFault" | "release">
    >(),
    mergedInto: char("merged_into", { length: 36 }),
    withdrawnAt: moment("withdrawn_at"),
    withdrawnBy: varchar("withdrawn_by", { length: 120 }),
  },
  (t) => [index("discrepancy_registration").on(t.groupId, t.registration, t.closedAt)],
);
