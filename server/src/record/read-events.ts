import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { upgradeEvent } from "@cravix/core/legacy-vocabulary";
import { asc, type SQL } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { fromDb } from "../db/moment";
import { event } from "../db/schema/checklist";

const COLUMNS = {
  id: event.id,
  type: event.type,
  stream: event.stream,
  streamId: event.streamId,
  deviceId: event.deviceId,
  crewId: event.crewId,
  at: event.at,
  deviceAt: event.deviceAt,
  rules: event.rules,
  counts: event.counts,
  data: event.data,
};

interface Row {
  id: string;
  type: string;
  stream: string;
  streamId: string;
  deviceId: string;
  crewId: string;
  at: string;
  deviceAt: string | null;
  rules: number;
  data: unknown;
}

/** Event of a row, upgraded; the stored row is never changed. */
function toEvent(row: Row): PreflightEvent {
  const { id, type, stream, streamId, deviceId, crewId, at, deviceAt, rules, data } = row;
  return upgradeEvent({
    id,
    type,
    ...(stream !== "preflight" && { stream }),
    streamId,
    deviceId,
    crewId,
    at: fromDb(at),
    ...(deviceAt !== null && { deviceAt: fromDb(deviceAt) }),
    ...(rules === 1 && { rules: 1 }),
    data: typeof data === "string" ? JSON.parse(data) : data,
  }) as PreflightEvent;
}

/** Recorded events in id order; empty without a query if there is no condition. */
export async function readEvents(db: Db | Tx, where: SQL | undefined | false): Promise<PreflightEvent[]> {
  return (await readCounted(db, where)).map(({ event: one }) => one);
}

/** The same, with whether each counts for its discrepancy. */
export async function readCounted(
  db: Db | Tx,
  where: SQL | undefined | false,
): Promise<{ event: PreflightEvent; counts: boolean }[]> {
  if (where === false) return [];
  const rows = await db.select(COLUMNS).from(event).where(where).orderBy(asc(event.id));
  return rows.map((row) => ({ event: toEvent(row), counts: row.counts === 1 }));
}
