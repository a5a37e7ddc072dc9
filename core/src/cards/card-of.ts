import type { Group, Item } from "../aircraft/aircraft-type";
import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";
import { neverGroupedReason } from "../groups/never-grouped";
import { blockedBy } from "../ledger/blocked-by";

/** Several parts that one look takes in: one card, each named, one answer. */
export interface Card {
  /** The group's id; of a station that was done from memory, the station's. */
  id: string;
  title: string;
  /** Words on the button that answers all of them. */
  done?: string;
  parts: Item[];
}

/**
 * The card that an item stands on together with others, now: the parts of its group that are open and wait for nothing, in the list's order. After
 * a station was done from memory it is whatever of the station may be asked together. Undefined where the item stands alone: it has no group
 * today, it was answered and gone back to, or no other part of its group is open. Complexity: O(items) for each part.
 */
export function cardOf(list: ComposedList, state: PreflightState, item: Item): Card | undefined {
  if (list.preferences?.cards !== "groups" || state.answers[item.id] || isApart(state, item))
    return undefined;
  const group = state.flowed[item.station] ? stationAsGroup(list, item) : groupOf(list, item.id);
  if (!group?.items.includes(item.id)) return undefined;
  const names = new Set(group.items);
  const parts = list.items.filter(
    (one) =>
      names.has(one.id) &&
      !state.answers[one.id] &&
      !isApart(state, one) &&
      (one === item || (!state.postponed.includes(one.id) && !blockedBy(list, state, one))),
  );
  return parts.length < 2
    ? undefined
    : { id: group.id, title: group.title, ...(group.done && { done: group.done }), parts };
}

/** A drain from which something came already, or that was gone to on purpose, is followed by itself: what is done next depends on its cup. */
function isApart(state: PreflightState, { id, kind }: Item): boolean {
  if (kind !== "sample") return false;
  return (
    (state.samples[id] ?? []).length > 0 || (state.cursor?.visiting === true && state.cursor.itemId === id)
  );
}

/** The group that an item belongs to today. */
export function groupOf(list: Pick<ComposedList, "groups">, itemId: string): Group | undefined {
  return list.groups?.find((group) => group.items.includes(itemId));
}

/** Done from memory, a station is confirmed once: only what is never asked along with others stays single, and what has a number or a cup. */
function stationAsGroup(list: ComposedList, { station }: Item): Group | undefined {
  const items = list.items
    .filter((one) => one.station === station && !one.reading && one.kind !== "sample")
    .filter((one) => !neverGroupedReason(one))
    .map(({ id }) => id);
  const name = list.stations.find((one) => one.id === station)?.name;
  return name && items.length > 1 ? { id: `station:${station}`, title: name, items } : undefined;
}
