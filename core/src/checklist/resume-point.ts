import type { Item } from "../aircraft/aircraft-type";
import { ITEMS_BACK } from "../aircraft/preferences";
import type { ComposedList } from "./list/compose-list";
import { itemsOf, phaseOf } from "./list/list-places";
import type { ReturnWay } from "./stream/events";
import type { PreflightState } from "./stream/preflight-state";

export interface Return {
  /** Item to resume at. */
  itemId: string;
  /** Event ids of the answers to repeat; problems found stay on record. */
  undo: string[];
  /** Number of answers to repeat. */
  again: number;
}

/**
 * Where to resume after an interruption: some items back, at the start of the station or step, or at the same item. Checks after
 * that point are repeated; problems found and new measures of known discrepancies stay on record.
 * Complexity: O(items of the step).
 */
export function resumePoint(list: ComposedList, state: PreflightState, item: Item, way: ReturnWay): Return {
  const step = itemsOf(list, phaseOf(list, item));
  const at = step.findIndex((i) => i.id === item.id);
  const from = {
    "where I was": at,
    "some items back": Math.max(0, at - ITEMS_BACK),
    "start of the station": step.findIndex((i) => i.station === item.station),
    "start of the step": 0,
  }[way];
  const behind = step.slice(from, Math.max(from, at)).filter((i) => state.answers[i.id]);
  const again = behind.filter((i) => state.answers[i.id]?.outcome === "checked");
  const first = step.slice(from).find((i) => again.includes(i) || i.id === item.id) ?? item;
  return {
    itemId: first.id,
    undo: again.map((i) => state.answers[i.id]?.eventId ?? ""),
    again: again.length,
  };
}
