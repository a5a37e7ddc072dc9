import type { EarlierWalkWithSchool } from "@cravix/contract";
import { type ComposedList, foldPreflight, stationTimes, stationVisits } from "@cravix/core";
import { and, count, desc, eq, inArray, isNotNull, ne } from "drizzle-orm";
import type { Db } from "../db/database";
import { event, list, preflight } from "../db/schema/checklist";
import { aircraft } from "../db/schema/fleet";
import { readEvents } from "../events/read-events";

/** How many earlier walks make a habit; more would only say the same. */
const WALKS = 24;

/** What an earlier walk was, kept by its number of events: a walk that was signed hardly ever changes. */
const remembered = new Map<string, { events: number; walk: EarlierWalkWithSchool }>();
const MOST_REMEMBERED = 2000;

/** The pace and order of the last signed walks of one aircraft, newest first: the habits of its pilots. */
export async function readWalks(db: Db, registration: string): Promise<EarlierWalkWithSchool[]> {
  const rows = await db
    .select({
      id: preflight.id,
      crewId: preflight.crewId,
      startedAt: preflight.startedAt,
      listHash: preflight.listHash,
      events: preflight.eventCount,
    })
    .from(preflight)
    .where(and(eq(preflight.registration, registration), isNotNull(preflight.signedAt)))
    .orderBy(desc(preflight.id))
    .limit(WALKS);
  const missing = rows.filter((row) => remembered.get(row.id)?.events !== row.events && row.listHash);
  if (missing.length > 0) {
    const hashes = [...new Set(missing.flatMap((row) => row.listHash ?? []))];
    const lists = new Map(
      (await db.select().from(list).where(inArray(list.hash, hashes))).map((row) => [row.hash, row.body]),
    );
    const events = await readEvents(
      db,
      inArray(
        event.preflightId,
        missing.map((row) => row.id),
      ),
    );
    if (remembered.size > MOST_REMEMBERED) remembered.clear();
    for (const row of missing) {
      const body = lists.get(row.listHash ?? "") as ComposedList | undefined;
      // A list that has not arrived yet: its walk is no habit until it has.
      if (!body) continue;
      const state = foldPreflight(
        row.id,
        events.filter((e) => e.preflightId === row.id),
      );
      remembered.set(row.id, {
        events: row.events,
        walk: {
          preflightId: row.id,
          crewId: state.crewId ?? "",
          at: state.startedAt ?? "",
          stations: stationTimes(body, state),
          visits: stationVisits(body, state),
          ...(state.school && { school: state.school }),
        },
      });
    }
  }
  return rows.flatMap((row) => remembered.get(row.id)?.walk ?? []);
}

/** How many complete laps each of the group has signed on a type, whichever aircraft of it. */
export async function readLaps(db: Db, typeId: string): Promise<Record<string, number>> {
  const rows = await db
    .select({ crewId: preflight.crewId, laps: count() })
    .from(preflight)
    .innerJoin(aircraft, eq(aircraft.registration, preflight.registration))
    .where(
      and(eq(aircraft.typeId, typeId), isNotNull(preflight.signedAt), ne(preflight.verdict, "unfinished")),
    )
    .groupBy(preflight.crewId);
  return Object.fromEntries(rows.flatMap(({ crewId, laps }) => (crewId ? [[crewId, laps]] : [])));
}
