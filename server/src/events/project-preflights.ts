import { foldPreflight, mergeEvents, type PreflightEvent } from "@cravix/core";
import { inArray, sql } from "drizzle-orm";
import type { Tx } from "../db/database";
import { toDb } from "../db/moment";
import { event, preflight, reading } from "../db/schema/checklist";
import { readEvents } from "./read-events";

const READING_COLUMNS = "preflight_id, reading_key, registration, value, unit, at, crew_id";
const newValue = (column: string) => sql.raw(`values(${column})`);

/**
 * Folds the touched preflights anew and writes their rows. `withHistory` are those that had events before this batch: only these
 * are read back. Folding all of a preflight's events keeps the result right whatever the order of arrival.
 */
export async function projectPreflights(
  tx: Tx,
  preflightIds: readonly string[],
  withHistory: readonly string[],
  batch: readonly PreflightEvent[],
): Promise<void> {
  const stored =
    withHistory.length > 0 ? await readEvents(tx, inArray(event.preflightId, [...withHistory])) : [];
  const byPreflight = new Map<string, PreflightEvent[]>(preflightIds.map((id) => [id, []]));
  // What is on record comes first: where an id conflicts, the record stands.
  for (const e of mergeEvents(stored, batch)) byPreflight.get(e.preflightId)?.push(e);

  const states = [...byPreflight].map(([id, events]) => ({
    count: events.length,
    state: foldPreflight(id, events),
  }));
  const orNull = (iso: string | undefined) => (iso === undefined ? null : toDb(iso));
  await tx
    .insert(preflight)
    .values(
      states.map(({ count, state }) => ({
        id: state.id,
        registration: state.registration ?? null,
        crewId: state.crewId ?? null,
        listHash: state.listHash ?? null,
        startedAt: orNull(state.startedAt),
        lastAt: orNull(state.lastAt),
        conditions: state.conditions,
        answered: Object.keys(state.answers).length,
        found: state.discrepancies.length,
        verdict: state.signed?.verdict ?? null,
        decision: state.signed?.decision ?? null,
        signedAt: orNull(state.signed?.at),
        eventCount: count,
      })),
    )
    .onDuplicateKeyUpdate({
      set: {
        registration: newValue("registration"),
        crewId: newValue("crew_id"),
        listHash: newValue("list_hash"),
        startedAt: newValue("started_at"),
        lastAt: newValue("last_at"),
        conditions: newValue("conditions"),
        answered: newValue("answered"),
        found: newValue("found"),
        verdict: newValue("verdict"),
        decision: newValue("decision"),
        signedAt: newValue("signed_at"),
        eventCount: newValue("event_count"),
      },
    });

  // A reading that was undone must leave no row behind.
  if (withHistory.length > 0) await tx.delete(reading).where(inArray(reading.preflightId, [...withHistory]));
  const rows = states.flatMap(({ state }) =>
    Object.entries(state.readings).map(([key, r]) => [
      state.id,
      key,
      state.registration ?? null,
      r.value,
      r.unit,
      toDb(r.at),
      state.crewId ?? null,
    ]),
  );
  if (rows.length > 0)
    await tx.execute(sql`insert into reading (${sql.raw(READING_COLUMNS)}) values ${sql.param(rows)}`);
}
