import type { PreflightEvent } from "@cravix/core";
import { inArray, sql } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { toDb } from "../db/moment";
import { event as eventTable, preflight } from "../db/schema/checklist";
import { projectDiscrepancies } from "./project-discrepancies";
import { projectPreflights } from "./project-preflights";
import { readEvents, toEvent } from "./read-events";

export interface AppendOutcome {
  taken: number;
  repeated: number;
  /** Ids that are on record with other content; the record stands. */
  conflicting: string[];
}

const RETRIES = 4;
const COLUMNS =
  "id, preflight_id, device_id, crew_id, type, at, received_at, discrepancy_id, undoes_id, data";

/** Appends events and brings the projections up to date in one transaction. Repeats are harmless, order does not matter. */
export async function appendEvents(
  db: Db,
  events: readonly PreflightEvent[],
  now: Date,
): Promise<AppendOutcome> {
  if (events.length === 0) return { taken: 0, repeated: 0, conflicting: [] };
  for (let attempt = 1; ; attempt++) {
    try {
      return await db.transaction((tx) => append(tx, events, now));
    } catch (error) {
      // Two devices sending the same preflight at once: the loser of a deadlock simply tries again.
      if (attempt >= RETRIES || !isDeadlock(error)) throw error;
    }
  }
}

async function append(tx: Tx, events: readonly PreflightEvent[], now: Date): Promise<AppendOutcome> {
  const preflightIds = [...new Set(events.map((e) => e.preflightId))].sort();
  // Takes the rows' locks in one order, so that each preflight is folded by one transaction at a time.
  const preflightRows = sql.param(preflightIds.map((id) => [id, "[]"]));
  const [locked] = await tx.execute(sql`insert into ${preflight} (id, conditions) values ${preflightRows}
    on duplicate key update id = values(id) returning id, event_count as eventCount`);
  const before = locked as unknown as { id: string; eventCount: number }[];
  const withHistory = before.filter((row) => row.eventCount > 0).map((row) => row.id);

  const inserted = await insertEvents(tx, events, now);
  const outcome = { taken: inserted, repeated: 0, conflicting: [] as string[] };
  if (inserted < events.length) {
    const stored = await readEvents(
      tx,
      inArray(
        eventTable.id,
        events.map((e) => e.id),
      ),
    );
    const storedById = new Map(stored.map((e) => [e.id, canonical(e)]));
    outcome.conflicting = events.filter((e) => storedById.get(e.id) !== canonical(e)).map((e) => e.id);
    outcome.repeated = events.length - inserted - outcome.conflicting.length;
  }
  if (inserted > 0) {
    await projectPreflights(tx, preflightIds, withHistory, events);
    await projectDiscrepancies(tx, events);
  }
  return outcome;
}

/** Writes the events in one statement and returns how many were new. The driver puts the rows into words: once, and fast. */
async function insertEvents(tx: Tx, events: readonly PreflightEvent[], now: Date): Promise<number> {
  const receivedAt = toDb(now.toISOString());
  const rows = sql.param(events.map((e) => toRow(e, receivedAt)));
  const [result] = await tx.execute(sql`insert ignore into event (${sql.raw(COLUMNS)}) values ${rows}`);
  return (result as unknown as { affectedRows: number }).affectedRows;
}

const toRow = (e: PreflightEvent, receivedAt: string) => [
  e.id,
  e.preflightId,
  e.deviceId,
  e.crewId,
  e.type,
  toDb(e.at),
  receivedAt,
  "discrepancyId" in e.data ? e.data.discrepancyId : null,
  e.type === "item.undone" ? e.data.eventId : null,
  JSON.stringify(e.data),
];

const canonical = (event: PreflightEvent) =>
  JSON.stringify(sortKeys(toEvent({ ...event, at: toDb(event.at) })));

function sortKeys(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sortKeys);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, inner]) => [key, sortKeys(inner)]),
  );
}

function isDeadlock(error: unknown): boolean {
  const codes = [error, (error as { cause?: unknown }).cause].map(
    (e) => (e as { code?: string } | undefined)?.code,
  );
  return codes.includes("ER_LOCK_DEADLOCK") || codes.includes("ER_LOCK_WAIT_TIMEOUT");
}
