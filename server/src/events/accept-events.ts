import { canonicalJson, checkEvent, type EventsResponse, type Refusal } from "@cravix/contract";
import type { PreflightEvent } from "@cravix/core";
import type { Db } from "../db/database";
import { HOME_GROUP } from "../db/schema/group";
import { turns } from "../turns";
import { appendEvents } from "./append-events";
import { type KnownNames, knownNames } from "./known-names";

/**
 * Takes a batch: what is valid goes on record, what is not comes back by its id with the reason, and costs no other its place. A batch full of
 * faults is looked through in turns, so that nobody else waits for it.
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
  const turn = turns();
  for (const [index, input] of inputs.entries()) {
    await turn.pause();
    const checked = checkEvent(input, now);
    if ("refusal" in checked) {
      refused.push({ ...checked.refusal, index });
      continue;
    }
    const { event } = checked;
    // Someone who joined a minute ago is asked for, not turned away; and who signs off is never taken from memory.
    if (!fresh && (event.type === "discrepancy.closed" || unknownTo(event, names))) {
      names = await knownNames(db, groupId, true);
      fresh = true;
    }
    const reason = unknownTo(event, names);
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
          reason: "Another event of this batch has the same id and says something else.",
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
      reason: "An event with this id is on record and says something else. The one on record stands.",
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
  if (!member) return { field: "crewId", reason: `${event.crewId} is not in the group's list of crew.` };
  const other = event.type === "crew.joined" ? event.data.crewId : byCrewOf(event);
  if (other !== undefined && !crew.has(other))
    return { field: "data", reason: `${other} is not in the group's list of crew.` };
  const registration = "registration" in event.data ? event.data.registration : undefined;
  if (registration !== undefined && !registrations.has(registration))
    return {
      field: "data.registration",
      reason: `There is no aircraft ${registration} in the group.`,
    };
  if (event.type === "discrepancy.closed" && member.role !== "mechanic")
    return {
      field: "crewId",
      reason: `Only a mechanic signs a discrepancy off; ${member.name} is ${member.role}.`,
    };
  return undefined;
}

const byCrewOf = (event: PreflightEvent) =>
  event.type === "item.answered" ? event.data.byCrewId : undefined;
