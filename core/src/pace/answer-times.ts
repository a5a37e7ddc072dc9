import type { Item } from "../aircraft/aircraft-type";
import { type ComposedList, itemById } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";

export interface TimedAnswer {
  item: Item;
  /** Milliseconds of the device's clock. */
  at: number;
  /** Seconds since the answer before it, or since the beginning; what an interruption took is left out. */
  seconds: number;
  /** The card that it was answered on in one go with others; the first of them has the time, the others none. */
  card?: string;
}

/**
 * How long each answer took, in the order in which they were given. An answer that was given again counts with its last time.
 * Valid range: any state; a clock that was set back counts as no time. Complexity: O(n log n).
 */
export function answerTimes(list: ComposedList, state: PreflightState): TimedAnswer[] {
  const flows = Object.values(state.flowed).map(({ at, eventId }) => ({
    item: undefined,
    at: Date.parse(at),
    eventId,
  }));
  const given = Object.entries(state.answers)
    .flatMap(([id, answer]): { item: Item | undefined; at: number; eventId: string }[] => {
      const item = itemById(list, id);
      return item ? [{ item, at: Date.parse(answer.at), eventId: answer.eventId }] : [];
    })
    // A station done from memory is no answer, but the time up to it is spent.
    .concat(flows)
    .sort((a, b) => a.at - b.at || (a.eventId < b.eventId ? -1 : 1));
  const away = state.interruptions.map(({ at, since, resumedAt }) => ({
    from: Date.parse(since ?? at),
    to: Date.parse(resumedAt ?? at),
  }));
  let before = state.startedAt ? Date.parse(state.startedAt) : given[0]?.at;
  return given.flatMap(({ item, at }) => {
    const from = before ?? at;
    before = at;
    const lost = away.reduce(
      (sum, gap) => sum + Math.max(0, Math.min(gap.to, at) - Math.max(gap.from, from)),
      0,
    );
    if (!item) return [];
    const card = state.answers[item.id]?.card;
    return [{ item, at, seconds: Math.max(0, at - from - lost) / 1000, ...(card && { card }) }];
  });
}
