import { type DiscrepancyState, foldDiscrepancies, mergeEvents, type PreflightEvent } from "@cravix/core";
import { inArray } from "drizzle-orm";
import type { Tx } from "../db/database";
import { toDb } from "../db/moment";
import { event } from "../db/schema/checklist";
import { discrepancy } from "../db/schema/discrepancy";
import { upsert } from "../db/upsert";
import { readEvents } from "./read-events";

const about = (e: PreflightEvent) => ("discrepancyId" in e.data ? [e.data.discrepancyId] : []);

/**
 * Reads what is on record about the discrepancies that a batch touches, by opening, observing, closing or undoing, and what took any
 * of it back. Locked: two preflights may measure the same discrepancy at once, and the later must see the earlier's.
 */
export async function readDiscrepancyEvents(
  tx: Tx,
  batch: readonly PreflightEvent[],
): Promise<PreflightEvent[]> {
  const undone = batch.flatMap((e) => (e.type === "item.undone" ? [e.data.eventId] : []));
  const undoneEvents = await readEvents(tx, undone.length > 0 && inArray(event.id, undone));
  const ids = [...new Set([...batch, ...undoneEvents].flatMap(about))].sort();
  if (ids.length === 0) return [];
  const events = await readEvents(tx, inArray(event.discrepancyId, ids), "update");
  const undos = await readEvents(
    tx,
    events.length > 0 &&
      inArray(
        event.undoesId,
        events.map((e) => e.id),
      ),
  );
  return [...events, ...undos];
}

export interface ProjectedDiscrepancies {
  states: DiscrepancyState[];
  /** Their opening was undone, or has not arrived yet. */
  gone: string[];
}

/** Folds the discrepancies that a batch touches from what was on record about them and the batch. */
export function projectDiscrepancies(
  stored: readonly PreflightEvent[],
  batch: readonly PreflightEvent[],
): ProjectedDiscrepancies {
  const ids = [...new Set([...stored, ...batch].flatMap(about))].sort();
  if (ids.length === 0) return { states: [], gone: [] };
  const states = foldDiscrepancies(mergeEvents(stored, batch));
  return { states, gone: ids.filter((id) => !states.some((state) => state.id === id)) };
}

export async function writeDiscrepancies(tx: Tx, { states, gone }: ProjectedDiscrepancies): Promise<void> {
  if (gone.length > 0) await tx.delete(discrepancy).where(inArray(discrepancy.id, gone));
  await upsert(
    tx,
    "discrepancy",
    states.map((s) => ({
      id: s.id,
      registration: s.registration,
      station_id: s.stationId,
      text: s.text,
      grade: s.grade,
      opened_at: toDb(s.openedAt),
      opened_by: s.openedBy,
      measure: s.measure ?? null,
      observations: JSON.stringify(s.observations),
      closed_at: s.closed ? toDb(s.closed.at) : null,
      closed_by: s.closed?.crewId ?? null,
      closed_how: s.closed?.how ?? null,
    })),
  );
}
