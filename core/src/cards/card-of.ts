import type { Group, Item } from "../aircraft/aircraft-type";
import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";
import { neverGroupedReason } from "../groups/never-grouped";
import { blockedBy } from "../ledger/blocked-by";

/** Several parts seen in one look: one card, each named, one answer. */
export interface Card {
  /** Group id, or the station id if it was done from memory. */
  id: string;
  title: string;
  /** Label of the button that answers all of them. */
  done?: string;
  parts: Item[];
}

/**
 * The card an item currently shares with others: the parts of its group that are open and not blocked, in checklist order. For a
 * station done from memory, all its parts that may be grouped. Undefined if the item has no group today, was reopened, or is the
 * only open part. Complexity: O(items) per part.
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

/** A drain that already gave a sample, or was opened on purpose, is shown alone: the next step depends on the sample. */
function isApart(state: PreflightState, { id, kind }: Item): boolean {
  if (kind !== "sample") return false;
  return (
    (state.samples[id] ?? []).length > 0 || (state.cursor?.visiting === true && state.cursor.itemId === id)
  );
}

/** The group an item belongs to today. */
export function groupOf(list: Pick<ComposedList, "groups">, itemId: string): Group | undefined {
  return list.groups?.find((group) => group.items.includes(itemId));
}

/**
 * A station done from memory is confirmed once; only items that are never grouped, and those with a number or a sample, stay
 * single.
 */
function stationAsGroup(list: ComposedList, { station }: Item): Group | undefined {
  const items = list.items
    .filter((one) => one.station === station && !one.reading && one.kind !== "sample")
    .filter((one) => !neverGroupedReason(one))
    .map(({ id }) => id);
  const name = list.stations.find((one) => one.id === station)?.name;
  return name && items.length > 1 ? { id: `station:${station}`, title: name, items } : undefined;
}
