import type { Item } from "../aircraft/aircraft-type";
import type { ComposedList } from "../checklist/list/compose-list";
import { itemById } from "../checklist/list/list-places";
import type { PreflightState } from "../checklist/stream/preflight-state";

export interface TimedAnswer {
  item: Item;
  /** Milliseconds of the device clock. */
  at: number;
  /** Seconds since the previous answer or the start, without interruptions. */
  seconds: number;
  /** Card answered together with others; the first answer carries the time, the others zero. */
  card?: string;
}

/**
 * Duration of each answer, in order. A repeated answer counts with its last time.
 * Valid range: any state; a clock set back counts as zero. Complexity: O(n log n).
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
    // A station done from memory is not an answer, but its time counts.
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
