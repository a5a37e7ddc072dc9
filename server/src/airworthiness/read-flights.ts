import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import { and, desc, eq, inArray, lt, or, type SQL } from "drizzle-orm";
import type { Db } from "../db/database";
import { fromDb, toDb } from "../db/moment";
import { flightLog } from "../db/schema/airworthiness";

/** A technical log entry as read. */
export type FlightRow = TechnicalLogEntry & { corrections: number; struck: boolean; loggedBy: string | null };

/** Entries of one aircraft's log, newest first, including removed ones, which stay on record. */
export async function readFlights(
  db: Db,
  {
    groupId,
    registration,
    limit,
    before,
  }: { groupId: string; registration: string; limit: number; before?: { off: string; id: string } },
): Promise<FlightRow[]> {
  const behind: SQL | undefined =
    before &&
    or(
      lt(flightLog.off, toDb(before.off)),
      and(eq(flightLog.off, toDb(before.off)), lt(flightLog.id, before.id)),
    );
  const rows = await db
    .select()
    .from(flightLog)
    .where(and(eq(flightLog.groupId, groupId), eq(flightLog.registration, registration), behind))
    .orderBy(desc(flightLog.off), desc(flightLog.id))
    .limit(limit);
  return rows.map(({ id, line, corrections, struck, loggedBy, off }) => ({
    ...line,
    id,
    off: fromDb(off),
    corrections,
    struck: struck === 1,
    loggedBy,
  }));
}

/** Times of recorded flights that left at one of these. */
export async function knownTimes(
  db: Db,
  groupId: string,
  registration: string,
  offs: readonly string[],
): Promise<Set<string>> {
  if (offs.length === 0) return new Set();
  const rows = await db
    .select({ off: flightLog.off, on: flightLog.on })
    .from(flightLog)
    .where(
      and(
        eq(flightLog.groupId, groupId),
        eq(flightLog.registration, registration),
        inArray(flightLog.off, offs.map(toDb)),
      ),
    );
  return new Set(rows.map(({ off, on }) => `${fromDb(off)} ${fromDb(on)}`));
}
