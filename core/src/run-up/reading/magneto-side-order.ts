import { otherSide } from "../../engine/side";
import type { RunUpProfile } from "../run-up-profile";
import type { FoundStep } from "./found-step";
import type { Side } from "./run-up-reading";

/** What the pilot said of the sides of a trace that nobody prompted: a trace alone tells neither right from left, nor two tries of one side from one of each. */
export interface MagnetoSideOrder {
  /** The one that was tried first, or the only one that dropped. */
  first?: Side;
  /** Every try was of the same side. */
  same?: true;
}

/** Whether it is known which side is which: the coach called it, or the pilot said it. */
export const sidesAreNamed = (prompted: boolean, told: MagnetoSideOrder | undefined): boolean =>
  prompted || told?.first !== undefined;

/**
 * The profile as this run-up was flown: with the side that was tried first, where that is known. Where it is not, the sides are called the first and the
 * second, and `right` and `left` of what is read stand for these two. Pure. Source: from a trace alone right cannot be told from left (common practice).
 */
export function asTold(profile: RunUpProfile, prompted: boolean, told?: MagnetoSideOrder): RunUpProfile {
  if (prompted) return profile;
  if (told?.first) return { ...profile, firstSide: told.first };
  const first = "the first side";
  const second = "the second side";
  const sideWords =
    profile.firstSide === "right" ? { right: first, left: second } : { right: second, left: first };
  return { ...profile, sideWords };
}

/** The steps of an unprompted run-up with one side only, where the pilot said so or no other shows: it goes by the name of the first. */
export function onOneSide(
  steps: readonly FoundStep[],
  { firstSide }: Pick<RunUpProfile, "firstSide">,
  told: MagnetoSideOrder | undefined,
): FoundStep[] {
  const second = otherSide(firstSide);
  if (!told?.same && steps.some(({ step }) => step === firstSide)) return [...steps];
  return steps.map((step) => (step.step === second ? { ...step, step: firstSide } : step));
}
