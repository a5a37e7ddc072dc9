import type { AircraftRecord } from "@cravix/core/airworthiness/aircraft-record";
import { addDays, localDate } from "@cravix/core/airworthiness/calendar/local-date";
import { farAhead } from "@cravix/core/airworthiness/meters/far-ahead";
import { totalOf } from "@cravix/core/airworthiness/meters/meter";
import { and, eq } from "drizzle-orm";
import { meterTotals } from "../../db/schema/airworthiness";
import type { Admission, Fault } from "./event-kind";

/** Why this local day cannot be the day of something done; a day ahead is allowed for other time zones. */
export function futureDate(date: string, now: Date, timeZone = "UTC"): string | undefined {
  const latest = addDays(localDate(now.toISOString(), timeZone), 1);
  return date > latest ? "The date is in the future. Check the year." : undefined;
}

/**
 * Fault of meter readings against the totals on record: so far ahead that it must be a typing error. A reading behind the log is
 * allowed, because a work may be entered after later flights.
 */
export async function readingsFault(
  { tx, groupId }: Admission,
  registration: string,
  record: AircraftRecord,
  readings: Readonly<Record<string, number>>,
  at: string,
  field: string,
): Promise<Fault | undefined> {
  const [row] = await tx
    .select({ totals: meterTotals.totals })
    .from(meterTotals)
    .where(and(eq(meterTotals.groupId, groupId), eq(meterTotals.registration, registration)));
  const totals = { ...record.start.totals, ...row?.totals };
  return tooFarAhead(
    record,
    totals,
    Object.fromEntries(
      record.meters.flatMap((meter) => {
        const reading = readings[meter.id];
        return reading === undefined ? [] : [[meter.id, totalOf(meter, reading, at)] as const];
      }),
    ),
    field,
  );
}

/** The same for totals. */
export function tooFarAhead(
  { meters }: Pick<AircraftRecord, "meters">,
  known: Readonly<Record<string, number>>,
  entered: Readonly<Record<string, number>>,
  field: string,
): Fault | undefined {
  for (const meter of meters) {
    const [before, now] = [known[meter.id], entered[meter.id]];
    const reason = before === undefined || now === undefined ? undefined : farAhead(meter, before, now);
    if (reason) return { field: field.endsWith("Reading") ? field : `${field}.${meter.id}`, reason };
  }
  return undefined;
}
