import type { Feature, Observation } from "./observations";

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
 * answered since. How the engine showed itself after it is in the outcome, so that it does not count a second time; the answer to a further test takes the
 * place of an earlier one. Pure.
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

/** How an engine shows itself on a side. */
const SHOWN: ReadonlySet<Feature> = new Set(["drop", "feel", "exhaust"]);
