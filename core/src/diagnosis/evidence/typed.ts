import { otherSide } from "../../engine/side";
import type { Side } from "../../run-up/reading/run-up-reading";
import type { RunUpProfile } from "../../run-up/run-up-profile";
import type { OpenQuestion } from "../open-questions";
import type { Observation } from "./observations";
import { dropOf, type ObserveLimits } from "./observe";

/** A run-up that was typed in or spoken: rpm on both, and on each side that was tried; an engine that stopped has 0. */
export interface TypedRunUp {
  base: number;
  right?: number;
  left?: number;
}

const SIDES = ["right", "left"] as const;

/**
 * What typed numbers amount to in the words of the fault library: the drops, and nothing else; what was not typed is left out. rpm. Valid range: a base
 * over 0. Limits are the type's.
 */
export function observeTyped(typed: TypedRunUp, profile: RunUpProfile, limits: ObserveLimits): Observation[] {
  const madeOf = (side: Side) => {
    const rpm = typed[side];
    if (rpm === undefined) return undefined;
    const drop = typed.base - rpm;
    return { side, drop, seen: drop > 0, feel: rpm === 0 ? ("quit" as const) : ("smooth" as const) };
  };
  return SIDES.flatMap((side) => {
    const made = madeOf(side);
    const other = madeOf(otherSide(side));
    return made ? [dropOf(made, other, profile.sideWords?.[side] ?? side, limits, profile)] : [];
  });
}

/**
 * What the numbers alone cannot say and the hand on the throttle can: how it ran on the side that stands out. Undefined where none does, where the engine
 * stopped, or where it was answered. Pure.
 */
export function feelQuestion(
  observations: readonly Observation[],
  words: { right: string; left: string } = { right: "right", left: "left" },
): OpenQuestion | undefined {
  const out = observations.find(
    ({ feature, state }) => feature === "drop" && (state === "over" || state === "uneven"),
  );
  const { side } = out ?? {};
  if (!side || observations.some((seen) => seen.feature === "feel" && seen.side === side)) return undefined;
  const answer = (feel: "smooth" | "rough") => ({
    words: feel === "smooth" ? "Smooth" : "Rough",
    told: [
      { feature: "feel" as const, state: feel, side, words: `The engine ran ${feel} on ${words[side]}.` },
    ],
  });
  return {
    id: "feel",
    words: `How did the engine run on ${words[side]}?`,
    answers: [answer("rough"), answer("smooth")],
  };
}
