import type { PreflightEvent } from "@cravix/core";
import { asc, type SQL } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { fromDb } from "../db/moment";
import { event } from "../db/schema/checklist";

const COLUMNS = {
  id: event.id,
  type: event.type,
  preflightId: event.preflightId,
  deviceId: event.deviceId,
  crewId: event.crewId,
  at: event.at,
  data: event.data,
};

type Row = {
  id: string;
  type: string;
  preflightId: string;
  deviceId: string;
  crewId: string;
  at: string;
  data: unknown;
};

/** A row as the event it was sent as. */
export function toEvent({ id, type, preflightId, deviceId, crewId, at, data }: Row): PreflightEvent {
  return {
    id,
    type,
    preflightId,
    deviceId,
    crewId,
    at: fromDb(at),
    data: typeof data === "string" ? JSON.parse(data) : data,
  } as PreflightEvent;
}

/**
 * Events on record, in the order of their ids; none, without asking, where there is nothing to ask for. `lock` holds what was read, and
 * the places where more of it would go, until the transaction ends.
 */
export async function readEvents(
  db: Db | Tx,
  where: SQL | undefined | false,
  lock?: "update",
): Promise<PreflightEvent[]> {
  if (where === false) return [];
  const query = db.select(COLUMNS).from(event).where(where).orderBy(asc(event.id));
  const rows = await (lock ? query.for(lock) : query);
  return rows.map(toEvent);
}
