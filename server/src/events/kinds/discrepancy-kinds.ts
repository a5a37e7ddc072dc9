import { can } from "@cravix/contract";
import { type EventData, MAX_PHOTOGRAPHS, mayBeDeferred } from "@cravix/core";
import { and, eq, inArray, sql } from "drizzle-orm";
import { readEquipment } from "../../airworthiness/read-airworthiness";
import { event as eventTable } from "../../db/schema/checklist";
import { discrepancy } from "../../db/schema/discrepancy";
import { aircraft, airfield, crew } from "../../db/schema/fleet";
import { openInSpiteOfMerge } from "../../fleet/merged-discrepancies";
import { readRules } from "../../fleet/read-rules";
import { subjectOf } from "../lock-subjects";
import { type Admission, eventKind, type Fault } from "./event-kind";

type Row = typeof discrepancy.$inferSelect;

/** A discrepancy is found at a preflight item, so the preflight changes with it. */
const ROWS = ["preflight", "reading", "fluid_log", "discrepancy"] as const;

export async function discrepancyRows({ tx, groupId }: Admission, ids: readonly string[]): Promise<Row[]> {
  if (ids.length === 0) return [];
  return tx
    .select()
    .from(discrepancy)
    .where(and(eq(discrepancy.groupId, groupId), inArray(discrepancy.id, [...ids])));
}

const rowOf = async (admission: Admission, id: string) => (await discrepancyRows(admission, [id]))[0];

const own = ({ data }: { data: { discrepancyId: string } }) => [subjectOf.discrepancy(data.discrepancyId)];

/** Why a pilot's preventive release cannot close this discrepancy; undefined if it can. */
export async function notPreventive(admission: Admission, row: Row): Promise<string | undefined> {
  if (row.grade === "stop")
    return `“${row.text.slice(0, 80)}” is graded as a stop. Only a mechanic can sign it off.`;
  const last = row.life?.grades?.at(-1);
  const grader = last?.crewId ?? row.openedBy;
  const [member] = await admission.tx
    .select({ role: crew.role })
    .from(crew)
    .where(and(eq(crew.groupId, admission.groupId), eq(crew.id, grader)));
  return can(member, "discrepancy.close")
    ? `“${row.text.slice(0, 80)}” was graded by a mechanic. Only a mechanic can sign it off.`
    : undefined;
}

/** True if the same person released it as preventive maintenance. */
async function isReleased(
  { tx, groupId, principal }: Admission,
  { release, discrepancyId }: EventData["discrepancy.closed"],
): Promise<boolean> {
  if (release === undefined) return false;
  const [found] = await tx
    .select({ type: eventTable.type, crewId: eventTable.crewId, data: eventTable.data })
    .from(eventTable)
    .where(and(eq(eventTable.groupId, groupId), eq(eventTable.id, release)));
  if (found?.type !== "work.released" || found.crewId !== principal.id) return false;
  const { preventive, closes } = found.data as EventData["work.released"];
  return preventive === true && closes.includes(discrepancyId);
}

/** Why the rules forbid deferral, from data alone; questions for a person are left to that person. */
async function notDeferrable(
  { tx, groupId }: Admission,
  row: Row,
  flight: EventData["discrepancy.deferred"]["for"],
): Promise<string | undefined> {
  const [found] = await tx
    .select({ body: aircraft.body, field: airfield.body })
    .from(aircraft)
    .leftJoin(
      airfield,
      and(
        eq(airfield.groupId, aircraft.groupId),
        eq(airfield.id, sql`json_value(${aircraft.body}, '$.base')`),
      ),
    )
    .where(and(eq(aircraft.groupId, groupId), eq(aircraft.registration, row.registration)));
  if (!found || row.itemId === null) return undefined;
  const rules = await readRules(tx, groupId, found.body.rules ?? found.field?.rules);
  const list = await readEquipment(tx, found.body.typeId, groupId);
  if (!rules?.deferral || !list) return undefined;
  const outcome = mayBeDeferred({
    rules: rules.deferral,
    list,
    itemId: row.itemId,
    flight,
    found: row.openedAt.slice(0, 10),
    ...(list.minimum && { minimum: list.minimum }),
  });
  return outcome.result === "not deferrable" ? outcome.why : undefined;
}

const NOT_ON_RECORD: Fault = {
  field: "data.discrepancyId",
  reason: "This discrepancy is not on record. Send its first entry before this one.",
};

export const DISCREPANCY_KINDS = {
  "discrepancy.opened": eventKind("discrepancy.opened", { subjects: own, rows: ROWS }),
  "discrepancy.observed": eventKind("discrepancy.observed", { subjects: own, rows: ROWS }),
  "discrepancy.withdrawn": eventKind("discrepancy.withdrawn", { subjects: own, rows: ROWS }),
  "discrepancy.asked": eventKind("discrepancy.asked", { subjects: own, rows: ["discrepancy"] }),
  "discrepancy.limited": eventKind("discrepancy.limited", { subjects: own, rows: ["discrepancy"] }),
  "discrepancy.closed": eventKind("discrepancy.closed", {
    subjects: own,
    decided: ({ data }) => data.release !== undefined,
    subject: async (admission, { data }) => ({ released: await isReleased(admission, data) }),
    rows: ["preflight", "discrepancy"],
  }),
  "discrepancy.regraded": eventKind("discrepancy.regraded", {
    subjects: own,
    before: async (admission, { data }) => (await rowOf(admission, data.discrepancyId))?.grade,
    rows: ["discrepancy"],
  }),
  "discrepancy.merged": eventKind("discrepancy.merged", {
    subjects: ({ data }) => [subjectOf.discrepancy(data.discrepancyId), subjectOf.discrepancy(data.into)],
    async admit(admission, { data }) {
      const rows = await discrepancyRows(admission, [data.discrepancyId, data.into]);
      const from = rows.find(({ id }) => id === data.discrepancyId);
      const into = rows.find(({ id }) => id === data.into);
      const freed = await openInSpiteOfMerge(admission.tx, admission.groupId);
      const open =
        into &&
        into.closedAt === null &&
        into.withdrawnAt === null &&
        (into.mergedInto === null || freed.has(into.id));
      return from && open && into.id !== from.id && into.registration === from.registration
        ? undefined
        : {
            field: "data.into",
            reason: "A discrepancy can only be merged into an open discrepancy of the same aircraft.",
          };
    },
    rows: ["discrepancy"],
  }),
  "discrepancy.deferred": eventKind("discrepancy.deferred", {
    subjects: own,
    async admit(admission, { data }) {
      const row = await rowOf(admission, data.discrepancyId);
      const why = row && (await notDeferrable(admission, row, data.for));
      return why ? { field: "data", reason: `This discrepancy cannot be deferred. ${why}` } : undefined;
    },
    rows: ["discrepancy"],
  }),
  "discrepancy.photographed": eventKind("discrepancy.photographed", {
    subjects: own,
    async admit(admission, { data }) {
      const row = await rowOf(admission, data.discrepancyId);
      if (!row) return NOT_ON_RECORD;
      const known = row.life?.photographs ?? [];
      return known.length < MAX_PHOTOGRAPHS || known.some((one) => one.photograph === data.photograph)
        ? undefined
        : {
            field: "data.discrepancyId",
            reason: `A discrepancy can have at most ${MAX_PHOTOGRAPHS} photos, and this one has ${MAX_PHOTOGRAPHS} already.`,
          };
    },
    rows: ["preflight", "discrepancy"],
  }),
};
