import { can } from "@cravix/contract";
import { MAX_PHOTOGRAPHS } from "@cravix/core/airworthiness/life/photograph";
import type { EventData } from "@cravix/core/checklist/stream/events";
import { and, eq, inArray } from "drizzle-orm";
import { discrepancy } from "../../db/schema/discrepancy";
import { crew } from "../../db/schema/fleet";
import { openInSpiteOfMerge } from "../../fleet/merged-discrepancies";
import { subjectOf } from "../../record/lock-subjects";
import { admitDeferral } from "./admit-deferral";
import { type Admission, eventKind, type Fault } from "./event-kind";
import { ownPreventive } from "./own-release";

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
  admission: Admission,
  { release, discrepancyId }: EventData["discrepancy.closed"],
): Promise<boolean> {
  const found = release === undefined ? undefined : await ownPreventive(admission, release);
  return found?.closes.includes(discrepancyId) === true;
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
    // What else of this equipment is out decides too.
    subjects: ({ data }, groupId) => [
      subjectOf.discrepancy(data.discrepancyId),
      ...(data.equipment === undefined ? [] : [subjectOf.equipment(groupId, data.equipment)]),
    ],
    admit: async (admission, { data }) =>
      admitDeferral(admission, await rowOf(admission, data.discrepancyId), data),
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
