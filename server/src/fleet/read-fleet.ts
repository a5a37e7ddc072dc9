import type {
  AircraftBundle,
  DiscrepancyDetail,
  Fleet,
  LastReading,
  PreflightSummary,
} from "@cravix/contract";
import type { Aircraft, AircraftType } from "@cravix/core/aircraft/aircraft-type";
import { applyVariant } from "@cravix/core/aircraft/apply-variant";
import { airworthinessSnapshot } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { calculated } from "@cravix/core/airworthiness/due/problem-of";
import { upgradeFile } from "@cravix/core/legacy-vocabulary";
import { readingKey } from "@cravix/core/readings/reading-keys";
import { type MemoryReading, REMEMBERED } from "@cravix/core/run-up/record/run-up-memory";
import { airworthinessStatus, type StatusReason } from "@cravix/core/verdict/aircraft-status";
import { and, count, desc, eq, inArray, isNotNull, max, type SQL, sql } from "drizzle-orm";
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
import { aircraft, aircraftType, airfield, crew } from "../db/schema/fleet";
import { readRecentFluids } from "../fluids/read-fluids";
import { openInSpiteOfMerge } from "./merged-discrepancies";
import { isOpen, readLastFlown, readLastFluids, readWorstOpen, toOpen } from "./read-aircraft-status";
import { readEarlierPreflights, readWalkarounds } from "./read-preflights";
import { readRules } from "./read-rules";

const typeOfAircraft = and(eq(aircraft.groupId, aircraftType.groupId), eq(aircraft.typeId, aircraftType.id));

export async function readFleet(db: Db, groupId: string): Promise<Fleet> {
  const rows = await db
    .select()
    .from(aircraft)
    .innerJoin(aircraftType, typeOfAircraft)
    .where(eq(aircraft.groupId, groupId))
    .orderBy(aircraft.registration);
  const freed = await openInSpiteOfMerge(db, groupId);
  const openCount = await db
    .select({ registration: discrepancy.registration, n: count() })
    .from(discrepancy)
    .where(and(eq(discrepancy.groupId, groupId), isOpen(freed)))
    .groupBy(discrepancy.registration);
  const open = await readWorstOpen(db, groupId, freed);
  const last = new Map(
    await Promise.all(
      rows.map(async ({ aircraft: { registration } }) => {
        const [newest] = await readPreflights(db, { groupId, registration, limit: 1 });
        return [registration, newest] as const;
      }),
    ),
  );
  const flown = await readLastFlown(db, groupId);
  const fluids = new Map(
    await Promise.all(
      rows.map(
        async ({ aircraft: { registration, body: own }, aircraft_type: { body } }) =>
          [
            registration,
            body.stub ? { oil: [] } : await lastFluidsOf(db, registration, body, own.year, groupId),
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
      const status = calculated(() => airworthinessStatus(airworthinessSnapshot(own.record, own), now));
      return [registration, "value" in status ? status.value : [notCalculated(status.problem)]] as const;
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
        lastPreflight: last.get(a.registration) ?? null,
        lastFlown: flown.get(a.registration) ?? null,
      }))
      // Most recently flown first; those without a checklist last.
      .sort(
        (a, b) =>
          Number(a.stub !== null) - Number(b.stub !== null) ||
          (b.lastPreflight?.startedAt ?? "").localeCompare(a.lastPreflight?.startedAt ?? "") ||
          a.registration.localeCompare(b.registration),
      ),
  };
}

/** One aircraft whose record cannot be read does not hide the others. */
const notCalculated = (problem: string): StatusReason => ({
  id: "papers.problem",
  grade: "ask",
  text: `The airworthiness record cannot be calculated. ${problem}`,
});

async function lastFluidsOf(db: Db, registration: string, type: unknown, year: number, groupId: string) {
  const variant = calculated(() => applyVariant(upgradeFile(type) as AircraftType, year).type);
  return "value" in variant ? readLastFluids(db, registration, variant.value, groupId) : { oil: [] };
}

/** True if the group has this aircraft. */
export async function hasAircraft(db: Db, registration: string, groupId: string): Promise<boolean> {
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
  groupId: string,
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

/** Open discrepancies in a checklist, and discrepancies in the log of the group. */
const MAX_OPEN = 500;
const MAX_DISCREPANCIES = 1000;

export async function readDiscrepancies(
  db: Db,
  registration: string | undefined,
  onlyOpen: boolean,
  groupId: string,
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
        onlyOpen ? isOpen(await openInSpiteOfMerge(db, groupId)) : undefined,
      ),
    )
    // Worst first among the open ones, so that many notes never push out a stop.
    .orderBy(
      ...(onlyOpen
        ? [sql`field(${discrepancy.grade}, 'stop', 'ask', 'watch', 'note')`, desc(discrepancy.openedAt)]
        : [sql`${discrepancy.closedAt} is not null`, desc(discrepancy.openedAt)]),
    )
    .limit(onlyOpen ? MAX_OPEN : MAX_DISCREPANCIES);
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
    .orderBy(desc(preflight.startedAt), desc(preflight.id))
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
    groupId,
    registration,
    before,
    limit,
  }: { groupId: string; registration?: string; before?: string; limit: number },
): Promise<PreflightSummary[]> {
  const where: (SQL | undefined)[] = [
    eq(preflight.groupId, groupId),
    // Without a registration it is a sign-off, or its start has not arrived yet.
    registration ? eq(preflight.registration, registration) : isNotNull(preflight.registration),
    before
      ? sql`(${preflight.startedAt}, ${preflight.id}) < (select p.started_at, p.id from preflight p where p.id = ${before})`
      : undefined,
  ];
  const rows = await db
    .select()
    .from(preflight)
    .where(and(...where))
    .orderBy(desc(preflight.startedAt), desc(preflight.id))
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
