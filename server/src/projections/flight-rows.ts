import type { AircraftRecord } from "@cravix/core/airworthiness/aircraft-record";
import {
  addLine,
  foldTotals,
  type RunningTotals,
  type TechnicalLogEntry,
} from "@cravix/core/airworthiness/flights/technical-log-entry";
import { mergeEvents, type PreflightEvent } from "@cravix/core/checklist/stream/events";
import { and, eq, inArray } from "drizzle-orm";
import { effectiveRecord } from "../airworthiness/effective-record";
import type { Db, Tx } from "../db/database";
import { fromDb, toDb } from "../db/moment";
import { flightLog, meterTotals } from "../db/schema/airworthiness";
import { upsert } from "../db/upsert";
import {
  addedIn,
  type Batch,
  type DerivedProjection,
  type Difference,
  type StreamProjection,
} from "./projection";
import { storedRow } from "./stored-row";

type Logged = Extract<PreflightEvent, { type: "flight.logged" }>;
type Corrected = Extract<PreflightEvent, { type: "flight.corrected" }>;

const isCorrection = (event: PreflightEvent): event is Corrected => event.type === "flight.corrected";

/** Rows of one flight stream: each flight with its last correction. */
function toFlightRows(groupId: string, given: readonly PreflightEvent[]) {
  const events = mergeEvents(given);
  const corrections = events.filter(isCorrection);
  return events.flatMap((event) =>
    event.type === "flight.logged"
      ? [
          toFlightRow(
            groupId,
            event,
            corrections.filter(({ data }) => data.of === event.id),
          ),
        ]
      : [],
  );
}

function toFlightRow(
  groupId: string,
  event: Logged,
  corrections: readonly Corrected[],
): typeof flightLog.$inferInsert {
  const last = corrections.at(-1);
  const line = last?.data.line ?? event.data;
  return {
    id: event.id,
    groupId: groupId,
    registration: line.registration,
    streamId: event.streamId,
    off: toDb(line.off),
    on: toDb(line.on),
    pilot: line.pilot,
    line,
    corrections: corrections.length,
    struck: last && !last.data.line ? 1 : 0,
    loggedBy: event.crewId,
  };
}

const flightsOf = ({ streams }: Batch) => streams.filter(({ kind }) => kind === "flight");

/** Technical log: one row per flight, after corrections. */
export const flightProjection: StreamProjection = {
  name: "flight_log",
  per: "stream",
  write: (tx, batch) =>
    upsert(
      tx,
      flightLog,
      flightsOf(batch).flatMap(({ stream }) =>
        toFlightRows(batch.groupId, [...stream.stored.map(({ event }) => event), ...stream.added]),
      ),
    ),
  rows: (groupId, { kind, events }) => (kind === "flight" ? toFlightRows(groupId, events) : []),
  stored: async (db, ids) =>
    (
      await db
        .select()
        .from(flightLog)
        .where(inArray(flightLog.streamId, [...ids]))
    ).map((row) => ({ streamId: row.streamId, row: storedRow(flightLog, row) })),
};

/** Cached sum of the technical log: a new entry costs one addition, anything else a full sum of its aircraft. */
export const totalsProjection: DerivedProjection = {
  name: "meter_totals",
  per: "record",
  async write(tx, batch) {
    const fresh = new Map<string, TechnicalLogEntry[]>();
    const anew = new Set<string>();
    for (const { stream } of flightsOf(batch)) {
      const corrected = [...stream.stored.map(({ event }) => event), ...stream.added].some(isCorrection);
      for (const event of stream.added) {
        if (event.type !== "flight.logged" && event.type !== "flight.corrected") continue;
        const { registration } = event.data;
        if (corrected || event.type !== "flight.logged") anew.add(registration);
        else fresh.set(registration, [...(fresh.get(registration) ?? []), { id: event.id, ...event.data }]);
      }
    }
    for (const event of addedIn(batch, "aircraft"))
      if (event.type === "meter.replaced") anew.add(event.data.registration);
    for (const registration of [...new Set([...anew, ...fresh.keys()])].sort())
      await carryTotals(
        tx,
        batch.groupId,
        registration,
        anew.has(registration) ? undefined : fresh.get(registration),
      );
  },
  async differences(db, groupId) {
    const found: Difference[] = [];
    for (const { registration, totals } of await db
      .select()
      .from(meterTotals)
      .where(eq(meterTotals.groupId, groupId))) {
      const anew = await totalsFromLines(db, groupId, registration);
      const sorted = (one: object) =>
        JSON.stringify(Object.entries(one).sort(([a], [b]) => (a < b ? -1 : 1)));
      if (sorted(anew.totals) !== sorted(totals))
        found.push({ table: "meter_totals", id: registration, folded: anew.totals, written: totals });
    }
    return found;
  },
};

/** Totals from all valid entries. */
async function totalsFromLines(
  db: Db | Tx,
  groupId: string,
  registration: string,
  known?: AircraftRecord,
): Promise<RunningTotals> {
  const record = known ?? (await effectiveRecord(db, groupId, registration));
  const all = await db
    .select({ id: flightLog.id, line: flightLog.line })
    .from(flightLog)
    .where(
      and(eq(flightLog.groupId, groupId), eq(flightLog.registration, registration), eq(flightLog.struck, 0)),
    );
  return foldTotals(
    record?.start.totals ?? {},
    all.map(({ id, line }) => ({ id, ...line })),
    record?.meters ?? [],
  );
}

/** Adds entries to the totals; without any, sums all valid entries. The aircraft must be locked. */
export async function carryTotals(
  tx: Tx,
  groupId: string,
  registration: string,
  lines?: readonly TechnicalLogEntry[],
): Promise<void> {
  const record = await effectiveRecord(tx, groupId, registration);
  const own = and(eq(meterTotals.groupId, groupId), eq(meterTotals.registration, registration));
  const [before] = await tx.select().from(meterTotals).where(own).for("update");
  let so: RunningTotals;
  if (lines && before)
    so = lines.reduce<RunningTotals>((sum, line) => addLine(sum, line, record?.meters ?? []), {
      totals: before.totals,
      lines: before.flights,
      ...(before.lastOn !== null && { lastOn: fromDb(before.lastOn) }),
    });
  else so = await totalsFromLines(tx, groupId, registration, record);
  await upsert(tx, meterTotals, [
    {
      groupId: groupId,
      registration,
      totals: so.totals,
      flights: so.lines,
      lastOn: so.lastOn === undefined ? null : toDb(so.lastOn),
    },
  ]);
}
