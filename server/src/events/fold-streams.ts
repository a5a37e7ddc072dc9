import {
  countedDiscrepancyEvents,
  foldPreflight,
  isAboutDiscrepancy,
  mergeEvents,
  type PreflightEvent,
  type PreflightState,
} from "@cravix/core";

/** One stream as a batch finds it. */
export interface TouchedStream {
  id: string;
  /** Whether anything of it was on record. */
  seen: boolean;
  /** What is on record, each event once, and whether it counts for its discrepancy so far. */
  stored: { event: PreflightEvent; counts: boolean }[];
  /** What the batch adds. */
  added: PreflightEvent[];
}

/** What a stream amounts to with the batch in it. */
export interface FoldedStream {
  id: string;
  seen: boolean;
  count: number;
  state: PreflightState;
  /** Events about discrepancies whose say changes: they count from now on, or no more. */
  changed: { id: string; counts: boolean }[];
  /** Those that count, for the discrepancies they are about. */
  counted: ReturnType<typeof countedDiscrepancyEvents>;
}

/** An event that cannot be folded: it is refused, and the rest is taken. */
export interface Unfoldable {
  event: PreflightEvent;
}

/**
 * Folds a stream anew from what is on record and what the batch adds: the result is right whatever the order of arrival. Where folding fails,
 * the events at which it fails are left out and named; where even the record cannot be folded, it throws.
 */
export function foldStream(stream: TouchedStream): { folded: FoldedStream; unfoldable: PreflightEvent[] } {
  try {
    return { folded: foldWith(stream, stream.added), unfoldable: [] };
  } catch {
    const good: PreflightEvent[] = [];
    const unfoldable: PreflightEvent[] = [];
    for (const event of stream.added) {
      try {
        foldWith(stream, [...good, event]);
        good.push(event);
      } catch {
        unfoldable.push(event);
      }
    }
    return { folded: foldWith(stream, good), unfoldable };
  }
}

function foldWith({ id, seen, stored }: TouchedStream, added: readonly PreflightEvent[]): FoldedStream {
  const events = mergeEvents([...stored.map(({ event }) => event), ...added]);
  const state = foldPreflight(id, events);
  const before = new Map(stored.map(({ event, counts }) => [event.id, counts]));
  // What was on record before there were rules stays out once it is out: what took it back may be in another stream.
  const counted = countedDiscrepancyEvents(events).filter(
    (event) => event.rules !== 1 || before.get(event.id) !== false,
  );
  const counts = new Set(counted.map((event) => event.id));
  const changed = events
    .filter(isAboutDiscrepancy)
    .filter((event) => (before.get(event.id) ?? true) !== counts.has(event.id))
    .map((event) => ({ id: event.id, counts: counts.has(event.id) }));
  return { id, seen, count: events.length, state, changed, counted };
}
