import { type Item, PHASES } from "../aircraft/aircraft-type";
import { type ComposedList, itemById, phaseOf } from "../checklist/list/compose-list";
import { waitsFor } from "../checklist/list/order-by-rules";
import type { PreflightState } from "../checklist/stream/preflight-state";
import { entryText, foldLedger, openEntries } from "../ledger/fold-ledger";

/** Why an item cannot be answered yet, and what would let it be. */
export interface Block {
  kind: "rule" | "gate" | "second person";
  why: string;
  /** Exactly what is open, each with the item that closes it. */
  open: { text: string; itemId: string }[];
}

/**
 * What stands in the way of an item now: an ordering rule whose first part is not seen in order, a gate with the ledger open, or a second
 * person who is not here. Undefined when nothing does. All are data of the aircraft's list. Complexity: O(items) for each call.
 */
export function blockedBy(list: ComposedList, state: PreflightState, item: Item): Block | undefined {
  return brokenRule(list, state, item) ?? closedGate(list, state, item) ?? alone(state, item);
}

/**
 * What stands in the way of doing a whole station from memory: the first of its items that has to wait, unless it was put off until later.
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
    // A first part that is not on today's list cannot be waited for.
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
    // What is taken off or closed behind the gate cannot be asked for at it.
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
