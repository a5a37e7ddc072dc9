import type { EventType, PreflightEvent } from "./events";

/** What no undo reaches: it is answered by a further event, and both stay on record. */
const NEVER_UNDONE: readonly EventType[] = [
  "preflight.started",
  "item.undone",
  "discrepancy.opened",
  "discrepancy.withdrawn",
  "discrepancy.closed",
  "verdict.signed",
];

/** Who a stream belongs to, what its signature is, and which of its events are taken back. */
export interface StreamReading {
  /** The event that began the walk; absent while it has not arrived, and in streams that are no walk. */
  startId?: string;
  /** Who began it: its pilot. */
  pilot?: string;
  signatureId?: string;
  /** Events that were undone by somebody who may. */
  takenBack: ReadonlySet<string>;
  /** Openings that were withdrawn by who logged them, with the event that says so. */
  withdrawn: ReadonlyMap<string, PreflightEvent>;
}

const NOTHING: ReadonlySet<string> = new Set();
const NO_WITHDRAWALS: ReadonlyMap<string, PreflightEvent> = new Map();

/**
 * Reads who may take back what from the events of one stream, in the order of their ids. The same on every device and on the server:
 * - a walk begins with the event that gave it its id, else with the first beginning; who began it is its pilot;
 * - it is signed by its own pilot, once; whatever is signed later, or by another, is an amendment;
 * - an undo counts where what it takes back is in the same stream, was given by the same person or in that pilot's walk, and no
 *   signature lies between them. Beginnings, findings, sign-offs and signatures are never undone;
 * - a finding is withdrawn by who logged it, in the same stream, before the signature.
 * What was on record before these rules (`rules: 1`) keeps its meaning: any undo counted, and the last signature.
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
  const signedBetween = (a: string, b: string) =>
    signatureId !== undefined && a < signatureId !== b < signatureId;
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

/** Whose event it is: the one who held the device, and the one who answered. */
export function authorsOf(event: PreflightEvent): string[] {
  return event.type === "item.answered" && event.data.byCrewId
    ? [event.crewId, event.data.byCrewId]
    : [event.crewId];
}
