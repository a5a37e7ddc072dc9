import { type Item, PHASES, type Phase, type Station } from "../aircraft/aircraft-type";
import { type ComposedList, itemById, itemsOf, phaseOf } from "./list/compose-list";
import type { PreflightState } from "./stream/preflight-state";

/** What is answered and what is not, in one phase. */
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
 * The item to stand in front of now: the first open one behind the last touched, going round within the phase, then the first
 * open one of the whole list. An item that was gone to on purpose is itself the current one, answered or not. Undefined when
 * nothing is open. The same events always give the same item, so a reload resumes where the person stood.
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

/** Everything not answered yet, in order. */
export function openItems(list: ComposedList, state: PreflightState): Item[] {
  return list.items.filter((item) => !state.answers[item.id]);
}

/**
 * The station of the lap to do from memory now, for a pilot who flows first and reads then: the first one, in the lap's order, that is
 * neither flowed nor read. Undefined in read-and-do, outside of the lap, once all are flowed, and while an item is gone to on purpose.
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
