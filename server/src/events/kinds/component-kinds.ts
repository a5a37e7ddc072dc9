import { canonicalJson } from "@cravix/contract";
import {
  componentAsItIs,
  fittingError,
  isFitted,
  sharedComponentId,
} from "@cravix/core/airworthiness/component-moves";
import { calculated } from "@cravix/core/airworthiness/due/problem-of";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { and, eq } from "drizzle-orm";
import { effectiveRecord, effectiveRecords, readShelf } from "../../airworthiness/effective-record";
import { meterTotals } from "../../db/schema/airworthiness";
import { aircraft } from "../../db/schema/fleet";
import { subjectOf } from "../../record/lock-subjects";
import { type Admission, eventKind, type Fault } from "./event-kind";
import { tooFarAhead } from "./plausible-readings";

type Removed = Extract<PreflightEvent, { type: "component.removed" }>;
type Fitted = Extract<PreflightEvent, { type: "component.fitted" }>;

const NO_RECORD: Fault = {
  field: "data.registration",
  reason: "This aircraft has no airworthiness record on file.",
};

/** A component is known by its own id, and by the one it gets when it leaves its first aircraft. */
const subjects = (groupId: string, registration: string, component: string) => [
  subjectOf.aircraft(groupId, registration),
  subjectOf.component(groupId, component),
  subjectOf.component(groupId, sharedComponentId(registration, component)),
];

async function totalsOnRecord({ tx, groupId }: Admission, registration: string) {
  const [row] = await tx
    .select({ totals: meterTotals.totals })
    .from(meterTotals)
    .where(and(eq(meterTotals.groupId, groupId), eq(meterTotals.registration, registration)));
  return row?.totals ?? {};
}

/** Only a fitted component can be removed, and its times must be calculable. */
async function removalFault(admission: Admission, { data }: Removed): Promise<Fault | undefined> {
  const { registration, component, totals } = data;
  const record = await effectiveRecord(admission.tx, admission.groupId, registration);
  if (!record) return NO_RECORD;
  const known = record.components.find(({ id }) => id === component);
  if (!known || !isFitted(record, component))
    return { field: "data.component", reason: `${component} is not fitted to ${registration}.` };
  const on = { ...record.start.totals, ...(await totalsOnRecord(admission, registration)) };
  const missing = Object.keys(known.sinceNew).find(
    (meter) => totals[meter] === undefined && on[meter] !== undefined,
  );
  if (missing !== undefined)
    return {
      field: `data.totals.${missing}`,
      reason: `Enter the aircraft's total of ${missing} at removal: ${known.name} is tracked by it.`,
    };
  const as = calculated(() => componentAsItIs(record, component, totals));
  if ("problem" in as) return { field: "data.totals", reason: as.problem };
  return tooFarAhead(record, on, totals, "data.totals");
}

/** Only a component in storage, or new to the group, can be fitted: unchanged, to meters the aircraft has, at plausible totals. */
async function fittingFault(admission: Admission, { data }: Fitted): Promise<Fault | undefined> {
  const { tx, groupId } = admission;
  const { registration, component, items, works, position, totals } = data;
  const record = await effectiveRecord(tx, groupId, registration);
  if (!record) return NO_RECORD;
  const why = fittingError(record, { component, items }, position);
  if (why) return { field: "data.component", reason: why };
  const on = { ...record.start.totals, ...(await totalsOnRecord(admission, registration)) };
  for (const meter of Object.keys(component.sinceNew)) {
    const [now, entered] = [on[meter], totals[meter]];
    if (entered === undefined)
      return {
        field: `data.totals.${meter}`,
        reason: `Enter the aircraft's total of ${meter} when ${component.name} was fitted.`,
      };
    if (now !== undefined && entered > now + 1e-9)
      return {
        field: `data.totals.${meter}`,
        reason: `${entered} is above the aircraft's total of ${now}. Check the total, or log the missing flights first.`,
      };
  }
  const strange = works.findIndex(({ item }) => !items.some(({ id }) => id === item));
  if (strange >= 0)
    return {
      field: `data.works[${strange}].item`,
      reason: "This work belongs to none of the component's due items.",
    };
  const shelved = (await readShelf(tx, groupId)).find((one) => one.component.id === component.id);
  if (!shelved) return fittedElsewhere(admission, component.id, component.name);
  const asItCame = { component: shelved.component, items: shelved.items, works: shelved.works };
  return canonicalJson(asItCame) === canonicalJson({ component, items, works })
    ? undefined
    : {
        field: "data.component",
        reason: `The times entered for ${component.name} differ from those at its removal from ${shelved.from}. Fit it with the times recorded on the shelf.`,
      };
}

async function fittedElsewhere(
  { tx, groupId }: Admission,
  id: string,
  name: string,
): Promise<Fault | undefined> {
  const all = await tx
    .select({ registration: aircraft.registration })
    .from(aircraft)
    .where(eq(aircraft.groupId, groupId));
  const records = await effectiveRecords(
    tx,
    groupId,
    all.map(({ registration }) => registration),
  );
  for (const [other, record] of records)
    if (
      record.components.some(
        (one) => (one.id === id || sharedComponentId(other, one.id) === id) && isFitted(record, one.id),
      )
    )
      return {
        field: "data.component",
        reason: `${name} is fitted to ${other}. Log its removal there first.`,
      };
  return undefined;
}

export const COMPONENT_KINDS = {
  "component.removed": eventKind("component.removed", {
    subjects: ({ data }, groupId) => subjects(groupId, data.registration, data.component),
    calculable: ({ data }) => data.registration,
    admit: removalFault,
    rows: ["component_move"],
  }),
  "component.fitted": eventKind("component.fitted", {
    subjects: ({ data }, groupId) => subjects(groupId, data.registration, data.component.id),
    calculable: ({ data }) => data.registration,
    admit: fittingFault,
    rows: ["component_move"],
  }),
};
