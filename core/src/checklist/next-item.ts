import { type Item, PHASES, type Phase, type Station } from "../aircraft/aircraft-type";
import type { ComposedList } from "./list/compose-list";
import { itemById, itemsOf, phaseOf } from "./list/list-places";
import type { PreflightState } from "./stream/preflight-state";

/** Answered and open items of one phase. */
export interface PhaseProgress {
  phase: Phase;
  total: number;
  answered: number;
}

export function phaseProgress(list: ComposedList, state: PreflightState): PhaseProgress[] {
  return PHASES.map((phase) => {
    const items = itemsOf(list, phase);
    return { phase, total: items.length, answered: items.filter((item) => state.answers[item.id]).length };
  }).filter(({ total }) => total > 0);
}

/**
 * Current item: the first open one after the last touched, wrapping around within the phase, then the first open one of the
 * checklist. An item visited on purpose is current whether answered or not. Undefined if nothing is open. Depends only on the
 * events, so a reload resumes at the same item.
 */
export function currentItem(list: ComposedList, state: PreflightState): Item | undefined {
  const open = (item: Item) => !state.answers[item.id];
  const { cursor } = state;
  const at = cursor && itemById(list, cursor.itemId);
  if (!at) return list.items.find(open);
  if (cursor.visiting) return at;
  const phase = itemsOf(list, phaseOf(list, at));
  const index = phase.indexOf(at);
  const round = [...phase.slice(index + 1), ...phase.slice(0, index + 1)];
  return round.find(open) ?? list.items.find(open);
}

/** Unanswered items, in order. */
export function openItems(list: ComposedList, state: PreflightState): Item[] {
  return list.items.filter((item) => !state.answers[item.id]);
}

/**
 * Next station to do from memory in the flow-then-check method: the first, in walkaround order, that is neither flowed nor read.
 * Undefined in read-and-do, outside the walkaround, once all are flowed, and during a visit to an item.
 */
export function nextFlowStation(list: ComposedList, state: PreflightState): Station | undefined {
  if (list.preferences?.method !== "flow, then check" || state.cursor?.visiting) return undefined;
  const item = currentItem(list, state);
  if (!item || phaseOf(list, item) !== "lap") return undefined;
  const unread = new Set(
    itemsOf(list, "lap")
      .filter((i) => !state.answers[i.id])
      .map((i) => i.station),
  );
  return list.stations.find((s) => s.phase === "lap" && !state.flowed[s.id] && unread.has(s.id));
}
