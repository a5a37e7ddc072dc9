import { byTime, type PreflightEvent } from "@cravix/core/checklist/stream/events";
import { eq, sql } from "drizzle-orm";
import { toDb } from "../db/moment";
import { personEntry } from "../db/schema/people";
import { upsert } from "../db/upsert";
import { addedIn, type GroupProjection } from "./projection";
import { storedRow } from "./stored-row";

type PersonRow = typeof personEntry.$inferInsert;

/** Rows of events about people; of several for one item the latest counts. */
function toPersonRows(groupId: string, events: readonly PreflightEvent[]): PersonRow[] {
  const rows = new Map<string, PersonRow>();
  for (const event of [...events].sort(byTime)) {
    const row = toPersonRow(groupId, event);
    if (row) rows.set(`${row.personId} ${row.kind} ${row.entry}`, row);
  }
  return [...rows.values()];
}

function toPersonRow(groupId: string, event: PreflightEvent): PersonRow | undefined {
  if (!("personId" in event.data)) return undefined;
  const base = {
    groupId: groupId,
    personId: event.data.personId,
    eventId: event.id,
    at: toDb(event.at),
  };
  if (event.type === "person.due-set")
    return { ...base, kind: "item", entry: event.data.item.id, body: event.data.item };
  if (event.type === "person.due-dropped")
    return { ...base, kind: "item", entry: event.data.item, body: null };
  if (event.type === "person.done") return { ...base, kind: "work", entry: event.id, body: event.data.work };
  return undefined;
}

const later = sql`(at is null or values(at) > at or (values(at) = at and values(event_id) >= event_id))`;
/**
 * Of several events for one item the latest counts. Drizzle sets columns in the order of the table: the event's id while the stored
 * time still stands, the body last, by whether the event's id was taken.
 */
const LATEST = {
  eventId: sql`if(${later}, values(event_id), event_id)`,
  at: sql`greatest(coalesce(at, values(at)), values(at))`,
  body: sql`if(event_id = values(event_id), values(body), body)`,
};

/** Due items of people, and their reviews and renewals. */
export const personProjection: GroupProjection = {
  name: "person_entry",
  per: "group",
  kinds: ["person"],
  version: 1,
  async write(tx, batch) {
    const rows = toPersonRows(batch.groupId, addedIn(batch, "person"));
    if (rows.length === 0) return;
    await tx.insert(personEntry).values(rows).onDuplicateKeyUpdate({ set: LATEST });
  },
  rows: toPersonRows,
  stored: async (db, groupId) =>
    (await db.select().from(personEntry).where(eq(personEntry.groupId, groupId))).map((row) =>
      storedRow(personEntry, row),
    ),
  insert: (tx, rows) => upsert(tx, personEntry, rows as PersonRow[]),
  clear: async (tx, groupId) => {
    await tx.delete(personEntry).where(eq(personEntry.groupId, groupId));
  },
};
