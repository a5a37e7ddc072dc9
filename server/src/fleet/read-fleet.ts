import type {
  AircraftBundle,
  DiscrepancyDetail,
  Fleet,
  LastReading,
  PreflightSummary,
} from "@cravix/contract";
import {
  type Aircraft,
  type AircraftType,
  airworthinessSnapshot,
  airworthinessStatus,
  applyVariant,
  type MemoryReading,
  REMEMBERED,
  type RuleSet,
  readingKey,
} from "@cravix/core";
import { upgradeFile } from "@cravix/core/legacy-vocabulary";
import { and, count, desc, eq, inArray, isNotNull, lt, max, type SQL, sql } from "drizzle-orm";
import {
  readAirworthiness,
  readAirworthinessOf,
  readEquipment,
  readLoading,
} from "../airworthiness/read-airworthiness";
import type { Db } from "../db/database";
import { fromDb, fromDbOrNull } from "../db/moment";
import { event, preflight, reading } from "../db/schema/checklist";
import { discrepancy } from "../db/schema/discrepancy";
import { aircraft, aircraftType, airfield, crew, ruleSet } from "../db/schema/fleet";
import { HOME_GROUP } from "../db/schema/group";
import { readRecentFluids } from "../fluids/read-fluids";
import { isOpen, readLastFlown, readLastFluids, readWorstOpen, toOpen } from "./read-aircraft-status";
import { readEarlierPreflights, readWalkarounds } from "./read-preflights";

const typeOfAircraft = and(eq(aircraft.groupId, aircraftType.groupId), eq(aircraft.typeId, aircraftType.id));

export async function readFleet(db: Db, groupId = HOME_GROUP): Promise<Fleet> {
  const rows = await db
    .select()
    .from(aircraft)
    .innerJoin(aircraftType, typeOfAircraft)
    .where(eq(aircraft.groupId, groupId))
    .orderBy(aircraft.registration);
  const openCount = await db
    .select({ registration: discrepancy.registration, n: count() })
    .from(discrepancy)
    .where(and(eq(discrepancy.groupId, groupId), isOpen))
    .groupBy(discrepancy.registration);
  const open = await readWorstOpen(db, groupId);
  const newest = db
    .select({ id: max(preflight.id) })
    .from(preflight)
    .where(eq(preflight.groupId, groupId))
    .groupBy(preflight.registration);
  const last = await db.select().from(preflight).where(sql`${preflight.id} in (${newest})`);
  const flown = await readLastFlown(db, groupId);
  const fluids = new Map(
    await Promise.all(
      rows.map(
        async ({ aircraft: { registration, body: own }, aircraft_type: { body } }) =>
          [
            registration,
            body.stub
              ? { oil: [] }
              : await readLastFluids(
                  db,
                  registration,
                  applyVariant(upgradeFile(body) as AircraftType, own.year).type,
                  groupId,
                ),
          ] as const,
      ),
    ),
  );
  const now = new Date().toISOString();
  const onFile = await readAirworthinessOf(
    db,
    rows.map((row) => row.aircraft.registration),
    groupId,
    { days: false },
  );
  const papers = new Map(
    [...onFile].map(([registration, own]) => {
      const pinned = airworthinessSnapshot(own.record, own);
      return [registration, pinned ? airworthinessStatus(pinned, now) : []] as const;
    }),
  );
  return {
    crew: await db
      .select({ id: crew.id, name: crew.name, role: crew.role })
      .from(crew)
      .where(eq(crew.groupId, groupId))
      .orderBy(crew.name),
    aircraft: rows
      .map(({ aircraft: a, aircraft_type: t }) => ({
        registration: a.registration,
        typeName: t.body.name,
        what: t.body.what,
        stub: t.body.stub ?? null,
        story: a.body.story ?? null,
        openDiscrepancies: openCount.find((o) => o.registration === a.registration)?.n ?? 0,
        open: open.get(a.registration) ?? [],
        papers: papers.get(a.registration) ?? [],
        fluids: fluids.get(a.registration) ?? { oil: [] },
        lastPreflight: last.filter((p) => p.registration === a.registration).map(toSummary)[0] ?? null,
        lastFlown: flown.get(a.registration) ?? null,
      }))
      // Most recently flown first; those without a checklist last.
      .sort(
        (a, b) =>
          Number(a.stub !== null) - Number(b.stub !== null) ||
          (b.lastPreflight?.id ?? "").localeCompare(a.lastPreflight?.id ?? "") ||
          a.registration.localeCompare(b.registration),
      ),
  };
}

/** True if the group has this aircraft. */
export async function hasAircraft(db: Db, registration: string, groupId = HOME_GROUP): Promise<boolean> {
  const rows = await db
    .select({ registration: aircraft.registration })
    .from(aircraft)
    .where(and(eq(aircraft.groupId, groupId), eq(aircraft.registration, registration)));
  return rows.length > 0;
}

/** Data of one aircraft for offline use; undefined outside the group. */
export async function readBundle(
  db: Db,
  registration: string,
  groupId = HOME_GROUP,
): Promise<AircraftBundle | undefined> {
  const [row] = await db
    .select()
    .from(aircraft)
    .innerJoin(aircraftType, typeOfAircraft)
    .where(and(eq(aircraft.groupId, groupId), eq(aircraft.registration, registration)));
  if (!row) return undefined;
  const [field] = await db
    .select()
    .from(airfield)
    .where(and(eq(airfield.groupId, groupId), eq(airfield.id, row.aircraft.body.base)));
  const fields = await db.select({ body: airfield.body }).from(airfield).where(eq(airfield.groupId, groupId));
  const open = await readDiscrepancies(db, registration, true, groupId);
  return {
    // Files are stored as received, of any version.
    aircraft: upgradeFile(row.aircraft.body) as Aircraft,
    type: upgradeFile(row.aircraft_type.body) as AircraftType,
    airfield: field?.body ?? null,
    fields: fields.map(({ body }) => body),
    rules: await readRules(db, groupId, row.aircraft.body.rules ?? field?.body.rules),
    openDiscrepancies: open.map(toOpen),
    lastReadings: await readLastReadings(db, registration, groupId),
    papers: await readAirworthiness(db, registration, groupId),
    loading: await readLoading(db, registration, groupId),
    equipment: await readEquipment(db, row.aircraft.typeId, groupId),
    fluids: await readRecentFluids(db, registration, groupId),
    memory: await readMemory(db, registration, row.aircraft_type.body.engines, groupId),
    walks: await readEarlierPreflights(db, registration, groupId),
    laps: await readWalkarounds(db, row.aircraft.typeId, groupId),
    recentPreflights: await readPreflights(db, { groupId, registration, limit: 10 }),
  };
}

export async function readDiscrepancies(
  db: Db,
  registration: string | undefined,
  onlyOpen: boolean,
  groupId = HOME_GROUP,
): Promise<DiscrepancyDetail[]> {
  const rows = await db
    .select({
      discrepancy,
      crew,
      // Measure at opening; the row holds the latest.
      openedMeasure: sql<string | null>`json_value(${event.data}, '$.measure')`,
    })
    .from(discrepancy)
    .leftJoin(crew, and(eq(crew.groupId, discrepancy.groupId), eq(crew.id, discrepancy.openedBy)))
    .leftJoin(event, eq(event.id, discrepancy.id))
    .where(
      and(
        eq(discrepancy.groupId, groupId),
        registration ? eq(discrepancy.registration, registration) : undefined,
        onlyOpen ? isOpen : undefined,
      ),
    )
    .orderBy(desc(discrepancy.openedAt))
    .limit(500);
  return rows.map(({ discrepancy: d, crew: opener, openedMeasure }) => ({
    id: d.id,
    registration: d.registration,
    stationId: d.stationId,
    text: d.text,
    grade: d.grade,
    openedAt: fromDb(d.openedAt),
    openedBy: d.openedBy,
    openedByName: opener?.name ?? d.openedBy,
    observations: d.observations,
    ...(openedMeasure !== null && { openedMeasure }),
    ...(d.itemId !== null && { itemId: d.itemId }),
    ...(d.measure !== null && { measure: d.measure }),
    ...(d.cause !== null && { cause: d.cause }),
    ...(d.closedAt !== null && {
      closed: {
        at: fromDb(d.closedAt),
        crewId: d.closedBy ?? "",
        how: d.closedHow ?? "",
        ...(d.life?.noFault && { noFault: true as const }),
        ...(d.life?.release && { release: d.life.release }),
      },
    }),
    ...(d.life?.deferred && { deferred: d.life.deferred }),
    ...(d.life?.grades && { grades: d.life.grades }),
    ...(d.life?.asked && { asked: d.life.asked }),
    ...(d.life?.merged && { merged: d.life.merged }),
    ...(d.life?.limit && { limit: d.life.limit }),
    ...(d.life?.photographs && { photographs: d.life.photographs }),
    ...(d.withdrawnAt !== null && {
      withdrawn: { at: fromDb(d.withdrawnAt), crewId: d.withdrawnBy ?? "" },
    }),
  }));
}

/**
 * Rule set of an aircraft: named by its file, else by its airfield. If neither names one, the group's only set; never an
 * arbitrary one of several.
 */
export async function readRules(db: Db, groupId: string, named: string | undefined): Promise<RuleSet | null> {
  const rows = await db
    .select()
    .from(ruleSet)
    .where(and(eq(ruleSet.groupId, groupId), named === undefined ? undefined : eq(ruleSet.id, named)))
    .limit(2);
  return rows.length === 1 ? (rows[0]?.body ?? null) : null;
}

/** Preflights used for an engine's baseline. */
const REMEMBERED_PREFLIGHTS = 40;

async function readMemory(
  db: Db,
  registration: string,
  engines: readonly string[] | undefined,
  groupId: string,
): Promise<MemoryReading[]> {
  const keys = REMEMBERED.flatMap((key) => [
    key,
    ...(engines ?? []).map((engine) => readingKey(key, engine)),
  ]);
  const walks = await db
    .select({ id: preflight.id })
    .from(preflight)
    .where(and(eq(preflight.groupId, groupId), eq(preflight.registration, registration)))
    .orderBy(desc(preflight.id))
    .limit(REMEMBERED_PREFLIGHTS);
  if (walks.length === 0) return [];
  const rows = await db
    .select()
    .from(reading)
    .where(
      and(
        inArray(
          reading.preflightId,
          walks.map((walk) => walk.id),
        ),
        inArray(reading.key, keys),
      ),
    );
  return rows.map(({ preflightId, key, value, unit, at }) => ({
    preflightId,
    key,
    value,
    unit,
    at: fromDb(at),
  }));
}

/** Maximum readings sent to a device; the oldest are left out. */
const MAX_READINGS = 2000;

async function readLastReadings(db: Db, registration: string, groupId: string): Promise<LastReading[]> {
  const ofAircraft = and(eq(reading.groupId, groupId), eq(reading.registration, registration));
  const latest = db
    .select({ key: reading.key, at: max(reading.at).as("latest_at") })
    .from(reading)
    .where(ofAircraft)
    .groupBy(reading.key)
    .orderBy(desc(max(reading.at)))
    .limit(MAX_READINGS)
    .as("latest");
  const rows = await db
    .select()
    .from(reading)
    .innerJoin(latest, and(eq(reading.key, latest.key), eq(reading.at, latest.at)))
    .where(ofAircraft);
  return rows.map(({ reading: r }) => ({
    key: r.key,
    value: r.value,
    unit: r.unit,
    at: fromDb(r.at),
    crewId: r.crewId ?? "",
  }));
}

/** Preflights, newest first; `before` is the id of the last one seen. */
export async function readPreflights(
  db: Db,
  {
    groupId = HOME_GROUP,
    registration,
    before,
    limit,
  }: { groupId?: string; registration?: string; before?: string; limit: number },
): Promise<PreflightSummary[]> {
  const where: (SQL | undefined)[] = [
    eq(preflight.groupId, groupId),
    // Without a registration it is a sign-off, or its start has not arrived yet.
    registration ? eq(preflight.registration, registration) : isNotNull(preflight.registration),
    before ? lt(preflight.id, before) : undefined,
  ];
  const rows = await db
    .select()
    .from(preflight)
    .where(and(...where))
    .orderBy(desc(preflight.id))
    .limit(limit);
  return rows.map(toSummary);
}

export function toSummary(row: typeof preflight.$inferSelect): PreflightSummary {
  return {
    id: row.id,
    registration: row.registration,
    crewId: row.crewId,
    startedAt: fromDbOrNull(row.startedAt),
    lastAt: fromDbOrNull(row.lastAt),
    conditions: row.conditions,
    answered: row.answered,
    found: row.found,
    verdict: row.verdict,
    decision: row.decision,
    signedAt: fromDbOrNull(row.signedAt),
  };
}
