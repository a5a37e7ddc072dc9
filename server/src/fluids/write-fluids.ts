import { createHash } from "node:crypto";
import type { PreflightState } from "@cravix/core/checklist/stream/preflight-state";
import { type FluidRow, fluidRowsOf } from "@cravix/core/logs/fluid-rows";
import { inArray } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { toDb } from "../db/moment";
import { whileBusy } from "../db/retried";
import { fluidLog } from "../db/schema/fluids";
import { HOME_GROUP } from "../db/schema/group";
import { upsert } from "../db/upsert";

/** Id derived from the content: the same entry at the same time is stored once per group. */
export function fluidRowId(groupId: string, row: FluidRow): string {
  const { registration, fluid, entry, part = "", at, amount, unit } = row;
  // Entries of the first group keep ids without a group.
  const group = groupId === HOME_GROUP ? [] : [groupId];
  const words = [...group, registration, fluid, entry, part, at, amount, unit].join("|");
  return createHash("sha256").update(words).digest("hex").slice(0, 32);
}

/** Row of an entry; imported ones belong to no stream. */
export const toFluidRow = (groupId: string, row: FluidRow, streamId: string) => ({
  id: fluidRowId(groupId, row),
  groupId: groupId,
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
  streamId: streamId,
});

/** Writes entries of folded streams; earlier entries may have been undone. */
export async function writeFluidsOf(
  tx: Tx,
  groupId: string,
  streams: readonly { id: string; seen: boolean; state: PreflightState }[],
): Promise<void> {
  const before = streams.filter((stream) => stream.seen).map((stream) => stream.id);
  if (before.length > 0) await tx.delete(fluidLog).where(inArray(fluidLog.streamId, before));
  await upsert(
    tx,
    fluidLog,
    streams.flatMap(({ state }) => fluidRowsOf(state).map((row) => toFluidRow(groupId, row, state.id))),
  );
}

const AT_ONCE = 1000;

/** Imports entries; returns the number of new ones. Existing entries are unchanged. */
export async function importFluids(db: Db, rows: readonly FluidRow[], groupId: string): Promise<number> {
  let taken = 0;
  for (let i = 0; i < rows.length; i += AT_ONCE) {
    const part = rows.slice(i, i + AT_ONCE).map((row) => toFluidRow(groupId, row, ""));
    const known = await db
      .select({ id: fluidLog.id })
      .from(fluidLog)
      .where(
        inArray(
          fluidLog.id,
          part.map((row) => row.id),
        ),
      );
    const ids = new Set(known.map((row) => row.id));
    const fresh = part.filter((row) => !ids.has(row.id));
    if (fresh.length === 0) continue;
    const [result] = await whileBusy(() => db.insert(fluidLog).ignore().values(fresh));
    taken += result.affectedRows;
  }
  return taken;
}
