import type { PreflightEvent } from "@cravix/core";
import { inArray, sql } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { toDb } from "../db/moment";
import { event as eventTable, preflight } from "../db/schema/checklist";
import { projectDiscrepancies, readDiscrepancyEvents, writeDiscrepancies } from "./project-discrepancies";
import { projectPreflights, writePreflights } from "./project-preflights";
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

  const stored = await readEvents(tx, withHistory.length > 0 && inArray(eventTable.preflightId, withHistory));
  const about = await readDiscrepancyEvents(tx, events);
  const project = (batch: readonly PreflightEvent[]) => ({
    preflights: projectPreflights(preflightIds, stored, batch),
    discrepancies: projectDiscrepancies(about, batch),
  });
  // The database is busy for a while with the events: the folding is done in that time. Nothing more is sent until it has taken them,
  // for after a deadlock it would write what comes next outside of the transaction.
  const inserting = insertEvents(tx, events, now);
  const [inserted, projected] = await Promise.all([inserting, afterThisTurn(() => project(events))]);
  const outcome = { taken: inserted, repeated: 0, conflicting: [] as string[] };
  if (inserted < events.length) {
    const ids = events.map((e) => e.id);
    const onRecord = await readEvents(tx, inArray(eventTable.id, ids));
    const storedById = new Map(onRecord.map((e) => [e.id, canonical(e)]));
    outcome.conflicting = ids.filter(
      (id, i) => storedById.get(id) !== canonical(events[i] as PreflightEvent),
    );
    outcome.repeated = events.length - inserted - outcome.conflicting.length;
  }
  const conflicting = new Set(outcome.conflicting);
  // The record stands: what said something else under a known id has no say in the projections either.
  const { preflights, discrepancies } =
    conflicting.size > 0 ? project(events.filter((e) => !conflicting.has(e.id))) : projected;
  if (inserted > 0) {
    await writePreflights(tx, preflights, withHistory);
    await writeDiscrepancies(tx, discrepancies);
  }
  return outcome;
}

/** Lets a long statement out of the door before the processor is taken. */
async function afterThisTurn<T>(work: () => T): Promise<T> {
  await new Promise(setImmediate);
  return work();
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
