import { mergeEvents, type PreflightEvent } from "@cravix/core/checklist/stream/events";
import {
  countedDiscrepancyEvents,
  isAboutDiscrepancy,
} from "@cravix/core/checklist/stream/fold-discrepancies";
import { foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";
import type { PreflightState } from "@cravix/core/checklist/stream/preflight-state";

/** A stream as a batch finds it. */
export interface TouchedStream {
  id: string;
  /** Whether any of it was on record. */
  seen: boolean;
  /** Recorded events, once each, with whether they count for their discrepancy. */
  stored: { event: PreflightEvent; counts: boolean }[];
  /** Events added by the batch. */
  added: PreflightEvent[];
}

/** Folded state of a stream including the batch. */
export interface FoldedStream {
  id: string;
  seen: boolean;
  count: number;
  state: PreflightState;
  /** Discrepancy events that now count, or no longer do. */
  changed: { id: string; counts: boolean }[];
  /** Those that count, for their discrepancies. */
  counted: ReturnType<typeof countedDiscrepancyEvents>;
}

/** An invalid event; only this one is rejected. */
export interface Unfoldable {
  event: PreflightEvent;
}

/**
 * Folds a stream from recorded and added events: the result is independent of arrival order. Events that cannot be folded are
 * left out and named; throws if the record itself cannot be folded.
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
  // Events excluded before the undo rules stay excluded: what undid them may be in another stream.
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
