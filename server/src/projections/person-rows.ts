import { byTime, type PreflightEvent } from "@cravix/core/checklist/stream/events";
import { eq, sql } from "drizzle-orm";
import { dbMoment, toDb } from "../db/moment";
import { personEntry } from "../db/schema/people";
import { upsert } from "../db/upsert";
import { addedIn, type GroupProjection, type Row } from "./projection";

/** Rows of events about people; of several for one item the latest counts. */
function toPersonRows(groupId: string, events: readonly PreflightEvent[]): Row[] {
  const rows = new Map<string, Row>();
  for (const event of [...events].sort(byTime)) {
    const row = toPersonRow(groupId, event);
    if (row) rows.set(`${row.person_id} ${row.kind} ${row.entry}`, row);
  }
  return [...rows.values()];
}

function toPersonRow(groupId: string, event: PreflightEvent): Row | undefined {
  if (!("personId" in event.data)) return undefined;
  const base = {
    group_id: groupId,
    person_id: event.data.personId,
    event_id: event.id,
    at: toDb(event.at),
  };
  if (event.type === "person.due-set")
    return { ...base, kind: "item", entry: event.data.item.id, body: JSON.stringify(event.data.item) };
  if (event.type === "person.due-dropped")
    return { ...base, kind: "item", entry: event.data.item, body: null };
  if (event.type === "person.done")
    return { ...base, kind: "work", entry: event.id, body: JSON.stringify(event.data.work) };
  return undefined;
}

const COLUMNS = ["group_id", "person_id", "event_id", "at", "kind", "entry", "body"] as const;

/** Due items of people, and their reviews and renewals. */
export const personProjection: GroupProjection = {
  name: "person_entry",
  per: "group",
  kinds: ["person"],
  version: 1,
  async write(tx, batch) {
    const rows = toPersonRows(batch.groupId, addedIn(batch, "person"));
    if (rows.length === 0) return;
    const cells = rows.map((row) => COLUMNS.map((column) => row[column] ?? null));
    const later = "(at is null or values(at) > at or (values(at) = at and values(event_id) >= event_id))";
    // Time and event id are updated last, because the other columns compare with the stored ones.
    await tx.execute(
      sql`insert into person_entry (${sql.raw(COLUMNS.join(", "))}) values ${sql.param(cells)}
        on duplicate key update body = if(${sql.raw(later)}, values(body), body),
          event_id = if(${sql.raw(later)}, values(event_id), event_id),
          at = greatest(coalesce(at, values(at)), values(at))`,
    );
  },
  rows: toPersonRows,
  stored: async (db, groupId) =>
    (await db.select().from(personEntry).where(eq(personEntry.groupId, groupId))).map((one) => ({
      group_id: one.groupId,
      person_id: one.personId,
      event_id: one.eventId,
      at: dbMoment(one.at),
      kind: one.kind,
      entry: one.entry,
      body: one.body && JSON.stringify(one.body),
    })),
  insert: (tx, rows) => upsert(tx, "person_entry", rows),
  clear: async (tx, groupId) => {
    await tx.delete(personEntry).where(eq(personEntry.groupId, groupId));
  },
};
