import { applyEvent } from "./apply-event";
import { mergeEvents, type PreflightEvent } from "./events";
import { PreflightDraft } from "./preflight-draft";
import { emptyState, type PreflightState } from "./preflight-state";
import { readStream, type StreamReading } from "./read-stream";

/**
 * Folds the events of one preflight to its state. Pure: the same set of events gives the same state whatever their order or
 * repetition; an undone answer leaves the state as if it had never been given. Who may take back what: see `readStream`.
 * Complexity: O(n log n) for the order, then one pass.
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
  const walk = new PreflightDraft(emptyState(preflightId));
  const { takenBack, withdrawn } = reading;
  for (const event of events)
    if (!takenBack.has(event.id) && !withdrawn.has(event.id)) applyEvent(walk, event, reading);
  return walk.done();
}

function ofStream(preflightId: string, events: readonly PreflightEvent[]): readonly PreflightEvent[] {
  return events.every((event) => event.streamId === preflightId)
    ? events
    : events.filter((event) => event.streamId === preflightId);
}

/** A fold together with the events that it is made of. */
export interface FoldedPreflight {
  events: readonly PreflightEvent[];
  state: PreflightState;
  reading: StreamReading;
  /** The events that somebody meant to take back, whether they have come yet or not. */
  named: ReadonlySet<string>;
  /** The greatest id among them: they need not have come in order. */
  newest: string;
}

/**
 * The same as folding all the events, made from an earlier fold of the first of them: what a person just did costs the one event, not the
 * whole walk. Where that cannot be (an undo, an event that sorts before the last one, another beginning) everything is folded anew.
 * The earlier fold is left as it was. Complexity: O(answers) for events that only go on, O(n log n) otherwise.
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
      newest: own.at(-1)?.id ?? "",
    };
  }
  const walk = new PreflightDraft(previous.state);
  for (const event of more) if (event.streamId === preflightId) applyEvent(walk, event, previous.reading);
  return { ...previous, events, state: walk.done(), newest: more.at(-1)?.id ?? previous.newest };
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

/** The events behind the earlier ones, where they only go on from them. */
function goesOn(
  { events: before, named, newest }: FoldedPreflight,
  now: readonly PreflightEvent[],
): PreflightEvent[] | undefined {
  const last = before.at(-1);
  if (!last || now.length < before.length || now[before.length - 1] !== last || now[0] !== before[0])
    return undefined;
  const more = now.slice(before.length);
  let id = newest;
  for (const event of more) {
    // An undo may have come before what it takes back; and a beginning or a signature changes who may take back what.
    if (event.id <= id || CHANGES_THE_READING.includes(event.type) || named.has(event.id)) return undefined;
    if (event.type === "discrepancy.opened" && named.has(event.data.discrepancyId)) return undefined;
    id = event.id;
  }
  return more;
}
