import type { WorkDone } from "@cravix/core/airworthiness/due/due-item";
import { renewal } from "@cravix/core/airworthiness/life/release";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { eq } from "drizzle-orm";
import { DAILY } from "../airworthiness/standing-works";
import { dbMoment, toDb } from "../db/moment";
import { meterChange, releaseWithdrawn, workDone } from "../db/schema/airworthiness";
import type { Row } from "./projection";
import { rowsOfEvents } from "./rows-of-events";

const jsonOrNull = (value: object | null) => (value === null ? null : JSON.stringify(value));

/** Works and open conditions of a release, and daily inspections. Totals are not stored: they follow from the meters on record. */
function toWorkRows(groupId: string, event: PreflightEvent): Row[] {
  if (event.type === "daily.signed") {
    const { registration, date } = event.data;
    const work = { item: DAILY, date, totals: {}, by: event.crewId, at: event.at };
    return [row(groupId, event, 0, registration, DAILY, date, work, null)];
  }
  if (event.type === "document.renewed") {
    const { registration, item, date } = event.data;
    return [row(groupId, event, 0, registration, item, date, renewal(event.data, event.id), null)];
  }
  if (event.type !== "work.released") return [];
  const { registration, date, works, leaves } = event.data;
  return [
    ...works.map((work, place) =>
      row(groupId, event, place, registration, work.item, date, { ...work, release: event.id }, null),
    ),
    ...leaves.map((item, i) =>
      row(groupId, event, works.length + i, registration, item.id, date, null, item),
    ),
  ];
}

function row(
  groupId: string,
  event: PreflightEvent,
  place: number,
  registration: string,
  item: string,
  date: string,
  work: WorkDone | null,
  leaves: object | null,
): Row {
  const readings = event.type === "work.released" && work ? event.data.readings : null;
  return {
    id: event.id,
    place,
    group_id: groupId,
    registration,
    item,
    done_on: date,
    at: toDb(event.at),
    readings: jsonOrNull(readings),
    work: jsonOrNull(work),
    leaves: jsonOrNull(leaves),
  };
}

/** Released works, open conditions and daily inspections. */
export const workProjection = rowsOfEvents("work_done", toWorkRows, {
  version: 1,
  stored: async (db, groupId) =>
    (await db.select().from(workDone).where(eq(workDone.groupId, groupId))).map((one) => ({
      id: one.id,
      place: one.place,
      group_id: one.groupId,
      registration: one.registration,
      item: one.item,
      done_on: one.date,
      at: dbMoment(one.at),
      readings: jsonOrNull(one.readings),
      work: jsonOrNull(one.work),
      leaves: jsonOrNull(one.leaves),
    })),
  clear: async (tx, groupId) => {
    await tx.delete(workDone).where(eq(workDone.groupId, groupId));
  },
});

function toWithdrawnRows(groupId: string, event: PreflightEvent): Row[] {
  if (event.type !== "release.withdrawn") return [];
  const { registration, of, why } = event.data;
  return [{ id: event.id, group_id: groupId, registration, of_release: of, why }];
}

/** Releases struck out. */
export const withdrawnProjection = rowsOfEvents("release_withdrawn", toWithdrawnRows, {
  version: 1,
  stored: async (db, groupId) =>
    (await db.select().from(releaseWithdrawn).where(eq(releaseWithdrawn.groupId, groupId))).map((one) => ({
      id: one.id,
      group_id: one.groupId,
      registration: one.registration,
      of_release: one.of,
      why: one.why,
    })),
  clear: async (tx, groupId) => {
    await tx.delete(releaseWithdrawn).where(eq(releaseWithdrawn.groupId, groupId));
  },
});

function toMeterRows(groupId: string, event: PreflightEvent): Row[] {
  if (event.type !== "meter.replaced") return [];
  const { registration, meter, oldReading, newReading } = event.data;
  return [
    {
      id: event.id,
      group_id: groupId,
      registration,
      meter,
      at: toDb(event.at),
      old_reading: oldReading,
      new_reading: newReading,
    },
  ];
}

/** Meter replacements. */
export const meterProjection = rowsOfEvents("meter_change", toMeterRows, {
  version: 1,
  stored: async (db, groupId) =>
    (await db.select().from(meterChange).where(eq(meterChange.groupId, groupId))).map((one) => ({
      id: one.id,
      group_id: one.groupId,
      registration: one.registration,
      meter: one.meter,
      at: dbMoment(one.at),
      old_reading: one.oldReading,
      new_reading: one.newReading,
    })),
  clear: async (tx, groupId) => {
    await tx.delete(meterChange).where(eq(meterChange.groupId, groupId));
  },
});
