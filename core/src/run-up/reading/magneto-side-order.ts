import { otherSide } from "../../engine/side";
import type { RunUpProfile } from "../run-up-profile";
import type { FoundStep } from "./found-step";
import type { Side } from "./run-up-reading";

/**
 * The pilot's answer about the sides of an unprompted trace, which cannot tell right from left, nor a side checked twice from
 * both sides.
 */
export interface MagnetoSideOrder {
  /** The side checked first, or the only one that dropped. */
  first?: Side;
  /** Every check was of the same side. */
  same?: true;
}

/** True if the sides are identified, by the coach's prompts or the pilot. */
export const sidesAreNamed = (prompted: boolean, told: MagnetoSideOrder | undefined): boolean =>
  prompted || told?.first !== undefined;

/**
 * Profile as this run-up was flown, with the first side if known. Otherwise the sides are called first and second, and `right`
 * and `left` of the reading stand for them. Pure. Source: a trace alone cannot tell right from left (common practice).
 */
export function orderByAnswer(
  profile: RunUpProfile,
  prompted: boolean,
  told?: MagnetoSideOrder,
): RunUpProfile {
  if (prompted) return profile;
  if (told?.first) return { ...profile, firstSide: told.first };
  const first = "the first side";
  const second = "the second side";
  const sideWords =
    profile.firstSide === "right" ? { right: first, left: second } : { right: second, left: first };
  return { ...profile, sideWords };
}

/**
 * Steps of an unprompted run-up with one side only, by the pilot's answer or because no other shows; that side is named as the
 * first.
 */
export function onOneSide(
  steps: readonly FoundStep[],
  { firstSide }: Pick<RunUpProfile, "firstSide">,
  told: MagnetoSideOrder | undefined,
): FoundStep[] {
  const second = otherSide(firstSide);
  if (!told?.same && steps.some(({ step }) => step === firstSide)) return [...steps];
  return steps.map((step) => (step.step === second ? { ...step, step: firstSide } : step));
}
