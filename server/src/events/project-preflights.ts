import { inArray } from "drizzle-orm";
import type { Tx } from "../db/database";
import { toDb } from "../db/moment";
import { reading } from "../db/schema/checklist";
import { upsert } from "../db/upsert";
import { writeFluidsOf } from "../fluids/write-fluids";
import type { FoldedStream } from "./fold-streams";

const orNull = (iso: string | undefined) => (iso === undefined ? null : toDb(iso));

/** Row of a folded preflight. */
export const toPreflightRow = (groupId: string, { count, state }: Pick<FoldedStream, "count" | "state">) => ({
  id: state.id,
  group_id: groupId,
  registration: state.registration ?? null,
  crew_id: state.crewId ?? null,
  list_hash: state.listHash ?? null,
  started_at: orNull(state.startedAt),
  last_at: orNull(state.lastAt),
  conditions: JSON.stringify(state.conditions),
  answered: Object.keys(state.answers).length,
  found: state.discrepancies.length,
  verdict: state.signed?.verdict ?? null,
  decision: state.signed?.decision ?? null,
  signed_at: orNull(state.signed?.at),
  event_count: count,
});

/** Rows of its readings, with the person who read them. */
export const toReadingRows = (groupId: string, { state }: Pick<FoldedStream, "state">) =>
  Object.entries(state.readings).map(([key, r]) => ({
    preflight_id: state.id,
    group_id: groupId,
    reading_key: key,
    registration: state.registration ?? null,
    value: r.value,
    unit: r.unit,
    at: toDb(r.at),
    crew_id: r.crewId,
  }));

/** Writes projections of folded streams: preflight rows with readings, and fuel and oil log entries. */
export async function writeStreams(
  tx: Tx,
  groupId: string,
  walks: readonly FoldedStream[],
  others: readonly FoldedStream[],
): Promise<void> {
  await upsert(
    tx,
    "preflight",
    walks.map((walk) => toPreflightRow(groupId, walk)),
  );
  // Undone readings must not leave rows.
  const before = walks.filter((walk) => walk.seen).map((walk) => walk.id);
  if (before.length > 0) await tx.delete(reading).where(inArray(reading.preflightId, before));
  await writeFluidsOf(tx, groupId, [...walks, ...others]);
  await upsert(
    tx,
    "reading",
    walks.flatMap((walk) => toReadingRows(groupId, walk)),
  );
}
