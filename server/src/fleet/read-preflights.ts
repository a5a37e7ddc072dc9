import type { EarlierPreflightWithPreferences } from "@cravix/contract";
import { readList } from "@cravix/contract/files";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";
import { stationTimes, stationVisits } from "@cravix/core/pace/station-times";
import { and, count, desc, eq, inArray, isNotNull, ne } from "drizzle-orm";
import type { Db } from "../db/database";
import { event, list, preflight } from "../db/schema/checklist";
import { aircraft } from "../db/schema/fleet";
import { yieldingLoop } from "../fairness/yielding-loop";
import { readEvents } from "../record/read-events";

/** Earlier preflights used for usual values; more would not change them. */
const PREFLIGHTS = 24;

/** Cache by number of events: signed preflights rarely change. */
const remembered = new Map<
  string,
  { events: number; listHash: string | null; earlier?: EarlierPreflightWithPreferences }
>();
const MAX_REMEMBERED = 2000;

/** Pace and order of the last signed preflights of one aircraft, newest first. */
export async function readEarlierPreflights(
  db: Db,
  registration: string,
  groupId: string,
): Promise<EarlierPreflightWithPreferences[]> {
  const rows = await db
    .select({
      id: preflight.id,
      crewId: preflight.crewId,
      startedAt: preflight.startedAt,
      listHash: preflight.listHash,
      events: preflight.eventCount,
    })
    .from(preflight)
    .where(
      and(
        eq(preflight.groupId, groupId),
        eq(preflight.registration, registration),
        isNotNull(preflight.signedAt),
      ),
    )
    .orderBy(desc(preflight.startedAt), desc(preflight.id))
    .limit(PREFLIGHTS);
  const missing = rows.filter((row) => {
    const known = remembered.get(row.id);
    return row.listHash && (known?.events !== row.events || known.listHash !== row.listHash);
  });
  if (missing.length > 0) {
    const hashes = [...new Set(missing.flatMap((row) => row.listHash ?? []))];
    const bodies = await db
      .select()
      .from(list)
      .where(and(eq(list.groupId, groupId), inArray(list.hash, hashes)));
    const events = await readEvents(
      db,
      inArray(
        event.streamId,
        missing.map((row) => row.id),
      ),
    );
    if (remembered.size > MAX_REMEMBERED) remembered.clear();
    const turn = yieldingLoop();
    // Many preflights share a checklist, and reading it is the slow part.
    const lists = new Map<string, ReturnType<typeof readList>>();
    for (const { hash, body } of bodies) {
      lists.set(hash, readList(body));
      await turn.pause();
    }
    for (const row of missing) {
      const reading = lists.get(row.listHash ?? "");
      // A checklist not received yet: its preflight does not count so far.
      if (!reading) continue;
      const own = events.filter((e) => e.streamId === row.id);
      // One with an unreadable checklist is skipped; the others count.
      const earlier = "list" in reading ? earlierPreflight(row.id, reading.list, own) : undefined;
      remembered.set(row.id, { events: row.events, listHash: row.listHash, ...(earlier && { earlier }) });
      await turn.pause();
    }
  }
  return rows.flatMap((row) => remembered.get(row.id)?.earlier ?? []);
}

/** Summary of a preflight; undefined if its events cannot be read: then only this one is skipped. */
function earlierPreflight(
  id: string,
  list: ComposedList,
  events: readonly PreflightEvent[],
): EarlierPreflightWithPreferences | undefined {
  try {
    const state = foldPreflight(id, events);
    return {
      preflightId: id,
      crewId: state.crewId ?? "",
      at: state.startedAt ?? "",
      stations: stationTimes(list, state),
      visits: stationVisits(list, state),
      ...(state.preferences && { preferences: state.preferences }),
    };
  } catch {
    return undefined;
  }
}

/** Complete walkarounds signed by each member on a type. */
export async function readWalkarounds(
  db: Db,
  typeId: string,
  groupId: string,
): Promise<Record<string, number>> {
  const rows = await db
    .select({ crewId: preflight.crewId, laps: count() })
    .from(preflight)
    .innerJoin(
      aircraft,
      and(eq(aircraft.groupId, preflight.groupId), eq(aircraft.registration, preflight.registration)),
    )
    .where(
      and(
        eq(preflight.groupId, groupId),
        eq(aircraft.typeId, typeId),
        isNotNull(preflight.signedAt),
        ne(preflight.verdict, "unfinished"),
      ),
    )
    .groupBy(preflight.crewId);
  return Object.fromEntries(rows.flatMap(({ crewId, laps }) => (crewId ? [[crewId, laps]] : [])));
}
