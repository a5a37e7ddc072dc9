import type { EventType, PreflightEvent } from "./events";

/** Events that cannot be undone; a later event answers them, and both stay on record. */
const NEVER_UNDONE: readonly EventType[] = [
  "preflight.started",
  "item.undone",
  "discrepancy.opened",
  "discrepancy.withdrawn",
  "discrepancy.closed",
  "verdict.signed",
];

/** Owner of a stream, its signature, and its undone events. */
export interface StreamReading {
  /** Event that started the preflight; absent if it has not arrived, and in other streams. */
  startId?: string;
  /** Crew id of the person who started it: its pilot. */
  pilot?: string;
  signatureId?: string;
  /** Ids of events undone by someone entitled to. */
  takenBack: ReadonlySet<string>;
  /** Openings withdrawn by their authors, with the withdrawing event. */
  withdrawn: ReadonlyMap<string, PreflightEvent>;
}

const NOTHING: ReadonlySet<string> = new Set();
const NO_WITHDRAWALS: ReadonlyMap<string, PreflightEvent> = new Map();

/**
 * Determines undo rights from the events of one stream, in record order. Identical on every device and the server:
 * - a preflight starts with the event that gave it its id, else with the first start event; its author is the pilot;
 * - the pilot signs it once; later signatures, or those of others, are amendments;
 * - an undo counts if its target is in the same stream, was made by the same person or in that pilot's preflight, and no
 * signature lies between them. Starts, discrepancies, sign-offs and signatures are never undone;
 * - a discrepancy is withdrawn by its author, in the same stream, before the signature. Events recorded before these rules
 * (`rules: 1`) keep their meaning: every undo counted, and the last signature.
 * Complexity: O(n).
 */
export function readStream(events: readonly PreflightEvent[]): StreamReading {
  let start: PreflightEvent | undefined;
  let questions = false;
  for (const event of events) {
    if (event.type === "preflight.started") {
      if (!start || (event.id === event.streamId && start.id !== start.streamId)) start = event;
    } else if (event.type === "item.undone" || event.type === "discrepancy.withdrawn") questions = true;
  }
  const pilot = start?.crewId;
  const signatureId = signatureOf(events, pilot);
  const reading = {
    ...(start && { startId: start.id }),
    ...(pilot !== undefined && { pilot }),
    ...(signatureId !== undefined && { signatureId }),
  };
  if (!questions) return { ...reading, takenBack: NOTHING, withdrawn: NO_WITHDRAWALS };

  const byId = new Map(events.map((event) => [event.id, event]));
  const openings = new Map<string, PreflightEvent>();
  for (const event of events)
    if (event.type === "discrepancy.opened") {
      const { discrepancyId } = event.data;
      if (event.id === discrepancyId || !openings.has(discrepancyId)) openings.set(discrepancyId, event);
    }
  const places = new Map(events.map((event, place) => [event.id, place]));
  const placeOf = (id: string) => places.get(id) ?? events.length;
  const signedBetween = (a: string, b: string) =>
    signatureId !== undefined && placeOf(a) < placeOf(signatureId) !== placeOf(b) < placeOf(signatureId);
  const takenBack = new Set<string>();
  const withdrawn = new Map<string, PreflightEvent>();
  for (const event of events) {
    if (event.type === "item.undone") {
      const target = byId.get(event.data.eventId);
      if (event.rules === 1) takenBack.add(event.data.eventId);
      else if (
        target &&
        !NEVER_UNDONE.includes(target.type) &&
        (event.crewId === pilot || authorsOf(target).includes(event.crewId)) &&
        !signedBetween(target.id, event.id)
      )
        takenBack.add(target.id);
    } else if (event.type === "discrepancy.withdrawn") {
      const opening = openings.get(event.data.discrepancyId);
      if (
        opening &&
        opening.crewId === event.crewId &&
        !withdrawn.has(opening.id) &&
        !signedBetween(opening.id, event.id)
      )
        withdrawn.set(opening.id, event);
    }
  }
  return { ...reading, takenBack, withdrawn };
}

function signatureOf(events: readonly PreflightEvent[], pilot: string | undefined): string | undefined {
  let first: string | undefined;
  let asBefore: string | undefined;
  for (const event of events) {
    if (event.type !== "verdict.signed") continue;
    if (event.rules === 1) asBefore = event.id;
    else if (event.crewId === pilot) first ??= event.id;
  }
  return asBefore ?? first;
}

/** Authors of an event: the person holding the device, and the one who answered. */
export function authorsOf(event: PreflightEvent): string[] {
  return event.type === "item.answered" && event.data.byCrewId
    ? [event.crewId, event.data.byCrewId]
    : [event.crewId];
}
