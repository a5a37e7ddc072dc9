import { type Item, PHASES } from "../aircraft/aircraft-type";
import type { ComposedList } from "../checklist/list/compose-list";
import { itemById, phaseOf } from "../checklist/list/list-places";
import { waitsFor } from "../checklist/list/order-by-rules";
import type { PreflightState } from "../checklist/stream/preflight-state";
import { entryText, foldLedger, openEntries } from "../ledger/fold-ledger";

/** Why an item cannot be answered yet, and what would allow it. */
export interface Block {
  kind: "rule" | "gate" | "second person";
  why: string;
  /** Open entries, each with the item that closes it. */
  open: { text: string; itemId: string }[];
}

/**
 * What blocks an item now: an ordering rule whose first part is not done, a gate with entries still to put back, or a missing
 * second person. Undefined if nothing does. Rules come from the aircraft's checklist. Complexity: O(items) per call.
 */
export function blockedBy(list: ComposedList, state: PreflightState, item: Item): Block | undefined {
  return brokenRule(list, state, item) ?? closedGate(list, state, item) ?? alone(state, item);
}

/**
 * What blocks doing a whole station from memory: its first blocked item, unless postponed.
 * Complexity: O(items) for each item of the station.
 */
export function stationBlockedBy(
  list: ComposedList,
  state: PreflightState,
  stationId: string,
): { item: Item; block: Block } | undefined {
  for (const item of list.items) {
    if (item.station !== stationId || state.postponed.includes(item.id)) continue;
    const block = blockedBy(list, state, item);
    if (block) return { item, block };
  }
  return undefined;
}

function alone(state: PreflightState, item: Item): Block | undefined {
  if (!item.second || state.joined.length > 0) return undefined;
  return {
    kind: "second person",
    why: "One person moves the control, the other holds or pulls the surface: one person alone cannot feel whether it is connected.",
    open: [],
  };
}

function brokenRule(list: ComposedList, state: PreflightState, item: Item): Block | undefined {
  for (const rule of list.type.rules ?? []) {
    if (!waitsFor(rule, item)) continue;
    // A first part missing from today's checklist is ignored.
    const first = itemById(list, rule.first);
    if (!first || state.answers[first.id]?.outcome === "checked") continue;
    return { kind: "rule", why: rule.why, open: [{ text: first.title, itemId: first.id }] };
  }
  return undefined;
}

function closedGate(list: ComposedList, state: PreflightState, item: Item): Block | undefined {
  const at = PHASES.indexOf(phaseOf(list, item));
  for (const gate of list.type.gates ?? []) {
    if (at < PHASES.indexOf(gate.before)) continue;
    // Entries that are closed behind the gate cannot be required at it.
    const open = openEntries(foldLedger(list, state)).filter((entry) => {
      const closes = itemById(list, closingItem(entry));
      return closes && PHASES.indexOf(phaseOf(list, closes)) < PHASES.indexOf(gate.before);
    });
    if (open.length > 0)
      return {
        kind: "gate",
        why: gate.why,
        open: open.map((entry) => ({ text: entryText(list, entry), itemId: closingItem(entry) })),
      };
  }
  return undefined;
}

const closingItem = ({ state, itemId, backItemId }: ReturnType<typeof foldLedger>[number]) =>
  state === "out" && backItemId ? backItemId : itemId;
