import type { Feature, Observation } from "./observations";

/** Outcome of a remedy, from the observations before and after: "gone" if nothing that stood out on a magneto remains. */
export function outcomeOf(before: readonly Observation[], after: readonly Observation[]): "gone" | "same" {
  const sticks = before
    .filter(stands)
    .some((was) => after.some((is) => stands(is) && is.feature === was.feature && is.side === was.side));
  return sticks ? "same" : "gone";
}

/** Signs a remedy is meant for: an excessive or uneven drop, a rough side, a cold cylinder, a much hotter exhaust. */
function stands({ feature, state }: Observation): boolean {
  if (feature === "drop") return state === "over" || state === "quit" || state === "uneven";
  if (feature === "feel") return state === "rough";
  return feature === "exhaust" && (state === "one colder" || state === "much hotter" || state === "colder");
}

/**
 * Combines observations before a remedy with its outcome. `now` are the observations after it, `told` the answers since. The
 * side's behaviour after the remedy is part of the outcome and does not count twice; the answer to a further test replaces an
 * earlier one. Pure.
 */
export function afterRemedy(
  before: { observations: readonly Observation[]; remedy: "cleared" | "leaned" },
  now: readonly Observation[],
  told: readonly Observation[] = [],
): { observations: Observation[]; remedied: boolean } {
  const state = outcomeOf(before.observations, now);
  const words = state === "gone" ? "Both sides were normal afterwards." : "No change afterwards.";
  const among = (some: readonly Observation[], { feature, side, cylinder }: Observation) =>
    some.some((one) => one.feature === feature && one.side === side && one.cylinder === cylinder);
  return {
    observations: [
      ...before.observations.filter(
        (was) => was.feature !== before.remedy && (SHOWN.has(was.feature) || !among(told, was)),
      ),
      ...told.filter((is) => !SHOWN.has(is.feature) || !among(before.observations, is)),
      { feature: before.remedy, state, words },
    ],
    remedied: state === "gone",
  };
}

/** Features that show how an engine runs on a side. */
const SHOWN: ReadonlySet<Feature> = new Set(["drop", "feel", "exhaust"]);
