import { fluidRowsOf, foldDiscrepancies, foldPreflight } from "@cravix/core";
import { and, asc, eq, gt, inArray } from "drizzle-orm";
import { flightRowsOf, totalsFromLines } from "../airworthiness/project-flights";
import { personRowsOf } from "../airworthiness/project-people";
import type { Db } from "../db/database";
import { flightLog, meterTotals } from "../db/schema/airworthiness";
import { event, preflight, reading, stream } from "../db/schema/checklist";
import { discrepancy } from "../db/schema/discrepancy";
import { fluidLog } from "../db/schema/fluids";
import { personEntry } from "../db/schema/people";
import { toFluidRow } from "../fluids/write-fluids";
import { toDiscrepancyRow } from "./project-discrepancies";
import { toPreflightRow, toReadingRows } from "./project-preflights";
import { readEvents } from "./read-events";

/** A projection row that differs from its events. */
export interface Difference {
  table: string;
  id: string;
  /** Result of a fresh fold; null: there should be no row. */
  folded: unknown;
  /** Stored row; null: missing. */
  written: unknown;
}

export interface RecordCheck {
  events: number;
  streams: number;
  discrepancies: number;
  differences: Difference[];
}

const AT_ONCE = 40;

/** Folds the whole record and compares it with the projections: every preflight, reading, discrepancy and log entry. */
export async function checkProjections(db: Db): Promise<RecordCheck> {
  const check: RecordCheck = { events: 0, streams: 0, discrepancies: 0, differences: [] };
  for (let after = ""; ; ) {
    const streams = await db
      .select()
      .from(stream)
      .where(gt(stream.id, after))
      .orderBy(asc(stream.id))
      .limit(AT_ONCE);
    if (streams.length === 0) break;
    after = streams.at(-1)?.id ?? "";
    await checkStreams(db, streams, check);
  }
  const seen = new Set<string>();
  const groups = await db.selectDistinct({ groupId: stream.groupId }).from(stream);
  for (const { groupId } of groups)
    for (let after = ""; ; ) {
      const ids = await db
        .selectDistinct({ id: event.discrepancyId })
        .from(event)
        .where(and(eq(event.groupId, groupId), gt(event.discrepancyId, after)))
        .orderBy(asc(event.discrepancyId))
        .limit(AT_ONCE);
      if (ids.length === 0) break;
      const chunk = ids.flatMap(({ id }) => id ?? []);
      after = chunk.at(-1) ?? "";
      for (const id of chunk) seen.add(id);
      await checkDiscrepancies(db, groupId, chunk, check);
    }
  for (const { groupId, registration, totals } of await db.select().from(meterTotals)) {
    const anew = await totalsFromLines(db, groupId, registration);
    if (words(anew.totals) !== words(totals))
      check.differences.push({
        table: "meter_totals",
        id: registration,
        folded: anew.totals,
        written: totals,
      });
  }
  for (const { groupId } of groups) await checkPeople(db, groupId, check);
  for (const { id } of await db.select({ id: discrepancy.id }).from(discrepancy))
    if (!seen.has(id))
      check.differences.push({ table: "discrepancy", id, folded: null, written: "a row without an event" });
  return check;
}

async function checkStreams(
  db: Db,
  streams: readonly { id: string; groupId: string; kind: string }[],
  check: RecordCheck,
): Promise<void> {
  const ids = streams.map(({ id }) => id);
  const events = await readEvents(db, inArray(event.streamId, ids));
  const rows = {
    preflight: await db.select().from(preflight).where(inArray(preflight.id, ids)),
    reading: await db.select().from(reading).where(inArray(reading.preflightId, ids)),
    fluids: await db.select().from(fluidLog).where(inArray(fluidLog.streamId, ids)),
    flights: await db.select().from(flightLog).where(inArray(flightLog.streamId, ids)),
  };
  for (const { id, groupId, kind } of streams) {
    const own = events.filter((e) => e.streamId === id);
    if (own.length === 0) continue;
    check.streams++;
    check.events += own.length;
    const state = foldPreflight(id, own);
    if (kind === "preflight") {
      compare(check, "preflight", id, toPreflightRow(groupId, { count: own.length, state }), [
        ...rows.preflight.filter((row) => row.id === id).map(asPreflight),
      ]);
      compareSets(
        check,
        "reading",
        id,
        toReadingRows(groupId, { state }),
        rows.reading.filter((row) => row.preflightId === id).map(asReading),
      );
    }
    if (kind === "flight")
      compareSets(
        check,
        "flight_log",
        id,
        flightRowsOf(groupId, own),
        rows.flights.filter((row) => row.streamId === id).map(asFlight),
      );
    compareSets(
      check,
      "fluid_log",
      id,
      unique(fluidRowsOf(state).map((row) => toFluidRow(groupId, row, id))),
      rows.fluids.filter((row) => row.streamId === id).map(asFluid),
    );
  }
}

async function checkPeople(db: Db, groupId: string, check: RecordCheck): Promise<void> {
  const own = await readEvents(db, and(eq(event.groupId, groupId), eq(event.stream, "person")));
  const rows = await db.select().from(personEntry).where(eq(personEntry.groupId, groupId));
  compareSets(
    check,
    "person_entry",
    groupId,
    personRowsOf(groupId, own),
    rows.map((row) => ({
      group_id: row.groupId,
      person_id: row.personId,
      event_id: row.eventId,
      kind: row.kind,
      entry: row.entry,
      body: row.body && JSON.stringify(row.body),
    })),
  );
}

async function checkDiscrepancies(
  db: Db,
  groupId: string,
  ids: readonly string[],
  check: RecordCheck,
): Promise<void> {
  const ofGroup = eq(event.groupId, groupId);
  const about = await readEvents(db, and(ofGroup, inArray(event.discrepancyId, [...ids])));
  const streams = [...new Set(about.map((e) => e.streamId))];
  const whole = await readEvents(db, inArray(event.streamId, streams));
  // Before the undo rules, an undo could be in another stream.
  const asBefore = await readEvents(
    db,
    and(
      ofGroup,
      eq(event.rules, 1),
      inArray(
        event.undoesId,
        about.map((e) => e.id),
      ),
    ),
  );
  const states = foldDiscrepancies([...whole, ...asBefore]);
  const rows = await db
    .select()
    .from(discrepancy)
    .where(and(eq(discrepancy.groupId, groupId), inArray(discrepancy.id, [...ids])));
  for (const id of ids) {
    check.discrepancies++;
    const state = states.find((s) => s.id === id);
    const row = rows.filter((r) => r.id === id);
    compare(
      check,
      "discrepancy",
      id,
      state ? toDiscrepancyRow(groupId, state) : null,
      row.map(asDiscrepancy),
    );
  }
}

function compare(check: RecordCheck, table: string, id: string, folded: unknown, [written]: unknown[]): void {
  if (words(folded) !== words(written ?? null))
    check.differences.push({ table, id, folded, written: written ?? null });
}

function compareSets(
  check: RecordCheck,
  table: string,
  id: string,
  folded: unknown[],
  written: unknown[],
): void {
  const [a, b] = [folded.map(words).sort(), written.map(words).sort()];
  if (a.join("\n") !== b.join("\n")) check.differences.push({ table, id, folded: a, written: b });
}

const words = (row: unknown): string =>
  JSON.stringify(
    row,
    row && typeof row === "object" ? (Object.keys(row).sort() as (string | number)[]) : undefined,
  );

/** Identical entries of one preflight count once. */
const unique = <T extends { id: string }>(rows: readonly T[]): T[] => [
  ...new Map(rows.map((row) => [row.id, row])).values(),
];

/** Database rows with column names; times in the database's format. */
const moment = (at: string | null) =>
  at === null ? null : at.padEnd(23, at.length === 19 ? ".000" : "0").slice(0, 23);
const asPreflight = (row: typeof preflight.$inferSelect) => ({
  id: row.id,
  group_id: row.groupId,
  registration: row.registration,
  crew_id: row.crewId,
  list_hash: row.listHash,
  started_at: moment(row.startedAt),
  last_at: moment(row.lastAt),
  conditions: JSON.stringify(row.conditions),
  answered: row.answered,
  found: row.found,
  verdict: row.verdict,
  decision: row.decision,
  signed_at: moment(row.signedAt),
  event_count: row.eventCount,
});
const asReading = (row: typeof reading.$inferSelect) => ({
  preflight_id: row.preflightId,
  group_id: row.groupId,
  reading_key: row.key,
  registration: row.registration,
  value: row.value,
  unit: row.unit,
  at: moment(row.at),
  crew_id: row.crewId,
});
const asFluid = (row: typeof fluidLog.$inferSelect) => ({
  id: row.id,
  group_id: row.groupId,
  registration: row.registration,
  fluid: row.fluid,
  entry: row.entry,
  part: row.part,
  amount: row.amount,
  unit: row.unit,
  hours: row.hours,
  grade: row.grade,
  receipt: row.receipt,
  heat: row.heat,
  at: moment(row.at),
  stream_id: row.streamId,
});
const asFlight = (row: typeof flightLog.$inferSelect) => ({
  id: row.id,
  group_id: row.groupId,
  registration: row.registration,
  stream_id: row.streamId,
  off_at: moment(row.off),
  on_at: moment(row.on),
  pilot: row.pilot,
  line: JSON.stringify(row.line),
  corrections: row.corrections,
  struck: row.struck,
  logged_by: row.loggedBy,
});
const asDiscrepancy = (row: typeof discrepancy.$inferSelect) => ({
  id: row.id,
  group_id: row.groupId,
  registration: row.registration,
  station_id: row.stationId,
  item_id: row.itemId,
  text: row.text,
  grade: row.grade,
  opened_at: moment(row.openedAt),
  opened_by: row.openedBy,
  measure: row.measure,
  cause: row.cause,
  observations: JSON.stringify(row.observations),
  closed_at: moment(row.closedAt),
  closed_by: row.closedBy,
  closed_how: row.closedHow,
  life: row.life === null ? null : JSON.stringify(row.life),
  merged_into: row.mergedInto,
  withdrawn_at: moment(row.withdrawnAt),
  withdrawn_by: row.withdrawnBy,
});
