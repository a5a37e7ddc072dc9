import type { Item, LedgerWay } from "../aircraft/aircraft-type";
import { type ComposedList, itemById } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";

export interface LedgerEntry {
  thing: string;
  how: LedgerWay;
  /** How many pieces it is. */
  count: number;
  itemId: string;
  stationId: string;
  /** Where it goes meanwhile. */
  stow?: string;
  /**
   * "waits": still on the aircraft, or not opened yet. "out": off, on, open or moved now. "back": stowed aboard, switched off or closed again.
   */
  state: "waits" | "out" | "back";
  /** What brings it back, where that is an item of its own. */
  backItemId?: string;
}

type OutItem = Item & { ledger: { out: string; how: LedgerWay; count?: number; stow?: string } };

const isOut = (item: Item): item is OutItem => item.ledger !== undefined && "out" in item.ledger;

/**
 * Everything that today's list takes off, switches on, opens or moves, and how each stands. What is taken off is stowed in the same answer,
 * unless an item of its own says that it was put away; what is on, open or moved always has one. Found wrong is not done: a cover that would
 * not come off still waits. Complexity: O(items).
 */
export function foldLedger(list: ComposedList, state: PreflightState): LedgerEntry[] {
  const backItems = new Map(
    list.items.flatMap((item) =>
      item.ledger && "back" in item.ledger ? [[item.ledger.back, item.id] as const] : [],
    ),
  );
  const checked = (itemId: string) => state.answers[itemId]?.outcome === "checked";
  return list.items.filter(isOut).map((item) => {
    const { out: thing, how, stow, count = 1 } = item.ledger;
    const backItemId = backItems.get(thing);
    const back = backItemId ? checked(backItemId) : how === "off";
    return {
      thing,
      how,
      count,
      itemId: item.id,
      stationId: item.station,
      ...(stow !== undefined && { stow }),
      state: !checked(item.id) ? "waits" : back ? "back" : "out",
      ...(backItemId !== undefined && { backItemId }),
    };
  });
}

/**
 * What keeps the ledger open: all that is out, and all that has to come off and has not. A thing that is only switched on or opened for
 * a check and has not been yet stands as it must stand, so it keeps nothing open.
 */
export function openEntries(ledger: readonly LedgerEntry[]): LedgerEntry[] {
  return ledger.filter(({ state, how }) => state === "out" || (state === "waits" && how === "off"));
}

/** One open entry in words: what, how it stands now, and where on the aircraft. */
export function entryText(
  list: ComposedList,
  { thing, how, state, stationId, backItemId, count }: LedgerEntry,
): string {
  const at = backItemId ? itemById(list, backItemId)?.station : stationId;
  const station = list.stations.find((s) => s.id === at);
  const stands = {
    off: state === "waits" ? "not removed yet" : "not stowed yet",
    on: "still on",
    open: "still open",
    moved: "not put back yet",
  };
  return `${thing}${count > 1 ? ` (${count})` : ""}: ${stands[how]}${station ? `, at ${station.name}` : ""}`;
}
