import type { AircraftRecord, RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import { isFitted } from "@cravix/core/airworthiness/component-moves";
import type { DueItem } from "@cravix/core/airworthiness/due/due-item";
import {
  isPilotsWork,
  isRenewable,
  missingReading,
  readingNeeded,
} from "@cravix/core/airworthiness/life/release";
import type { EventData } from "@cravix/core/checklist/stream/events";
import { and, count, eq, isNotNull, notInArray } from "drizzle-orm";
import { effectiveRecord } from "../../airworthiness/effective-record";
import { STANDING } from "../../airworthiness/standing-works";
import { workDone } from "../../db/schema/airworthiness";
import { subjectOf } from "../../record/lock-subjects";
import { discrepancyRows, notPreventive } from "./discrepancy-kinds";
import { type Admission, eventKind, type Fault } from "./event-kind";
import { ownPreventive, releaseOnRecord } from "./own-release";
import { futureDate, readingsFault } from "./plausible-readings";

const ofAircraft = ({ data }: { data: { registration: string } }, groupId: string) => [
  subjectOf.aircraft(groupId, data.registration),
];

/** Open conditions an aircraft can have: a checklist holds all of them. */
const MAX_CONDITIONS = 300;

type Release = EventData["work.released"];

/**
 * Why this is more than preventive maintenance. Each due item states whether a pilot may do it; a stop, or what a mechanic graded, is a
 * mechanic's to sign off.
 */
async function beyondPreventive(
  admission: Admission,
  { registration, works, closes }: Release,
): Promise<Fault | undefined> {
  const record = await effectiveRecord(admission.tx, admission.groupId, registration);
  const more = works.find(({ item }) => {
    const due = record?.items.find(({ id }) => id === item);
    return !due || !isPilotsWork(due);
  });
  if (more)
    return {
      field: "data.works",
      reason: `“${more.item}” is not preventive maintenance. Only a mechanic can release it.`,
    };
  for (const row of await discrepancyRows(admission, closes)) {
    const reason = await notPreventive(admission, row);
    if (reason) return { field: "data.closes", reason };
  }
  return undefined;
}

/** Conditions left by releases and not done since. */
async function openConditions({ tx, groupId }: Admission, registration: string): Promise<number> {
  const own = and(eq(workDone.groupId, groupId), eq(workDone.registration, registration));
  const done = tx
    .select({ item: workDone.item })
    .from(workDone)
    .where(and(own, isNotNull(workDone.work), STANDING));
  const [left] = await tx
    .select({ n: count() })
    .from(workDone)
    .where(and(own, isNotNull(workDone.leaves), notInArray(workDone.item, done), STANDING));
  return left?.n ?? 0;
}

/** Fault of works done, readings and conditions against the aircraft's record. */
function releaseFault(
  { works, leaves, readings, date }: Release,
  meters: readonly RecordMeter[],
  items: ReadonlyMap<string, DueItem>,
): Fault | undefined {
  const known = new Set(meters.map(({ id }) => id));
  const strange = Object.keys(readings).find((meter) => !known.has(meter));
  if (strange !== undefined)
    return { field: `data.readings.${strange}`, reason: `The aircraft has no meter called “${strange}”.` };
  for (const [i, item] of leaves.entries())
    for (const [n, limit] of item.limits.entries())
      if ("meter" in limit && !known.has(limit.meter))
        return {
          field: `data.leaves[${i}].limits[${n}].meter`,
          reason: `The aircraft has no meter called “${limit.meter}”.`,
        };
  for (const [i, work] of works.entries()) {
    if (work.date > date)
      return { field: `data.works[${i}].date`, reason: "The work is dated after the release." };
    const item = items.get(work.item);
    const missing =
      item && missingReading(item, { ...readings, ...work.totals, ...work.sets?.readings }, meters);
    if (missing) return { field: `data.readings.${missing.id}`, reason: readingNeeded(missing, item) };
  }
  return undefined;
}

/** Work on a due item of a component that is not on the aircraft: its record goes with it. */
function shelved({ works }: Release, record: AircraftRecord): Fault | undefined {
  for (const [i, { item }] of works.entries()) {
    const of = record.items.find(({ id }) => id === item)?.of;
    if (of !== undefined && !isFitted(record, of))
      return {
        field: `data.works[${i}].item`,
        reason: `“${item}” belongs to ${of}, which is not on the aircraft. Fit it first.`,
      };
  }
  return undefined;
}

export const WORK_KINDS = {
  "work.released": eventKind("work.released", {
    subjects: ({ data }, groupId) => [
      subjectOf.aircraft(groupId, data.registration),
      ...data.closes.map(subjectOf.discrepancy),
    ],
    async admit(admission, { data, at }) {
      if (data.preventive) {
        const beyond = await beyondPreventive(admission, data);
        if (beyond) return beyond;
      }
      const record = await effectiveRecord(admission.tx, admission.groupId, data.registration);
      const late = futureDate(data.date, admission.now, record?.timeZone);
      if (late) return { field: "data.date", reason: late };
      if (!record) return undefined;
      if ((await openConditions(admission, data.registration)) + data.leaves.length > MAX_CONDITIONS)
        return {
          field: "data.leaves",
          reason: `An aircraft can have at most ${MAX_CONDITIONS} open conditions. Combine them.`,
        };
      return (
        shelved(data, record) ??
        releaseFault(data, record.meters, new Map(record.items.map((item) => [item.id, item]))) ??
        (await readingsFault(admission, data.registration, record, data.readings, at, "data.readings"))
      );
    },
    calculable: ({ data }) => data.registration,
    rows: ["work_done"],
  }),
  "release.withdrawn": eventKind("release.withdrawn", {
    subjects: ofAircraft,
    subject: async (admission, { data }) => ({
      released: (await ownPreventive(admission, data.of)) !== undefined,
    }),
    async admit(admission, { data }) {
      const found = await releaseOnRecord(admission, data.of);
      return found?.release.registration === data.registration
        ? undefined
        : { field: "data.of", reason: "This release is not on record for this aircraft." };
    },
    calculable: ({ data }) => data.registration,
    rows: ["release_withdrawn"],
  }),
  "meter.replaced": eventKind("meter.replaced", {
    subjects: ofAircraft,
    async admit(admission, { data, at }) {
      const record = await effectiveRecord(admission.tx, admission.groupId, data.registration);
      if (!record)
        return { field: "data.registration", reason: "This aircraft has no airworthiness record on file." };
      if (!record.meters.some(({ id }) => id === data.meter))
        return { field: "data.meter", reason: `The aircraft has no meter called “${data.meter}”.` };
      return readingsFault(
        admission,
        data.registration,
        record,
        { [data.meter]: data.oldReading },
        at,
        "data.oldReading",
      );
    },
    calculable: ({ data }) => data.registration,
    rows: ["meter_change", "meter_totals"],
  }),
  "daily.signed": eventKind("daily.signed", { subjects: ofAircraft, rows: ["work_done"] }),
  "document.renewed": eventKind("document.renewed", {
    subjects: ofAircraft,
    async admit(admission, { data }) {
      const record = await effectiveRecord(admission.tx, admission.groupId, data.registration);
      const item = record?.items.find(({ id }) => id === data.item);
      if (!item) return { field: "data.item", reason: `The aircraft has no due item called “${data.item}”.` };
      if (!isRenewable(item))
        return {
          field: "data.item",
          reason: `“${item.name}” has no printed date that is renewed without work. It needs a release.`,
        };
      if (data.until < data.date)
        return { field: "data.until", reason: "The new date is before the day of renewal." };
      const late = futureDate(data.date, admission.now, record?.timeZone);
      return late ? { field: "data.date", reason: late } : undefined;
    },
    calculable: ({ data }) => data.registration,
    rows: ["work_done"],
  }),
};
