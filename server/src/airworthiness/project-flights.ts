import {
  type AircraftRecord,
  addLine,
  foldTotals,
  type PreflightEvent,
  type RunningTotals,
  type TechnicalLogEntry,
} from "@cravix/core";
import { and, eq } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { fromDb, toDb } from "../db/moment";
import { flightLog, meterTotals } from "../db/schema/airworthiness";
import { upsert } from "../db/upsert";
import { effectiveRecord } from "./effective-record";

type Logged = Extract<PreflightEvent, { type: "flight.logged" }>;
type Corrected = Extract<PreflightEvent, { type: "flight.corrected" }>;

/** Entries of one flight stream, after corrections. */
interface StreamOfFlight {
  id: string;
  seen: boolean;
  stored: readonly { event: PreflightEvent }[];
  added: readonly PreflightEvent[];
}

/**
 * Writes the technical log entries of these streams and updates the totals: a new entry costs one addition, a correction a full
 * sum of its aircraft.
 */
export async function projectFlights(
  tx: Tx,
  groupId: string,
  streams: readonly StreamOfFlight[],
): Promise<void> {
  const rows: ReturnType<typeof toRow>[] = [];
  const fresh = new Map<string, TechnicalLogEntry[]>();
  const anew = new Set<string>();
  for (const stream of streams) {
    const events = [...stream.stored.map(({ event }) => event), ...stream.added].sort((a, b) =>
      a.id < b.id ? -1 : 1,
    );
    const corrections = events.filter((event): event is Corrected => event.type === "flight.corrected");
    for (const event of events) {
      if (event.type !== "flight.logged") continue;
      const own = corrections.filter(({ data }) => data.of === event.id);
      rows.push(toRow(groupId, event, own));
      const { registration } = event.data;
      if (stream.seen || own.length > 0) for (const one of [event, ...own]) anew.add(one.data.registration);
      else fresh.set(registration, [...(fresh.get(registration) ?? []), { id: event.id, ...event.data }]);
    }
  }
  await upsert(tx, "flight_log", rows);
  for (const registration of [...new Set([...anew, ...fresh.keys()])].sort())
    await carryTotals(
      tx,
      groupId,
      registration,
      anew.has(registration) ? undefined : fresh.get(registration),
    );
}

/** Rows of one flight stream. */
export function flightRowsOf(groupId: string, events: readonly PreflightEvent[]) {
  const corrections = events.filter((event): event is Corrected => event.type === "flight.corrected");
  return events.flatMap((event) =>
    event.type === "flight.logged"
      ? [
          toRow(
            groupId,
            event,
            corrections.filter(({ data }) => data.of === event.id),
          ),
        ]
      : [],
  );
}

function toRow(groupId: string, event: Logged, corrections: readonly Corrected[]) {
  const last = corrections.at(-1);
  const line = last?.data.line ?? event.data;
  return {
    id: event.id,
    group_id: groupId,
    registration: line.registration,
    stream_id: event.streamId,
    off_at: toDb(line.off),
    on_at: toDb(line.on),
    pilot: line.pilot,
    line: JSON.stringify(line),
    corrections: corrections.length,
    struck: last && !last.data.line ? 1 : 0,
    logged_by: event.crewId,
  };
}

/** Totals from all valid entries. */
export async function totalsFromLines(
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

/** Adds entries to the totals; without any, sums all valid entries. */
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
  await upsert(tx, "meter_totals", [
    {
      group_id: groupId,
      registration,
      totals: JSON.stringify(so.totals),
      flights: so.lines,
      last_on: so.lastOn === undefined ? null : toDb(so.lastOn),
    },
  ]);
}
