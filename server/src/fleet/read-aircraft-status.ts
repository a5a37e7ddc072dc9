import type { DiscrepancyDetail } from "@cravix/contract";
import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import type { OpenDiscrepancy } from "@cravix/core/checklist/list/open-discrepancy";
import { type LastFluids, lastFluids } from "@cravix/core/logs/last-fluids";
import { and, eq, inArray, isNotNull, isNull, lte, max, or, sql } from "drizzle-orm";
import type { Db } from "../db/database";
import { fromDb } from "../db/moment";
import { flightLog } from "../db/schema/airworthiness";
import { preflight } from "../db/schema/checklist";
import { discrepancy } from "../db/schema/discrepancy";
import { crew } from "../db/schema/fleet";
import { readFluids } from "../fluids/read-fluids";

/** Condition for open discrepancies; `freed` are merged ones that are open all the same. */
export const isOpen = (freed: ReadonlySet<string>) =>
  and(
    isNull(discrepancy.closedAt),
    isNull(discrepancy.withdrawnAt),
    freed.size === 0
      ? isNull(discrepancy.mergedInto)
      : or(isNull(discrepancy.mergedInto), inArray(discrepancy.id, [...freed])),
  );

/** Maximum discrepancies per aircraft in the group list; all of them come with the aircraft. */
const MAX_OPEN = 20;
/** Log entries that reach back to a measurement of every tank and engine. */
const LINES_BACK = 40;

export function toOpen(
  d: Pick<
    DiscrepancyDetail,
    | "id"
    | "stationId"
    | "text"
    | "grade"
    | "openedAt"
    | "openedByName"
    | "cause"
    | "measure"
    | "deferred"
    | "limit"
    | "photographs"
  >,
): OpenDiscrepancy {
  return {
    id: d.id,
    stationId: d.stationId,
    text: d.text,
    grade: d.grade,
    openedAt: d.openedAt,
    openedBy: d.openedByName,
    ...(d.cause !== undefined && { cause: d.cause }),
    ...(d.measure !== undefined && { measure: d.measure }),
    ...(d.deferred && { deferral: d.deferred }),
    ...(d.limit && { limit: { most: d.limit.most, unit: d.limit.unit, source: d.limit.source } }),
    ...(d.photographs && {
      photographs: d.photographs.map(({ photograph, width, height }) => ({ photograph, width, height })),
    }),
  };
}

/** Open discrepancies of each aircraft, worst first, then oldest, so that many small ones never hide a stop. */
export async function readWorstOpen(
  db: Db,
  groupId: string,
  freed: ReadonlySet<string>,
): Promise<Map<string, OpenDiscrepancy[]>> {
  const ranked = db
    .select({
      id: discrepancy.id,
      place:
        sql<number>`row_number() over (partition by ${discrepancy.registration} order by field(${discrepancy.grade}, 'stop', 'ask', 'watch', 'note'), ${discrepancy.openedAt}, ${discrepancy.id})`.as(
          "place",
        ),
    })
    .from(discrepancy)
    .where(and(eq(discrepancy.groupId, groupId), isOpen(freed)))
    .as("ranked");
  const rows = await db
    .select()
    .from(discrepancy)
    .innerJoin(ranked, and(eq(ranked.id, discrepancy.id), lte(ranked.place, MAX_OPEN)))
    .leftJoin(crew, and(eq(crew.groupId, discrepancy.groupId), eq(crew.id, discrepancy.openedBy)))
    .orderBy(ranked.place);
  const byAircraft = new Map<string, OpenDiscrepancy[]>();
  for (const { discrepancy: d, crew: opener } of rows) {
    const own = byAircraft.get(d.registration) ?? [];
    own.push(
      toOpen({
        ...d,
        openedAt: fromDb(d.openedAt),
        openedByName: opener?.name ?? d.openedBy,
        cause: d.cause ?? undefined,
        measure: d.measure ?? undefined,
        deferred: d.life?.deferred,
        limit: d.life?.limit,
      } as DiscrepancyDetail),
    );
    byAircraft.set(d.registration, own);
  }
  return byAircraft;
}

/** Last flight of each aircraft with its pilot: from the technical log, or an acceptance not logged yet. */
export async function readLastFlown(
  db: Db,
  groupId: string,
): Promise<Map<string, { at: string; crewId: string | null }>> {
  const newest = db
    .select({ registration: preflight.registration, at: max(preflight.signedAt).as("last_signed") })
    .from(preflight)
    .where(
      and(eq(preflight.groupId, groupId), eq(preflight.decision, "fly"), isNotNull(preflight.registration)),
    )
    .groupBy(preflight.registration)
    .as("newest");
  const rows = await db
    .select({
      registration: preflight.registration,
      signedAt: preflight.signedAt,
      crewId: preflight.crewId,
    })
    .from(preflight)
    .innerJoin(
      newest,
      and(eq(newest.registration, preflight.registration), eq(newest.at, preflight.signedAt)),
    )
    .where(and(eq(preflight.groupId, groupId), eq(preflight.decision, "fly")));
  const flown = new Map<string, { at: string; crewId: string | null }>(
    rows.flatMap(({ registration, signedAt, crewId }) =>
      registration && signedAt ? [[registration, { at: fromDb(signedAt), crewId }] as const] : [],
    ),
  );
  const last = db
    .select({ registration: flightLog.registration, off: max(flightLog.off).as("last_off") })
    .from(flightLog)
    .where(and(eq(flightLog.groupId, groupId), eq(flightLog.struck, 0)))
    .groupBy(flightLog.registration)
    .as("last");
  const lines = await db
    .select({ registration: flightLog.registration, on: flightLog.on, pilot: flightLog.pilot })
    .from(flightLog)
    .innerJoin(last, and(eq(last.registration, flightLog.registration), eq(last.off, flightLog.off)))
    .where(eq(flightLog.groupId, groupId));
  for (const { registration, on, pilot } of lines) {
    const at = fromDb(on);
    if (at > (flown.get(registration)?.at ?? "")) flown.set(registration, { at, crewId: pilot });
  }
  return flown;
}

/** Fuel and oil as last measured, from the latest entries of both logs. */
export async function readLastFluids(
  db: Db,
  registration: string,
  type: AircraftType,
  groupId: string,
): Promise<LastFluids> {
  const rows = await Promise.all(
    (["fuel", "oil"] as const)
      .filter((fluid) => type[fluid])
      .map((fluid) => readFluids(db, { groupId, registration, fluid, limit: LINES_BACK })),
  );
  return lastFluids(type, rows.flat());
}
