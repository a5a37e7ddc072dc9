import { applyEvent } from "./apply-event";
import { mergeEvents, type PreflightEvent } from "./events";
import { PreflightDraft } from "./preflight-draft";
import { emptyState, type PreflightState } from "./preflight-state";
import { readStream, type StreamReading } from "./read-stream";

/**
 * Folds the events of one preflight into its state. Pure: the result does not depend on order or repetition; an undone answer
 * leaves no trace in the state. For undo rights see `readStream`.
 * Complexity: O(n log n) for sorting, then one pass.
 */
export function foldPreflight(preflightId: string, events: readonly PreflightEvent[]): PreflightState {
  const own = ofStream(preflightId, mergeEvents(events));
  return foldRead(preflightId, own, readStream(own));
}

function foldRead(
  preflightId: string,
  events: readonly PreflightEvent[],
  reading: StreamReading,
): PreflightState {
  const preflight = new PreflightDraft(emptyState(preflightId));
  const { takenBack, withdrawn } = reading;
  for (const event of events)
    if (!takenBack.has(event.id) && !withdrawn.has(event.id)) applyEvent(preflight, event, reading);
  return preflight.done();
}

function ofStream(preflightId: string, events: readonly PreflightEvent[]): readonly PreflightEvent[] {
  return events.every((event) => event.streamId === preflightId)
    ? events
    : events.filter((event) => event.streamId === preflightId);
}

/** A fold with the events it was made from. */
export interface FoldedPreflight {
  events: readonly PreflightEvent[];
  state: PreflightState;
  reading: StreamReading;
  /** Ids of events that undo events refer to, whether they have arrived or not. */
  named: ReadonlySet<string>;
  /** Largest id and latest time so far; events may arrive out of order. */
  newest: { id: string; at: string };
}

/**
 * Same result as folding all events, starting from an earlier fold: the cost is that of the new events, not of the whole
 * preflight. If that is not possible (an undo, an out-of-order event, another start) everything is folded again. The earlier fold
 * is not modified. Complexity: O(answers) for appended events, O(n log n) otherwise.
 */
export function foldIncrementally(
  previous: FoldedPreflight | undefined,
  preflightId: string,
  events: readonly PreflightEvent[],
): FoldedPreflight {
  const more = previous && previous.state.id === preflightId && goesOn(previous, events);
  if (!previous || !more) {
    const own = ofStream(preflightId, mergeEvents(events));
    const reading = readStream(own);
    return {
      events,
      state: foldRead(preflightId, own, reading),
      reading,
      named: namedBy(own),
      newest: newestOf(own),
    };
  }
  const preflight = new PreflightDraft(previous.state);
  for (const event of more)
    if (event.streamId === preflightId) applyEvent(preflight, event, previous.reading);
  return { ...previous, events, state: preflight.done(), newest: more.at(-1) ?? previous.newest };
}

/** Largest id and latest time: an event after both is the last one. */
function newestOf(events: readonly PreflightEvent[]): FoldedPreflight["newest"] {
  const newest = { id: "", at: "" };
  for (const { id, at } of events) {
    if (id > newest.id) newest.id = id;
    if (at > newest.at) newest.at = at;
  }
  return newest;
}

function namedBy(events: readonly PreflightEvent[]): ReadonlySet<string> {
  const named = new Set<string>();
  for (const event of events)
    if (event.type === "item.undone") named.add(event.data.eventId);
    else if (event.type === "discrepancy.withdrawn") named.add(event.data.discrepancyId);
  return named;
}

const CHANGES_THE_READING: readonly PreflightEvent["type"][] = [
  "preflight.started",
  "item.undone",
  "discrepancy.withdrawn",
  "verdict.signed",
];

/** New events, if they only append to the earlier ones; otherwise undefined. */
function goesOn(
  { events: before, named, newest }: FoldedPreflight,
  now: readonly PreflightEvent[],
): PreflightEvent[] | undefined {
  const last = before.at(-1);
  if (!last || now.length < before.length || now[before.length - 1] !== last || now[0] !== before[0])
    return undefined;
  const more = now.slice(before.length);
  let { id, at } = newest;
  for (const event of more) {
    // An undo may arrive before its target, and a start or signature changes undo rights.
    if (event.id <= id || event.at < at || CHANGES_THE_READING.includes(event.type) || named.has(event.id))
      return undefined;
    if (event.type === "discrepancy.opened" && named.has(event.data.discrepancyId)) return undefined;
    ({ id, at } = event);
  }
  return more;
}
