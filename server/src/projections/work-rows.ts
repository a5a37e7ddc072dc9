import type { DueItem, WorkDone } from "@cravix/core/airworthiness/due/due-item";
import { renewal } from "@cravix/core/airworthiness/life/release";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { DAILY } from "../airworthiness/standing-works";
import { toDb } from "../db/moment";
import { meterChange, releaseWithdrawn, workDone } from "../db/schema/airworthiness";
import { rowsOfEvents } from "./rows-of-events";

type WorkRow = typeof workDone.$inferInsert;

/** Works and open conditions of a release, and daily inspections. Totals are not stored: they follow from the meters on record. */
function toWorkRows(groupId: string, event: PreflightEvent): WorkRow[] {
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
  leaves: DueItem | null,
): WorkRow {
  const readings = event.type === "work.released" && work ? event.data.readings : null;
  return {
    id: event.id,
    place,
    groupId: groupId,
    registration,
    item,
    date,
    at: toDb(event.at),
    readings,
    work,
    leaves,
  };
}

/** Released works, open conditions and daily inspections. */
export const workProjection = rowsOfEvents("work_done", workDone, toWorkRows);

function toWithdrawnRows(groupId: string, event: PreflightEvent): (typeof releaseWithdrawn.$inferInsert)[] {
  if (event.type !== "release.withdrawn") return [];
  const { registration, of, why } = event.data;
  return [{ id: event.id, groupId: groupId, registration, of, why }];
}

/** Releases struck out. */
export const withdrawnProjection = rowsOfEvents("release_withdrawn", releaseWithdrawn, toWithdrawnRows);

function toMeterRows(groupId: string, event: PreflightEvent): (typeof meterChange.$inferInsert)[] {
  if (event.type !== "meter.replaced") return [];
  const { registration, meter, oldReading, newReading } = event.data;
  return [
    {
      id: event.id,
      groupId: groupId,
      registration,
      meter,
      at: toDb(event.at),
      oldReading: oldReading,
      newReading: newReading,
    },
  ];
}

/** Meter replacements. */
export const meterProjection = rowsOfEvents("meter_change", meterChange, toMeterRows);
