import {
  type DiscrepancyEvent,
  type DiscrepancyState,
  foldCountedDiscrepancies,
  isAboutDiscrepancy,
  type PreflightEvent,
} from "@cravix/core";
import { and, eq, inArray, notInArray, sql } from "drizzle-orm";
import type { Tx } from "../db/database";
import { toDb } from "../db/moment";
import { event } from "../db/schema/checklist";
import { discrepancy, discrepancyKey } from "../db/schema/discrepancy";
import { upsert } from "../db/upsert";
import type { FoldedStream, TouchedStream } from "./fold-streams";
import { readEvents } from "./read-events";

/** Events that can change whether others of their stream count. */
const CHANGES: readonly PreflightEvent["type"][] = [
  "item.undone",
  "discrepancy.withdrawn",
  "preflight.started",
  "verdict.signed",
];

/** Discrepancies a stream affects: those of its new events, and all of the stream's if these undo something. */
export function touchedBy({ stored, added }: TouchedStream): string[] {
  const all = added.some((e) => CHANGES.includes(e.type)) ? [...stored.map((s) => s.event), ...added] : added;
  return all.filter(isAboutDiscrepancy).map((e) => e.data.discrepancyId);
}

/** Locks discrepancies in a fixed order until the transaction ends. */
export async function lockDiscrepancies(tx: Tx, ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return;
  const rows = sql.param([...ids].sort().map((id) => [id]));
  await tx.execute(
    sql`insert into ${discrepancyKey} (id) values ${rows} on duplicate key update id = values(id)`,
  );
}

/** Folds these discrepancies from the counting events of the folded streams and all others on record. */
export async function projectDiscrepancies(
  tx: Tx,
  groupId: string,
  ids: readonly string[],
  streams: readonly FoldedStream[],
): Promise<void> {
  if (ids.length === 0) return;
  const elsewhere = await readEvents(
    tx,
    and(
      eq(event.groupId, groupId),
      inArray(event.discrepancyId, [...ids]),
      eq(event.counts, 1),
      notInArray(
        event.streamId,
        streams.map((stream) => stream.id),
      ),
    ),
  );
  const wanted = new Set(ids);
  const here = streams.flatMap((s) => s.counted).filter((e) => wanted.has(e.data.discrepancyId));
  const states = foldCountedDiscrepancies([...(elsewhere as DiscrepancyEvent[]), ...here]);
  const gone = ids.filter((id) => !states.some((state) => state.id === id));
  // Its opening has not arrived yet.
  if (gone.length > 0)
    await tx.delete(discrepancy).where(and(eq(discrepancy.groupId, groupId), inArray(discrepancy.id, gone)));
  await upsert(
    tx,
    "discrepancy",
    states.map((state) => toDiscrepancyRow(groupId, state)),
  );
}

export const toDiscrepancyRow = (groupId: string, s: DiscrepancyState) => ({
  id: s.id,
  group_id: groupId,
  registration: s.registration,
  station_id: s.stationId,
  item_id: s.itemId ?? null,
  text: s.text,
  grade: s.grade,
  opened_at: toDb(s.openedAt),
  opened_by: s.openedBy,
  measure: s.measure ?? null,
  cause: s.cause ?? null,
  observations: JSON.stringify(s.observations),
  closed_at: s.closed ? toDb(s.closed.at) : null,
  closed_by: s.closed?.crewId ?? null,
  closed_how: s.closed?.how ?? null,
  life: lifeOf(s),
  merged_into: s.merged?.into ?? null,
  withdrawn_at: s.withdrawn ? toDb(s.withdrawn.at) : null,
  withdrawn_by: s.withdrawn?.crewId ?? null,
});

function lifeOf({
  deferred,
  grades,
  asked,
  merged,
  limit,
  photographs,
  closed,
}: DiscrepancyState): string | null {
  const { noFault, release } = closed ?? {};
  const life = { deferred, grades, asked, merged, noFault, release, limit, photographs };
  return Object.values(life).every((part) => part === undefined) ? null : JSON.stringify(life);
}

/** Stores which events count for their discrepancy. */
export async function writeCounts(tx: Tx, streams: readonly FoldedStream[]): Promise<void> {
  for (const counts of [true, false]) {
    const ids = streams.flatMap((s) => s.changed.filter((c) => c.counts === counts).map((c) => c.id));
    if (ids.length > 0)
      await tx
        .update(event)
        .set({ counts: counts ? 1 : 0 })
        .where(inArray(event.id, ids));
  }
}
