import {
  type AircraftType,
  applyVariant,
  classOf,
  type FlownByPerson,
  localDate,
  type PersonDue,
  type PersonRecord,
  type PersonWork,
  type PreflightEvent,
} from "@cravix/core";
import { upgradeFile } from "@cravix/core/legacy-vocabulary";
import { and, eq, gte, sql } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { toDb } from "../db/moment";
import { flightLog } from "../db/schema/airworthiness";
import { aircraft, aircraftType } from "../db/schema/fleet";
import { personEntry } from "../db/schema/people";

/** Writes due items of people; of several events for one item the latest counts, in any order of arrival. */
export async function projectPeople(
  tx: Tx,
  groupId: string,
  added: readonly PreflightEvent[],
): Promise<void> {
  const rows = personRowsOf(groupId, added).map((row) => [
    row.group_id,
    row.person_id,
    row.entry,
    row.kind,
    row.event_id,
    row.body,
  ]);
  if (rows.length === 0) return;
  // The event id is updated last, because the other columns compare with the stored one.
  await tx.execute(
    sql`insert into person_entry (group_id, person_id, entry, kind, event_id, body) values ${sql.param(rows)}
      on duplicate key update body = if(values(event_id) >= event_id, values(body), body),
        event_id = greatest(event_id, values(event_id))`,
  );
}

/** Rows of events about people, one per entry. */
export function personRowsOf(groupId: string, events: readonly PreflightEvent[]) {
  const rows = new Map<string, ReturnType<typeof toRow>>();
  for (const event of [...events].sort((a, b) => (a.id < b.id ? -1 : 1))) {
    const row = toRow(groupId, event);
    if (row) rows.set(`${row.person_id} ${row.kind} ${row.entry}`, row);
  }
  return [...rows.values()].flatMap((row) => row ?? []);
}

function toRow(groupId: string, event: PreflightEvent) {
  if (!("personId" in event.data)) return undefined;
  const { personId } = event.data;
  const base = { group_id: groupId, person_id: personId, event_id: event.id };
  if (event.type === "person.due-set")
    return {
      ...base,
      kind: "item" as const,
      entry: event.data.item.id,
      body: JSON.stringify(event.data.item),
    };
  if (event.type === "person.due-dropped")
    return { ...base, kind: "item" as const, entry: event.data.item, body: null };
  if (event.type === "person.done")
    return { ...base, kind: "work" as const, entry: event.id, body: JSON.stringify(event.data.work) };
  return undefined;
}

/** Days of flights that can count; recency looks back some months. */
const BACK_DAYS = 400;

/** Records of one person, and their flights as pilot from the technical log. */
export async function readPerson(
  db: Db,
  groupId: string,
  personId: string,
  now: Date,
): Promise<PersonRecord> {
  const entries = await db
    .select()
    .from(personEntry)
    .where(and(eq(personEntry.groupId, groupId), eq(personEntry.personId, personId)));
  const flights = await db
    .select({ line: flightLog.line, type: aircraftType.body, own: aircraft.body })
    .from(flightLog)
    .innerJoin(
      aircraft,
      and(eq(aircraft.groupId, flightLog.groupId), eq(aircraft.registration, flightLog.registration)),
    )
    .innerJoin(
      aircraftType,
      and(eq(aircraftType.groupId, aircraft.groupId), eq(aircraftType.id, aircraft.typeId)),
    )
    .where(
      and(
        eq(flightLog.groupId, groupId),
        eq(flightLog.pilot, personId),
        eq(flightLog.struck, 0),
        gte(flightLog.off, toDb(new Date(now.getTime() - BACK_DAYS * 86_400_000).toISOString())),
      ),
    );
  const classes = new Map<unknown, FlownByPerson["class"]>();
  const flown = flights.map(({ line, type, own }): FlownByPerson => {
    const known = classes.get(type.id);
    const kind =
      known ?? classOf(type.stub ? type : applyVariant(upgradeFile(type) as AircraftType, own.year).type);
    classes.set(type.id, kind);
    const landings = line.counts.landings ?? 1;
    return {
      date: localDate(line.off),
      takeOffs: line.takeOffs ?? landings,
      landings,
      nightTakeOffs: line.night?.takeOffs ?? 0,
      nightLandings: line.night?.landings ?? 0,
      class: kind,
    };
  });
  return {
    items: entries.flatMap(({ kind, body }) => (kind === "item" && body ? [body as PersonDue] : [])),
    works: entries.flatMap(({ kind, body }) => (kind === "work" && body ? [body as PersonWork] : [])),
    flown,
  };
}

/** Kind of a person's item, if on record. */
export async function kindOfItem(
  db: Db,
  groupId: string,
  personId: string,
  item: string,
): Promise<string | undefined> {
  const [row] = await db
    .select({ body: personEntry.body })
    .from(personEntry)
    .where(
      and(
        eq(personEntry.groupId, groupId),
        eq(personEntry.personId, personId),
        eq(personEntry.kind, "item"),
        eq(personEntry.entry, item),
      ),
    );
  return (row?.body as PersonDue | null | undefined)?.kind;
}
