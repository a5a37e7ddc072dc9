import type { Observation } from "./observations";

/**
 * What an attempt to put it right came to, from the observations before and after: "gone" when nothing of what stood out on a magneto is there any more.
 */
export function outcomeOf(before: readonly Observation[], after: readonly Observation[]): "gone" | "same" {
  const sticks = before
    .filter(stands)
    .some((was) => after.some((is) => stands(is) && is.feature === was.feature && is.side === was.side));
  return sticks ? "same" : "gone";
}

/** What a try at a remedy is made for: too big a drop or one much bigger than the other, a rough side, a cylinder that falls, an exhaust that is much hotter. */
function stands({ feature, state }: Observation): boolean {
  if (feature === "drop") return state === "over" || state === "quit" || state === "uneven";
  if (feature === "feel") return state === "rough";
  return feature === "exhaust" && (state === "one colder" || state === "much hotter" || state === "colder");
}

/**
 * What was seen before a remedy and what it came to: both count, and the remedy's own outcome with them. `now` is what was seen after it, `told` what was
 * answered since. Pure.
 */
export function afterRemedy(
  before: { observations: readonly Observation[]; remedy: "cleared" | "leaned" },
  now: readonly Observation[],
  told: readonly Observation[] = [],
): { observations: Observation[]; remedied: boolean } {
  const state = outcomeOf(before.observations, now);
  const words =
    state === "gone" ? "After it both sides were as they should be." : "After it, it was the same.";
  return {
    observations: [
      ...before.observations.filter(({ feature }) => feature !== before.remedy),
      ...told,
      { feature: before.remedy, state, words },
    ],
    remedied: state === "gone",
  };
}
