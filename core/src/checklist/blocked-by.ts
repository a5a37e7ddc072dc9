import { entryText, foldLedger, openEntries } from "../ledger/fold-ledger";
import { type Item, PHASES } from "./aircraft-type";
import { type ComposedList, phaseOf } from "./compose-list";
import type { PreflightState } from "./fold-preflight";

/** Why an item cannot be answered yet, and what would let it be. */
export interface Block {
  kind: "rule" | "gate";
  why: string;
  /** Exactly what is open, each with the item that closes it. */
  open: { text: string; itemId: string }[];
}

/**
 * What stands in the way of an item now: an ordering rule whose first part is not seen in order, or a gate with the ledger open. Undefined
 * when nothing does. Both are data of the aircraft's list. Complexity: O(items) for each call.
 */
export function blockedBy(list: ComposedList, state: PreflightState, item: Item): Block | undefined {
  return brokenRule(list, state, item) ?? closedGate(list, state, item);
}

function brokenRule(list: ComposedList, state: PreflightState, item: Item): Block | undefined {
  for (const rule of list.type.rules ?? []) {
    const { items, touches } = rule.waits;
    const held = items?.includes(item.id) || (touches !== undefined && item.touches?.includes(touches));
    // A first part that is not on today's list cannot be waited for.
    const first = list.items.find((i) => i.id === rule.first);
    if (!held || !first || first.id === item.id || state.answers[first.id]?.outcome === "sound") continue;
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
      const closes = list.items.find((i) => i.id === closingItem(entry));
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
