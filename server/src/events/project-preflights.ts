import { foldPreflight, mergeEvents, type PreflightEvent, type PreflightState } from "@cravix/core";
import { inArray } from "drizzle-orm";
import type { Tx } from "../db/database";
import { toDb } from "../db/moment";
import { reading } from "../db/schema/checklist";
import { upsert } from "../db/upsert";
import { writeFluidsOf } from "../fluids/write-fluids";

export interface PreflightRow {
  count: number;
  state: PreflightState;
}

/**
 * Folds the touched preflights anew from what was on record of them and the batch. Folding all of a preflight's events keeps the
 * result right whatever the order of arrival.
 */
export function projectPreflights(
  preflightIds: readonly string[],
  stored: readonly PreflightEvent[],
  batch: readonly PreflightEvent[],
): PreflightRow[] {
  const byPreflight = new Map<string, PreflightEvent[]>(preflightIds.map((id) => [id, []]));
  // What is on record comes first: where an id conflicts, the record stands.
  for (const e of mergeEvents(stored, batch)) byPreflight.get(e.preflightId)?.push(e);
  return [...byPreflight].map(([id, events]) => ({ count: events.length, state: foldPreflight(id, events) }));
}

/** Writes the rows of folded preflights; those `withHistory` may have readings on record that were undone since. */
export async function writePreflights(
  tx: Tx,
  rows: readonly PreflightRow[],
  withHistory: readonly string[],
): Promise<void> {
  const orNull = (iso: string | undefined) => (iso === undefined ? null : toDb(iso));
  await upsert(
    tx,
    "preflight",
    rows.map(({ count, state }) => ({
      id: state.id,
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
    })),
  );
  // A reading that was undone must leave no row behind.
  if (withHistory.length > 0) await tx.delete(reading).where(inArray(reading.preflightId, [...withHistory]));
  await writeFluidsOf(
    tx,
    rows.map(({ state }) => state),
    withHistory,
  );
  await upsert(
    tx,
    "reading",
    rows.flatMap(({ state }) =>
      Object.entries(state.readings).map(([key, r]) => ({
        preflight_id: state.id,
        reading_key: key,
        registration: state.registration ?? null,
        value: r.value,
        unit: r.unit,
        at: toDb(r.at),
        crew_id: state.crewId ?? null,
      })),
    ),
  );
}
