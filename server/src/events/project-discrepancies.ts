import { foldDiscrepancies, mergeEvents, type PreflightEvent } from "@cravix/core";
import { inArray, sql } from "drizzle-orm";
import type { Tx } from "../db/database";
import { toDb } from "../db/moment";
import { event } from "../db/schema/checklist";
import { discrepancy } from "../db/schema/discrepancy";
import { readEvents } from "./read-events";

const newValue = (column: string) => sql.raw(`values(${column})`);
const about = (e: PreflightEvent) => ("discrepancyId" in e.data ? [e.data.discrepancyId] : []);

/** Folds the discrepancies that a batch touches, by opening, observing, closing or undoing, from all their events. */
export async function projectDiscrepancies(tx: Tx, batch: readonly PreflightEvent[]): Promise<void> {
  const undone = batch.flatMap((e) => (e.type === "item.undone" ? [e.data.eventId] : []));
  const undoneEvents = undone.length > 0 ? await readEvents(tx, inArray(event.id, undone)) : [];
  const ids = [...new Set([...batch, ...undoneEvents].flatMap(about))].sort();
  if (ids.length === 0) return;
  const events = await readEvents(tx, inArray(event.discrepancyId, ids));
  const undos = await readEvents(
    tx,
    inArray(
      event.undoesId,
      events.map((e) => e.id),
    ),
  );
  const states = foldDiscrepancies(mergeEvents(events, undos));
  const gone = ids.filter((id) => !states.some((state) => state.id === id));
  // Its opening was undone, or has not arrived yet.
  if (gone.length > 0) await tx.delete(discrepancy).where(inArray(discrepancy.id, gone));
  if (states.length === 0) return;
  await tx
    .insert(discrepancy)
    .values(
      states.map((s) => ({
        id: s.id,
        registration: s.registration,
        stationId: s.stationId,
        text: s.text,
        grade: s.grade,
        openedAt: toDb(s.openedAt),
        openedBy: s.openedBy,
        measure: s.measure ?? null,
        observations: s.observations,
        closedAt: s.closed ? toDb(s.closed.at) : null,
        closedBy: s.closed?.crewId ?? null,
        closedHow: s.closed?.how ?? null,
      })),
    )
    .onDuplicateKeyUpdate({
      set: {
        registration: newValue("registration"),
        stationId: newValue("station_id"),
        text: newValue("text"),
        grade: newValue("grade"),
        openedAt: newValue("opened_at"),
        openedBy: newValue("opened_by"),
        measure: newValue("measure"),
        observations: newValue("observations"),
        closedAt: newValue("closed_at"),
        closedBy: newValue("closed_by"),
        closedHow: newValue("closed_how"),
      },
    });
}
