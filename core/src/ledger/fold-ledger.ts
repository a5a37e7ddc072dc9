import type { ComposedList } from "../checklist/compose-list";
import type { PreflightState } from "../checklist/fold-preflight";

export interface LedgerEntry {
  thing: string;
  how: "off" | "on" | "open";
  itemId: string;
  stationId: string;
  /** Whether it is back as it must be: switched off, closed, stowed aboard. */
  back: boolean;
}

/**
 * What has been taken off, switched on or opened so far. Things taken off are stowed in the same answer, so they are
 * counted and stay counted; things on or open have an item of their own that puts them back.
 */
export function foldLedger(list: ComposedList, state: PreflightState): LedgerEntry[] {
  const backItems = new Map(
    list.items.flatMap((item) =>
      item.ledger && "back" in item.ledger ? [[item.ledger.back, item.id] as const] : [],
    ),
  );
  return list.items.flatMap((item) => {
    if (!item.ledger || !("out" in item.ledger) || state.answers[item.id]?.outcome !== "sound") return [];
    const { out: thing, how } = item.ledger;
    const backItem = backItems.get(thing);
    const back = backItem ? state.answers[backItem]?.outcome === "sound" : how === "off";
    return [{ thing, how, itemId: item.id, stationId: item.station, back }];
  });
}
