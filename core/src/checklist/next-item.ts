import { type Item, PHASES, type Phase } from "./aircraft-type";
import { type ComposedList, itemsOf, phaseOf } from "./compose-list";
import type { PreflightState } from "./fold-preflight";

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
  const at = cursor && list.items.find((item) => item.id === cursor.itemId);
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
