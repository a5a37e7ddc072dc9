import type { EquipmentFile } from "@cravix/contract/files";
import { type LoadingProfile, type LogLine, localDate, type PapersOnFile, tidy, usesOf } from "@cravix/core";
import { and, desc, eq, gte, isNotNull } from "drizzle-orm";
import type { Db } from "../db/database";
import { toDb } from "../db/moment";
import { equipmentList, flightLog, loadingProfile, meterTotals, workDone } from "../db/schema/airworthiness";
import { effectiveRecord } from "./effective-record";
import { DAILY } from "./project-works";

/** So far back it is looked how an aircraft is usually flown. */
const USUAL_DAYS = 730;
const DAY_MS = 86_400_000;
/** By so many lines a device knows what is in the totals. */
const RECENT = 60;
/** Releases that a device keeps; an item is done some dozen times in ten years. */
const MOST_WORKS = 3000;

/** An aircraft's papers, for a device; null where no record of it is on file. */
export async function readPapers(
  db: Db,
  registration: string,
  groupId: string,
  { now = new Date(), days = true }: { now?: Date; days?: boolean } = {},
): Promise<PapersOnFile | null> {
  const record = await effectiveRecord(db, groupId, registration);
  if (!record) return null;
  const ofAircraft = and(
    eq(flightLog.groupId, groupId),
    eq(flightLog.registration, registration),
    eq(flightLog.struck, 0),
  );
  const [totals] = await db
    .select()
    .from(meterTotals)
    .where(and(eq(meterTotals.groupId, groupId), eq(meterTotals.registration, registration)));
  const since = days ? now.getTime() - USUAL_DAYS * DAY_MS : now.getTime();
  const recent = await db
    .select({ id: flightLog.id, line: flightLog.line })
    .from(flightLog)
    .where(and(ofAircraft, gte(flightLog.off, toDb(new Date(since).toISOString()))))
    .orderBy(desc(flightLog.off), desc(flightLog.id));
  const works = await db
    .select()
    .from(workDone)
    .where(and(eq(workDone.groupId, groupId), eq(workDone.registration, registration)))
    .orderBy(desc(workDone.date), desc(workDone.id))
    .limit(MOST_WORKS);
  const [last] = recent;
  const signed = works.find(({ item }) => item === DAILY);
  const by = signed?.work as unknown as { by: string; at: string } | undefined;
  return {
    record,
    released: works.flatMap(({ item, leaves, work }) => (item !== DAILY && !leaves && work ? [work] : [])),
    left: works.flatMap(({ leaves }) => leaves ?? []),
    totals: { ...record.start.totals, ...totals?.totals },
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
  lines: readonly LogLine[],
  { meters, timeZone }: NonNullable<Awaited<ReturnType<typeof effectiveRecord>>>,
): PapersOnFile["days"] {
  const days = new Map<string, Record<string, number>>();
  for (const line of lines) {
    const date = localDate(line.off, timeZone);
    const uses = days.get(date) ?? {};
    for (const [meter, used] of Object.entries(usesOf(line, meters)))
      uses[meter] = tidy((uses[meter] ?? 0) + used);
    days.set(date, uses);
  }
  return [...days].map(([date, uses]) => ({ date, uses }));
}

/** What an aircraft weighs and where; null where no weighing report is on file. */
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

/** The equipment of a type; null where no list is on file. */
export async function readEquipment(db: Db, typeId: string, groupId: string): Promise<EquipmentFile | null> {
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
    .limit(1);
  return row?.body ?? null;
}
