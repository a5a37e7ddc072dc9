import { createHash } from "node:crypto";
import { type FluidRow, fluidRowsOf, type PreflightState } from "@cravix/core";
import { inArray, sql } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { toDb } from "../db/moment";
import { fluidLog } from "../db/schema/fluids";
import { upsert } from "../db/upsert";

/** The same words at the same moment are the same line, wherever it came from. */
export function fluidRowId({ registration, fluid, entry, part = "", at, amount, unit }: FluidRow): string {
  const words = [registration, fluid, entry, part, at, amount, unit].join("|");
  return createHash("sha256").update(words).digest("hex").slice(0, 32);
}

const toRow = (row: FluidRow, preflightId: string | null) => ({
  id: fluidRowId(row),
  registration: row.registration,
  fluid: row.fluid,
  entry: row.entry,
  part: row.part ?? null,
  amount: row.amount,
  unit: row.unit,
  hours: row.hours ?? null,
  grade: row.grade ?? null,
  receipt: row.receipt ?? null,
  heat: row.heat ?? null,
  at: toDb(row.at),
  preflight_id: preflightId,
});

/** Writes the lines of folded preflights; those `withHistory` may have lines on record that were undone since. */
export async function writeFluidsOf(
  tx: Tx,
  states: readonly PreflightState[],
  withHistory: readonly string[],
): Promise<void> {
  if (withHistory.length > 0)
    await tx.delete(fluidLog).where(inArray(fluidLog.preflightId, [...withHistory]));
  await upsert(
    tx,
    "fluid_log",
    states.flatMap((state) => fluidRowsOf(state).map((row) => toRow(row, state.id))),
  );
}

const AT_ONCE = 1000;

/** Takes lines that came in a file; returns how many were new. What is on record already, from a walk or a file, stays as it is. */
export async function importFluids(db: Db, rows: readonly FluidRow[]): Promise<number> {
  let taken = 0;
  for (let i = 0; i < rows.length; i += AT_ONCE) {
    const part = rows.slice(i, i + AT_ONCE).map((row) => Object.values(toRow(row, null)));
    const [result] = await db.execute(sql`insert ignore into ${fluidLog}
      (id, registration, fluid, entry, part, amount, unit, hours, grade, receipt, heat, at, preflight_id)
      values ${sql.param(part)}`);
    taken += (result as unknown as { affectedRows: number }).affectedRows;
  }
  return taken;
}
