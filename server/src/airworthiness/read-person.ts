import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import { applyVariant } from "@cravix/core/aircraft/apply-variant";
import { localDate } from "@cravix/core/airworthiness/calendar/local-date";
import {
  classOf,
  type FlownByPerson,
  type PersonDue,
  type PersonRecord,
  type PersonWork,
} from "@cravix/core/airworthiness/people/person-due";
import { upgradeFile } from "@cravix/core/legacy-vocabulary";
import { and, eq, gte } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { toDb } from "../db/moment";
import { flightLog } from "../db/schema/airworthiness";
import { aircraft, aircraftType } from "../db/schema/fleet";
import { personEntry } from "../db/schema/people";

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
    const landings = line.ground ? 0 : (line.counts.landings ?? 1);
    return {
      date: localDate(line.off),
      takeOffs: line.takeOffs ?? landings,
      landings,
      nightTakeOffs: line.night?.takeOffs ?? 0,
      nightLandings: line.night?.landings ?? 0,
      ...(line.fullStops !== undefined && { fullStops: line.fullStops }),
      ...(line.night?.fullStops !== undefined && { nightFullStops: line.night.fullStops }),
      registration: line.registration,
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
  db: Db | Tx,
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
