import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import { and, asc, desc, eq, gt, lt, or, type SQL, sql } from "drizzle-orm";
import { alias } from "drizzle-orm/mysql-core";
import type { Db } from "../db/database";
import { fromDb, toDb } from "../db/moment";
import { fluidLog } from "../db/schema/fluids";

/** Log entries sent to a device: several months of a trainer. */
const KEPT_ON_DEVICE = 250;

export interface FluidPage {
  groupId: string;
  registration: string;
  fluid: FluidRow["fluid"];
  limit: number;
  /** Time and id of the last entry seen. */
  before?: { at: string; id: string };
}

/** Entries of one log without duplicates from other preflights or files. */
function ofLog(groupId: string, registration: string, fluid: FluidRow["fluid"]): SQL | undefined {
  const twin = alias(fluidLog, "twin");
  return and(
    eq(fluidLog.groupId, groupId),
    eq(fluidLog.registration, registration),
    eq(fluidLog.fluid, fluid),
    sql`not exists (select 1 from ${fluidLog} as ${twin} where ${twin.id} = ${fluidLog.id} and ${twin.streamId} < ${fluidLog.streamId})`,
  );
}

/** Entries of one aircraft's log, newest first. */
export async function readFluids(
  db: Db,
  { groupId, registration, fluid, limit, before }: FluidPage,
): Promise<(FluidRow & { id: string })[]> {
  const behind: SQL | undefined =
    before &&
    or(lt(fluidLog.at, toDb(before.at)), and(eq(fluidLog.at, toDb(before.at)), lt(fluidLog.id, before.id)));
  const rows = await db
    .select()
    .from(fluidLog)
    .where(and(ofLog(groupId, registration, fluid), behind))
    .orderBy(desc(fluidLog.at), desc(fluidLog.id))
    .limit(limit);
  return rows.map((row) => ({ id: row.id, ...toFluidRow(row) }));
}

/** Latest entries of both logs. */
export async function readRecentFluids(db: Db, registration: string, groupId: string): Promise<FluidRow[]> {
  const both = await Promise.all(
    (["fuel", "oil"] as const).map((fluid) =>
      readFluids(db, { groupId, registration, fluid, limit: KEPT_ON_DEVICE }),
    ),
  );
  return both.flat().map(({ id: _id, ...row }) => row);
}

const PART = 2000;

/** Whole log of one aircraft, oldest first, in parts, for a file of any length. */
export async function* readAllFluids(
  db: Db,
  registration: string,
  fluid: FluidRow["fluid"],
  groupId: string,
): AsyncGenerator<FluidRow[]> {
  let last: { at: string; id: string } | undefined;
  do {
    const behind: SQL | undefined =
      last && or(gt(fluidLog.at, last.at), and(eq(fluidLog.at, last.at), gt(fluidLog.id, last.id)));
    const rows = await db
      .select()
      .from(fluidLog)
      .where(and(ofLog(groupId, registration, fluid), behind))
      .orderBy(asc(fluidLog.at), asc(fluidLog.id))
      .limit(PART);
    yield rows.map(toFluidRow);
    last = rows.length === PART ? rows.at(-1) : undefined;
  } while (last);
}

function toFluidRow(row: typeof fluidLog.$inferSelect): FluidRow {
  return {
    registration: row.registration,
    fluid: row.fluid,
    entry: row.entry,
    amount: row.amount,
    unit: row.unit,
    at: fromDb(row.at),
    ...(row.part !== null && { part: row.part }),
    ...(row.hours !== null && { hours: row.hours }),
    ...(row.grade !== null && { grade: row.grade }),
    ...(row.receipt !== null && { receipt: row.receipt }),
    ...(row.heat !== null && { heat: row.heat }),
  };
}
