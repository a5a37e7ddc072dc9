import { canonicalJson, checkEvent, type EventsResponse, type Refusal } from "@cravix/contract";
import { addDays, localDate } from "@cravix/core/airworthiness/calendar/local-date";
import type { EventData, PreflightEvent } from "@cravix/core/checklist/stream/events";
import type { Db } from "../db/database";
import { yieldingLoop } from "../fairness/yielding-loop";
import { type AppendOptions, appendEvents } from "./append-events";
import type { Fault } from "./kinds/event-kind";
import { type KnownNames, knownNames } from "./known-names";

export interface AcceptOptions extends AppendOptions {
  /** Called with errors of our own; their events are refused. */
  onError?: (error: unknown) => void;
}

/**
 * Validates a batch: valid events are recorded, invalid ones returned with the reason, independently of each other. Yields
 * regularly, so that a batch full of faults does not block others.
 */
export async function acceptEvents(
  db: Db,
  inputs: readonly unknown[],
  { groupId, now, onError }: AcceptOptions,
): Promise<EventsResponse> {
  let names = await knownNames(db, groupId, false);
  let fresh = false;
  const refused: Refusal[] = [];
  const indexes = new Map<string, number>();
  const valid = new Map<string, PreflightEvent>();
  let repeated = 0;
  const turn = yieldingLoop();
  const received = now.toISOString();
  for (const [index, input] of inputs.entries()) {
    await turn.pause();
    const checked = checkEvent(input, now);
    if ("refusal" in checked) {
      refused.push({ ...checked.refusal, index });
      continue;
    }
    const event = notAhead(checked.event, received);
    let reason = unknownTo(event, names);
    // Reload unknown names, as someone may just have joined.
    if (reason && !fresh) {
      names = await knownNames(db, groupId, true);
      fresh = true;
      reason = unknownTo(event, names);
    }
    reason ??= implausibleTime(event, names, now);
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
  const outcome = await appendEvents(db, [...valid.values()], { groupId, now });
  for (const error of outcome.errors) onError?.(error);
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

/** An event of a clock that is a little fast happened now; the device's time is kept beside it. */
function notAhead(event: PreflightEvent, received: string): PreflightEvent {
  return event.at <= received ? event : { ...event, at: received, deviceAt: event.deviceAt ?? event.at };
}

function unknownTo(event: PreflightEvent, { crew, registrations }: KnownNames): Fault | undefined {
  if (!crew.has(event.crewId))
    return { field: "crewId", reason: `${event.crewId} is not a member of the group.` };
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
  if (event.type === "flight.corrected" && event.data.line) {
    const { line, registration } = event.data;
    if (line.registration !== registration)
      return {
        field: "data.line.registration",
        reason:
          "This flight belongs to another aircraft. Strike out this entry, then log the flight under the other aircraft.",
      };
  }
  const registration = named.find((one) => !registrations.has(one));
  if (registration !== undefined)
    return {
      field: event.type === "workshop.planned" ? "data.visits" : "data.registration",
      reason: `${registration} is not one of your group's aircraft.`,
    };
  return undefined;
}

/** Why a flight or a day cannot be right: in the future by more than a day, or before the aircraft was built. */
function implausibleTime(event: PreflightEvent, names: KnownNames, now: Date): Fault | undefined {
  if (event.type === "flight.logged") return implausibleLine(event.data, "data", names, now);
  if (event.type === "flight.corrected" && event.data.line)
    return implausibleLine(event.data.line, "data.line", names, now);
  if (event.type === "work.released" || event.type === "daily.signed" || event.type === "document.renewed")
    return implausibleDate("data.date", event.data.date, event.data.registration, names, now);
  return undefined;
}

function implausibleLine(
  { registration, off, on }: EventData["flight.logged"],
  path: string,
  names: KnownNames,
  now: Date,
): Fault | undefined {
  return (
    implausibleDate(`${path}.off`, off.slice(0, 10), registration, names, now) ??
    implausibleDate(`${path}.on`, on.slice(0, 10), registration, names, now) ??
    (on < off ? { field: `${path}.on`, reason: "On blocks must be later than off blocks." } : undefined)
  );
}

function implausibleDate(
  field: string,
  date: string,
  registration: string,
  { registrations }: KnownNames,
  now: Date,
): Fault | undefined {
  if (date > addDays(localDate(now.toISOString()), 1))
    return { field, reason: "This is in the future. Check the date." };
  const year = registrations.get(registration);
  return year !== undefined && date < `${year}-01-01`
    ? { field, reason: `${registration} was built in ${year}. Check the date.` }
    : undefined;
}

const byCrewOf = (event: PreflightEvent) =>
  event.type === "item.answered" ? event.data.byCrewId : undefined;
