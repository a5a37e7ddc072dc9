import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";
import { minimaSets } from "../departure/minima-sets";

/**
 * Why the pilot cannot decide alone to fly with something that was not assessed; undefined if he can. Source: common practice; an
 * instructor's authorisation or the group's rules decide.
 */
export function whyNotWaivable(list: ComposedList, state: PreflightState): string | undefined {
  const sets = minimaSets({
    rules: list.rules,
    type: list.type,
    persons: list.minima ?? [],
    registration: list.registration,
    day: (state.startedAt ?? "").slice(0, 10),
  });
  if (sets.some(({ of }) => of === "authorisation"))
    return "You fly on an instructor's authorisation: ask your instructor.";
  if (list.conditions.includes("solo student")) return "You fly as a solo student: ask your instructor.";
  const forbids = sets.find(({ minima }) => minima.noUnknown);
  if (forbids?.of === "pilot") return "Your personal minimums allow no flight with anything not assessed.";
  return forbids ? "The group's rules allow no flight with anything not assessed: ask first." : undefined;
}
