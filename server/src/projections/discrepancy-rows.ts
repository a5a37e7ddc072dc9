import {
  type DiscrepancyEvent,
  type DiscrepancyState,
  foldCountedDiscrepancies,
  foldDiscrepancies,
} from "@cravix/core/checklist/stream/fold-discrepancies";
import { and, asc, eq, gt, inArray, notInArray } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { toDb } from "../db/moment";
import { event } from "../db/schema/checklist";
import { discrepancy } from "../db/schema/discrepancy";
import { upsert } from "../db/upsert";
import type { FoldedStream } from "../record/fold-streams";
import { readEvents } from "../record/read-events";
import type { DerivedProjection, Difference } from "./projection";
import { canonicalRow, storedRow } from "./stored-row";

const AT_ONCE = 40;

/** Discrepancies: an event about one may be in any stream, so each is folded from several. */
export const discrepancyProjection: DerivedProjection = {
  name: "discrepancy",
  per: "record",
  async write(tx, { groupId, discrepancies, streams }) {
    const folded = streams.map((one) => one.folded);
    await writeCounts(tx, folded);
    await writeDiscrepancies(tx, groupId, discrepancies, folded);
  },
  async differences(db, groupId) {
    const found: Difference[] = [];
    const known = new Set<string>();
    for (let after = ""; ; ) {
      const ids = await db
        .selectDistinct({ id: event.discrepancyId })
        .from(event)
        .where(and(eq(event.groupId, groupId), gt(event.discrepancyId, after)))
        .orderBy(asc(event.discrepancyId))
        .limit(AT_ONCE);
      if (ids.length === 0) break;
      const chunk = ids.flatMap(({ id }) => id ?? []);
      after = chunk.at(-1) ?? "";
      for (const id of chunk) known.add(id);
      found.push(...(await differencesOf(db, groupId, chunk)));
    }
    const rows = await db
      .select({ id: discrepancy.id })
      .from(discrepancy)
      .where(eq(discrepancy.groupId, groupId));
    for (const { id } of rows)
      if (!known.has(id))
        found.push({ table: "discrepancy", id, folded: null, written: "a row without an event" });
    return found;
  },
};

/** Folds these discrepancies from the counting events of the folded streams and all others on record. */
async function writeDiscrepancies(
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
    discrepancy,
    states.map((state) => toDiscrepancyRow(groupId, state)),
  );
}

type DiscrepancyRow = typeof discrepancy.$inferInsert;

const toDiscrepancyRow = (groupId: string, s: DiscrepancyState): DiscrepancyRow => ({
  id: s.id,
  groupId: groupId,
  registration: s.registration,
  stationId: s.stationId,
  itemId: s.itemId ?? null,
  text: s.text,
  grade: s.grade,
  openedAt: toDb(s.openedAt),
  openedBy: s.openedBy,
  measure: s.measure ?? null,
  cause: s.cause ?? null,
  observations: s.observations,
  closedAt: s.closed ? toDb(s.closed.at) : null,
  closedBy: s.closed?.crewId ?? null,
  closedHow: s.closed?.how ?? null,
  life: lifeOf(s),
  mergedInto: s.merged?.into ?? null,
  withdrawnAt: s.withdrawn ? toDb(s.withdrawn.at) : null,
  withdrawnBy: s.withdrawn?.crewId ?? null,
});

function lifeOf({
  deferred,
  grades,
  asked,
  merged,
  limit,
  photographs,
  closed,
}: DiscrepancyState): DiscrepancyRow["life"] {
  const { noFault, release } = closed ?? {};
  const life = Object.entries({ deferred, grades, asked, merged, noFault, release, limit, photographs });
  const told = life.filter(([, part]) => part !== undefined);
  return told.length === 0 ? null : (Object.fromEntries(told) as DiscrepancyRow["life"]);
}

/** Stores which events count for their discrepancy. */
async function writeCounts(tx: Tx, streams: readonly FoldedStream[]): Promise<void> {
  for (const counts of [true, false]) {
    const ids = streams.flatMap((s) => s.changed.filter((c) => c.counts === counts).map((c) => c.id));
    if (ids.length > 0)
      await tx
        .update(event)
        .set({ counts: counts ? 1 : 0 })
        .where(inArray(event.id, ids));
  }
}

async function differencesOf(db: Db, groupId: string, ids: readonly string[]): Promise<Difference[]> {
  const ofGroup = eq(event.groupId, groupId);
  const about = await readEvents(db, and(ofGroup, inArray(event.discrepancyId, [...ids])));
  const streams = [...new Set(about.map((e) => e.streamId))];
  const whole = await readEvents(db, inArray(event.streamId, streams));
  // Before the undo rules, an undo could be in another stream.
  const asBefore = await readEvents(
    db,
    and(
      ofGroup,
      eq(event.rules, 1),
      inArray(
        event.undoesId,
        about.map((e) => e.id),
      ),
    ),
  );
  const states = foldDiscrepancies([...whole, ...asBefore]);
  const rows = await db
    .select()
    .from(discrepancy)
    .where(and(eq(discrepancy.groupId, groupId), inArray(discrepancy.id, [...ids])));
  return ids.flatMap((id): Difference[] => {
    const state = states.find((one) => one.id === id);
    const row = rows.find((one) => one.id === id);
    const folded = state ? toDiscrepancyRow(groupId, state) : null;
    const written = row ? storedRow(discrepancy, row) : null;
    return canonicalRow(folded) === canonicalRow(written)
      ? []
      : [{ table: "discrepancy", id, folded, written }];
  });
}
