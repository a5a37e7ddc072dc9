import {
  canonicalJson,
  checkEvent,
  type EventsResponse,
  permissionError,
  type Refusal,
  requiredPermission,
} from "@cravix/contract";
import {
  type EventData,
  fittingError,
  isFitted,
  MAX_PHOTOGRAPHS,
  mayBeDeferred,
  type PreflightEvent,
  planFaults,
} from "@cravix/core";
import { and, eq, sql } from "drizzle-orm";
import { effectiveRecord } from "../airworthiness/effective-record";
import { readShelf } from "../airworthiness/project-moves";
import { kindOfItem } from "../airworthiness/project-people";
import { readEquipment } from "../airworthiness/read-airworthiness";
import type { Db } from "../db/database";
import { event as eventTable } from "../db/schema/checklist";
import { discrepancy } from "../db/schema/discrepancy";
import { aircraft, airfield } from "../db/schema/fleet";
import { HOME_GROUP } from "../db/schema/group";
import { readRules } from "../fleet/read-fleet";
import { yieldingLoop } from "../yielding-loop";
import { appendEvents } from "./append-events";
import { type KnownNames, knownNames } from "./known-names";

/**
 * Validates a batch: valid events are recorded, invalid ones returned with the reason, independently of each other. Yields
 * regularly, so that a batch full of faults does not block others.
 */
export async function acceptEvents(
  db: Db,
  inputs: readonly unknown[],
  now: Date,
  groupId = HOME_GROUP,
): Promise<EventsResponse> {
  let names = await knownNames(db, groupId, false);
  let fresh = false;
  const refused: Refusal[] = [];
  const indexes = new Map<string, number>();
  const valid = new Map<string, PreflightEvent>();
  let repeated = 0;
  const turn = yieldingLoop();
  for (const [index, input] of inputs.entries()) {
    await turn.pause();
    const checked = checkEvent(input, now);
    if ("refusal" in checked) {
      refused.push({ ...checked.refusal, index });
      continue;
    }
    const { event } = checked;
    // Reload unknown names, as someone may just have joined; permissions to sign off are never cached.
    if (
      !fresh &&
      (event.type === "discrepancy.closed" || requiredPermission(event) || unknownTo(event, names))
    ) {
      names = await knownNames(db, groupId, true);
      fresh = true;
    }
    const reason = unknownTo(event, names) ?? (await forbidden(db, groupId, event, names, valid));
    if (reason) {
      refused.push({ id: event.id, index, ...reason });
      continue;
    }
    const first = valid.get(event.id);
    if (first !== undefined) {
      if (canonicalJson(first) === canonicalJson(event)) repeated++;
      else
        refused.push({
          id: event.id,
          index,
          field: "id",
          reason: "Another event in this batch has the same id but different content.",
        });
      continue;
    }
    indexes.set(event.id, index);
    valid.set(event.id, event);
  }
  const outcome = await appendEvents(db, [...valid.values()], now, groupId);
  const at = (id: string) => indexes.get(id) ?? -1;
  for (const id of outcome.conflicting)
    refused.push({
      id,
      index: at(id),
      field: "id",
      reason: "An event with this id is already recorded with different content. The recorded one was kept.",
    });
  for (const [id, why] of outcome.refused) refused.push({ id, index: at(id), ...why });
  return {
    taken: outcome.taken,
    repeated: repeated + outcome.repeated,
    refused: refused.sort((a, b) => a.index - b.index),
  };
}

function unknownTo(
  event: PreflightEvent,
  { crew, registrations }: KnownNames,
): { field: string; reason: string } | undefined {
  const member = crew.get(event.crewId);
  if (!member) return { field: "crewId", reason: `${event.crewId} is not a member of the group.` };
  const other =
    event.type === "crew.joined"
      ? event.data.crewId
      : "personId" in event.data
        ? event.data.personId
        : byCrewOf(event);
  if (other !== undefined && !crew.has(other))
    return { field: "data", reason: `${other} is not a member of the group.` };
  const named = "registration" in event.data ? [event.data.registration] : [];
  if (event.type === "workshop.planned") named.push(...event.data.visits.map((visit) => visit.registration));
  const registration = named.find((one) => !registrations.has(one));
  if (registration !== undefined)
    return {
      field: event.type === "workshop.planned" ? "data.visits" : "data.registration",
      reason: `${registration} is not one of your group's aircraft.`,
    };
  if (event.type === "discrepancy.closed" && member.role !== "mechanic" && event.data.release === undefined)
    return {
      field: "crewId",
      reason: `Only a mechanic can sign off a discrepancy. ${member.name} is ${/^[aeio]/.test(member.role) ? "an" : "a"} ${member.role}.`,
    };
  return undefined;
}

/** Why this person lacks permission; a changed grade depends on the recorded one. */
async function forbidden(
  db: Db,
  groupId: string,
  event: PreflightEvent,
  { crew }: KnownNames,
  valid: ReadonlyMap<string, PreflightEvent>,
) {
  const member = crew.get(event.crewId);
  if (!member) return undefined;
  if (event.type === "discrepancy.closed" && member.role !== "mechanic")
    return (await isCoveredByRelease(db, groupId, event, valid))
      ? undefined
      : {
          field: "crewId",
          reason: `Only a mechanic can sign off a discrepancy. ${member.name} is ${/^[aeio]/.test(member.role) ? "an" : "a"} ${member.role}.`,
        };
  if (event.type === "discrepancy.photographed") return tooManyPhotographs(db, groupId, event.data);
  const before = await onRecord(db, groupId, event);
  if (!requiredPermission(event, before)) return undefined;
  const wrong = await invalidOperation(db, groupId, event);
  if (wrong) return wrong;
  if (event.type === "work.released" && event.data.preventive) {
    const beyond = await beyondPreventive(db, groupId, event.data);
    if (beyond) return { field: "data.works", reason: beyond };
  }
  const reason = permissionError(event, member, before);
  return reason === undefined ? undefined : { field: "crewId", reason };
}

/**
 * Why an operation is invalid for anyone: merging into a missing or closed discrepancy, a deferral that rules on file forbid, a
 * flight corrected into another aircraft's.
 */
async function invalidOperation(db: Db, groupId: string, event: PreflightEvent) {
  if (event.type === "flight.corrected") {
    const { line, registration } = event.data;
    return line && line.registration !== registration
      ? {
          field: "data.line.registration",
          reason:
            "This flight belongs to another aircraft. Strike out this entry, then log the flight under the other aircraft.",
        }
      : undefined;
  }
  if (event.type === "discrepancy.merged") {
    const [from] = await discrepancyRow(db, groupId, event.data.discrepancyId);
    const [into] = await discrepancyRow(db, groupId, event.data.into);
    const open = into && into.closedAt === null && into.withdrawnAt === null && into.mergedInto === null;
    return from && open && into.id !== from.id && into.registration === from.registration
      ? undefined
      : {
          field: "data.into",
          reason: "A discrepancy can only be merged into an open discrepancy of the same aircraft.",
        };
  }
  if (event.type === "component.removed" || event.type === "component.fitted")
    return componentMoveError(db, groupId, event);
  if (event.type === "workshop.planned") {
    const [fault] = planFaults(event.data);
    return fault && { field: `data.${fault.path}`, reason: `Expected ${fault.expected}.` };
  }
  if (event.type === "discrepancy.deferred") {
    const [row] = await discrepancyRow(db, groupId, event.data.discrepancyId);
    const why = row && (await notDeferrable(db, groupId, row, event.data.for));
    return why ? { field: "data", reason: `This discrepancy cannot be deferred. ${why}` } : undefined;
  }
  return undefined;
}

const discrepancyRow = (db: Db, groupId: string, id: string) =>
  db
    .select()
    .from(discrepancy)
    .where(and(eq(discrepancy.groupId, groupId), eq(discrepancy.id, id)));

/** Why the rules forbid deferral, from data alone; questions for a person are left to that person. */
async function notDeferrable(
  db: Db,
  groupId: string,
  row: typeof discrepancy.$inferSelect,
  flight: EventData["discrepancy.deferred"]["for"],
): Promise<string | undefined> {
  const [found] = await db
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
  const rules = await readRules(db, groupId, found.body.rules ?? found.field?.rules);
  const list = await readEquipment(db, found.body.typeId, groupId);
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

/** Why this is more than preventive maintenance; each due item states whether a pilot may do it. */
async function beyondPreventive(
  db: Db,
  groupId: string,
  { registration, works }: EventData["work.released"],
): Promise<string | undefined> {
  const record = await effectiveRecord(db, groupId, registration);
  const more = works.find(({ item }) => !record?.items.find(({ id }) => id === item)?.preventive);
  return more ? `“${more.item}” is not preventive maintenance. Only a mechanic can release it.` : undefined;
}

/** True if the same person released it as preventive maintenance, in this batch or on record. */
async function isCoveredByRelease(
  db: Db,
  groupId: string,
  closed: PreflightEvent & { type: "discrepancy.closed" },
  valid: ReadonlyMap<string, PreflightEvent>,
): Promise<boolean> {
  const { release, discrepancyId } = closed.data;
  if (release === undefined) return false;
  const here = valid.get(release);
  const [stored] = here
    ? []
    : await db
        .select({ type: eventTable.type, crewId: eventTable.crewId, data: eventTable.data })
        .from(eventTable)
        .where(and(eq(eventTable.groupId, groupId), eq(eventTable.id, release)));
  const found = here ?? stored;
  if (found?.type !== "work.released" || found.crewId !== closed.crewId) return false;
  const { preventive, closes } = found.data as EventData["work.released"];
  return preventive === true && closes.includes(discrepancyId);
}

/** Recorded value that decides permission: a grade, or the kind of a person's item. */
async function onRecord(db: Db, groupId: string, event: PreflightEvent): Promise<string | undefined> {
  if (event.type === "discrepancy.regraded") return gradeOf(db, groupId, event.data.discrepancyId);
  if (!("personId" in event.data)) return undefined;
  const { personId } = event.data;
  const item =
    event.type === "person.done"
      ? event.data.work.item
      : event.type === "person.due-set"
        ? event.data.item.id
        : event.type === "person.due-dropped"
          ? event.data.item
          : "";
  return kindOfItem(db, groupId, personId, item);
}

async function tooManyPhotographs(
  db: Db,
  groupId: string,
  { discrepancyId, photograph }: EventData["discrepancy.photographed"],
) {
  const [row] = await discrepancyRow(db, groupId, discrepancyId);
  const known = row?.life?.photographs ?? [];
  return known.length < MAX_PHOTOGRAPHS || known.some((one) => one.photograph === photograph)
    ? undefined
    : {
        field: "data.discrepancyId",
        reason: `A discrepancy can have at most ${MAX_PHOTOGRAPHS} photos, and this one has ${MAX_PHOTOGRAPHS} already.`,
      };
}

/** Why a component cannot be moved: only a fitted one can be removed, and only a removed one fitted, unchanged from storage. */
async function componentMoveError(
  db: Db,
  groupId: string,
  event: PreflightEvent & { type: "component.removed" | "component.fitted" },
) {
  const { registration } = event.data;
  const record = await effectiveRecord(db, groupId, registration);
  if (!record)
    return { field: "data.registration", reason: "This aircraft has no airworthiness record on file." };
  if (event.type === "component.removed") {
    const { component } = event.data;
    return record.components.some(({ id }) => id === component) && isFitted(record, component)
      ? undefined
      : { field: "data.component", reason: `${component} is not fitted to ${registration}.` };
  }
  const { component, items, works, position } = event.data;
  const why = fittingError(record, { component, items }, position);
  if (why) return { field: "data.component", reason: why };
  const shelved = (await readShelf(db, groupId)).find((one) => one.component.id === component.id);
  if (!shelved) {
    for (const { registration: other } of await db
      .select({ registration: aircraft.registration })
      .from(aircraft)
      .where(eq(aircraft.groupId, groupId))) {
      const elsewhere = await effectiveRecord(db, groupId, other);
      if (elsewhere?.components.some(({ id }) => id === component.id) && isFitted(elsewhere, component.id))
        return {
          field: "data.component",
          reason: `${component.name} is fitted to ${other}. Log its removal there first.`,
        };
    }
    return undefined;
  }
  const { from: _from, at: _at, ...asItCame } = shelved;
  return canonicalJson(asItCame) === canonicalJson({ component, items, works })
    ? undefined
    : {
        field: "data.component",
        reason: `The times entered for ${component.name} differ from those at its removal from ${shelved.from}. Fit it with the times recorded on the shelf.`,
      };
}

async function gradeOf(db: Db, groupId: string, id: string): Promise<string | undefined> {
  const [row] = await db
    .select({ grade: discrepancy.grade })
    .from(discrepancy)
    .where(and(eq(discrepancy.groupId, groupId), eq(discrepancy.id, id)));
  return row?.grade;
}

const byCrewOf = (event: PreflightEvent) =>
  event.type === "item.answered" ? event.data.byCrewId : undefined;
