import type { EquipmentFile } from "@cravix/contract/files";
import type { AircraftRecord } from "@cravix/core/airworthiness/aircraft-record";
import { localDate } from "@cravix/core/airworthiness/calendar/local-date";
import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import type { Totals } from "@cravix/core/airworthiness/meters/component";
import { roundMeter } from "@cravix/core/airworthiness/meters/meter";
import { type AirworthinessOnFile, meterIncrements } from "@cravix/core/logs/apply-airworthiness-events";
import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { and, asc, desc, eq, gte, inArray, isNotNull, sql } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { toDb } from "../db/moment";
import { equipmentList, flightLog, loadingProfile, meterTotals, workDone } from "../db/schema/airworthiness";
import { fileVersion } from "../db/schema/fleet";
import { effectiveRecords, workOf } from "./effective-record";
import { DAILY, STANDING } from "./standing-works";

/** Days of history for the usage pattern. */
const USUAL_DAYS = 730;
const DAY_MS = 86_400_000;
/** Recent entries sent, so that a device knows what is in the totals. */
const RECENT = 60;
/** Maximum releases sent to a device; an item is done a few dozen times in ten years. */
const MAX_WORKS = 3000;

/** Airworthiness data of an aircraft for a device; null without a record. */
export async function readAirworthiness(
  db: Db | Tx,
  registration: string,
  groupId: string,
  options: { now?: Date; days?: boolean } = {},
): Promise<AirworthinessOnFile | null> {
  return (await readAirworthinessOf(db, [registration], groupId, options)).get(registration) ?? null;
}

/** Airworthiness data of several aircraft, by registration; those without a record are left out. `days`: with usage history. */
export async function readAirworthinessOf(
  db: Db | Tx,
  registrations: readonly string[],
  groupId: string,
  { now = new Date(), days = true }: { now?: Date; days?: boolean } = {},
): Promise<Map<string, AirworthinessOnFile>> {
  const records = await effectiveRecords(db, groupId, registrations);
  const known = [...records.keys()];
  if (known.length === 0) return new Map();
  const of = <T extends typeof meterTotals | typeof flightLog | typeof workDone>(table: T) =>
    and(eq(table.groupId, groupId), inArray(table.registration, known));
  const totals = await db.select().from(meterTotals).where(of(meterTotals));
  const since = days ? now.getTime() - USUAL_DAYS * DAY_MS : now.getTime();
  const lines = await db
    .select({ registration: flightLog.registration, id: flightLog.id, line: flightLog.line })
    .from(flightLog)
    .where(
      and(of(flightLog), eq(flightLog.struck, 0), gte(flightLog.off, toDb(new Date(since).toISOString()))),
    )
    .orderBy(desc(flightLog.off), desc(flightLog.id));
  const works = await db
    .select()
    .from(workDone)
    .where(and(of(workDone), STANDING))
    .orderBy(desc(workDone.date), desc(workDone.id))
    .limit(MAX_WORKS * known.length);
  return new Map(
    [...records].map(([registration, record]) => {
      const own = <T extends { registration: string }>(rows: readonly T[]) =>
        rows.filter((row) => row.registration === registration);
      return [registration, airworthinessOf(record, own(totals)[0]?.totals, own(lines), own(works))];
    }),
  );
}

function airworthinessOf(
  record: AircraftRecord,
  totals: Totals | undefined,
  recent: readonly { id: string; line: Omit<TechnicalLogEntry, "id"> }[],
  works: readonly (typeof workDone.$inferSelect)[],
): AirworthinessOnFile {
  const [last] = recent;
  const signed = works.find(({ item }) => item === DAILY);
  const by = signed?.work as unknown as { by: string; at: string } | undefined;
  return {
    record,
    released: works.flatMap((row) =>
      row.item !== DAILY && !row.leaves ? (workOf(row, record.meters) ?? []) : [],
    ),
    left: works.flatMap(({ leaves }) => leaves ?? []),
    totals: { ...record.start.totals, ...totals },
    recent: recent.slice(0, RECENT).map(({ id }) => id),
    lastLine: last ? { id: last.id, ...last.line } : null,
    days: daysOf(
      recent.map(({ id, line }) => ({ id, ...line })),
      record,
    ),
    daily: signed && by ? { date: signed.date, crewId: by.by, at: by.at } : null,
  };
}

function daysOf(
  lines: readonly TechnicalLogEntry[],
  { meters, timeZone }: AircraftRecord,
): AirworthinessOnFile["days"] {
  const days = new Map<string, Record<string, number>>();
  for (const line of lines) {
    const date = localDate(line.off, timeZone);
    const uses = days.get(date) ?? {};
    for (const [meter, used] of Object.entries(meterIncrements(line, meters)))
      uses[meter] = roundMeter((uses[meter] ?? 0) + used);
    days.set(date, uses);
  }
  return [...days].map(([date, uses]) => ({ date, uses }));
}

/** Mass and balance data of an aircraft; null without a weighing report. */
export async function readLoading(
  db: Db,
  registration: string,
  groupId: string,
): Promise<LoadingProfile | null> {
  const [row] = await db
    .select({ body: loadingProfile.body })
    .from(loadingProfile)
    .where(and(eq(loadingProfile.groupId, groupId), eq(loadingProfile.registration, registration)));
  return row?.body ?? null;
}

/** Equipment of a type: of several lists the one saved last, then by name. Null without a list. */
export async function readEquipment(
  db: Db | Tx,
  typeId: string,
  groupId: string,
): Promise<EquipmentFile | null> {
  const [row] = await db
    .select({ body: equipmentList.body })
    .from(equipmentList)
    .where(
      and(
        eq(equipmentList.groupId, groupId),
        eq(equipmentList.typeId, typeId),
        isNotNull(equipmentList.body),
      ),
    )
    .orderBy(
      desc(
        sql`(select max(${fileVersion.at}) from ${fileVersion} where ${fileVersion.groupId} = ${groupId}
          and ${fileVersion.kind} = 'equipment-list' and ${fileVersion.fileId} = ${equipmentList.id})`,
      ),
      asc(equipmentList.id),
    )
    .limit(1);
  return row?.body ?? null;
}
