import type { EventEnvelope, EventType, PreflightEvent } from "./events";
import type { PreflightDraft } from "./preflight-draft";
import type { Answer } from "./preflight-state";
import { authorsOf, type StreamReading } from "./read-stream";

/** Applies an event of one kind to a draft. */
export type EventHandler<T extends EventType> = (
  walk: PreflightDraft,
  event: EventEnvelope<T>,
  reading: StreamReading,
  /** Time of the previous event, if there was one. */
  before: string | undefined,
) => void;

/** Answers an item: the preflight moves on, and the answer can be undone. */
export function answer(
  walk: PreflightDraft,
  event: PreflightEvent,
  itemId: string,
  outcome: Answer["outcome"],
  more: Omit<Partial<Answer>, "eventId" | "at" | "outcome"> & { discrepancyId?: string } = {},
): void {
  const { discrepancyId, ...rest } = more;
  walk.own("answers")[itemId] = { eventId: event.id, at: event.at, outcome, ...rest };
  if (walk.now.postponed.includes(itemId))
    walk.put({ postponed: walk.now.postponed.filter((postponed) => postponed !== itemId) });
  walk.put({ cursor: { itemId, visiting: false } });
  canBeUndone(walk, event, discrepancyId, more.card && `${more.card} ${event.at}`);
}

/** Reopens an item and goes to it. */
export function reopenItem(walk: PreflightDraft, itemId: string): void {
  walk.put({ cursor: { itemId, visiting: true } });
}

export function canBeUndone(
  walk: PreflightDraft,
  event: PreflightEvent,
  discrepancyId?: string,
  card?: string,
): void {
  walk.own("undoable").push({
    eventId: event.id,
    crewIds: authorsOf(event),
    ...(discrepancyId && { discrepancyId }),
    ...(card && { card }),
  });
}
