import { type PreflightEvent, readTotals, type WorkDone } from "@cravix/core";
import type { Tx } from "../db/database";
import { toDb } from "../db/moment";
import { upsert } from "../db/upsert";
import { effectiveRecord } from "./effective-record";
import { carryTotals } from "./project-flights";

/** Writes works and open conditions of releases, meter replacements, and daily inspections. */
export async function projectWorks(tx: Tx, groupId: string, added: readonly PreflightEvent[]): Promise<void> {
  const replaced = added.flatMap((event) =>
    event.type === "meter.replaced"
      ? [
          {
            id: event.id,
            group_id: groupId,
            registration: event.data.registration,
            meter: event.data.meter,
            at: toDb(event.at),
            old_reading: event.data.oldReading,
            new_reading: event.data.newReading,
          },
        ]
      : [],
  );
  await upsert(tx, "meter_change", replaced);
  for (const registration of new Set(replaced.map((row) => row.registration)))
    await carryTotals(tx, groupId, registration);
  const rows: Parameters<typeof upsert>[2][number][] = [];
  for (const event of added) {
    if (event.type === "daily.signed")
      rows.push(row(event, 0, groupId, event.data.registration, DAILY, event.data.date, undefined));
    if (event.type !== "work.released") continue;
    const { registration, date, works, leaves, readings } = event.data;
    const record = await effectiveRecord(tx, groupId, registration);
    const read = readTotals(readings, record?.meters ?? [], event.at);
    works.forEach((work, i) => {
      const done = { ...work, totals: { ...read, ...work.totals }, release: event.id };
      rows.push(row(event, i, groupId, registration, work.item, date, done));
    });
    leaves.forEach((item, i) => {
      rows.push(row(event, works.length + i, groupId, registration, item.id, date, undefined, item));
    });
  }
  await upsert(tx, "work_done", rows);
}

/** Key of the daily inspection among works. */
export const DAILY = "daily inspection";

function row(
  event: PreflightEvent,
  place: number,
  groupId: string,
  registration: string,
  item: string,
  date: string,
  work: WorkDone | undefined,
  leaves?: object,
) {
  return {
    id: event.id,
    place,
    group_id: groupId,
    registration,
    item,
    done_on: date,
    work: work
      ? JSON.stringify(work)
      : JSON.stringify({ item, date, totals: {}, by: event.crewId, at: event.at }),
    leaves: leaves ? JSON.stringify(leaves) : null,
  };
}
