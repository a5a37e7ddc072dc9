import type { EventEnvelope, EventType, PreflightEvent } from "./events";
import type { PreflightDraft } from "./preflight-draft";
import type { Answer } from "./preflight-state";
import { authorsOf, type StreamReading } from "./read-stream";

/** Applies an event of one kind to a draft. */
export type EventHandler<T extends EventType> = (
  preflight: PreflightDraft,
  event: EventEnvelope<T>,
  reading: StreamReading,
  /** Time of the previous event, if there was one. */
  before: string | undefined,
) => void;

/** Answers an item: the preflight moves on, and the answer can be undone. */
export function answer(
  preflight: PreflightDraft,
  event: PreflightEvent,
  itemId: string,
  outcome: Answer["outcome"],
  more: Omit<Partial<Answer>, "eventId" | "at" | "outcome"> & { discrepancyId?: string } = {},
): void {
  const { discrepancyId, ...rest } = more;
  preflight.own("answers")[itemId] = { eventId: event.id, at: event.at, outcome, ...rest };
  if (preflight.now.postponed.includes(itemId))
    preflight.put({ postponed: preflight.now.postponed.filter((postponed) => postponed !== itemId) });
  preflight.put({ cursor: { itemId, visiting: false } });
  canBeUndone(preflight, event, discrepancyId, more.card && `${more.card} ${event.at}`);
}

/** Reopens an item and goes to it. */
export function reopenItem(preflight: PreflightDraft, itemId: string): void {
  preflight.put({ cursor: { itemId, visiting: true } });
}

export function canBeUndone(
  preflight: PreflightDraft,
  event: PreflightEvent,
  discrepancyId?: string,
  card?: string,
): void {
  preflight.own("undoable").push({
    eventId: event.id,
    crewIds: authorsOf(event),
    ...(discrepancyId && { discrepancyId }),
    ...(card && { card }),
  });
}
