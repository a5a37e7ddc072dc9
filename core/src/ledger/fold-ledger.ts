import type { Item, LedgerWay } from "../aircraft/aircraft-type";
import type { ComposedList } from "../checklist/list/compose-list";
import { itemById } from "../checklist/list/list-places";
import type { PreflightState } from "../checklist/stream/preflight-state";

export interface LedgerEntry {
  thing: string;
  how: LedgerWay;
  /** Number of pieces. */
  count: number;
  itemId: string;
  stationId: string;
  /** Where it is stowed meanwhile. */
  stow?: string;
  /**
   * "waits": still on the aircraft, or not opened yet. "out": removed, on, open or moved now. "back": stowed on board, switched
   * off or closed again.
   */
  state: "waits" | "out" | "back";
  /** Item that puts it back, if separate. */
  backItemId?: string;
}

type OutItem = Item & { ledger: { out: string; how: LedgerWay; count?: number; stow?: string } };

const isOut = (item: Item): item is OutItem => item.ledger !== undefined && "out" in item.ledger;

/**
 * Everything today's checklist removes, switches on, opens or moves, with its state. A removed part is stowed in the same answer
 * unless a separate item stows it; things switched on, opened or moved always have one. A problem found does not count as done: a
 * cover that would not come off still waits. Complexity: O(items).
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
 * Entries still to put back, and parts still to be removed. Something switched on or opened only for a check that has not
 * happened yet is not open.
 */
export function openEntries(ledger: readonly LedgerEntry[]): LedgerEntry[] {
  return ledger.filter(({ state, how }) => state === "out" || (state === "waits" && how === "off"));
}

/** One open entry in words: what, its state, and where. */
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
