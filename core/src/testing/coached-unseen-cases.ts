/**
 * Coached versions of the unseen cases: the prompts given for what the hand did. Hands follow in their own time; some are late,
 * some early, some skip a prompt or go directly from side to side. Written from common practice, without any number of the
 * reader; all spreads are own estimates.
 */
import type { Mark, RunUpStep } from "../run-up/index";
import { seededRandom } from "../units/seeded-random";
import type { Doing, UnseenCase } from "./unseen-cases";

export const HANDS = ["follows", "late", "behind the next prompt", "ahead", "leaves out the return"] as const;
/** How the hand follows prompts: always within seconds, or with one deviation in this run-up. */
export type Hand = (typeof HANDS)[number];

/** Prompt for an action, given the previous one. */
function called(what: Doing, before: Doing | undefined, sides: { first: RunUpStep; second: RunUpStep }) {
  switch (what) {
    case "first":
    case "second":
      return sides[what];
    case "past":
      return "run-up";
    case "both":
      return before === "first" || before === "second"
        ? "both"
        : before === "heat"
          ? "cold"
          : before === "ground" || before === undefined
            ? "run-up"
            : undefined;
    case "heat":
      return before === "heat" ? undefined : "heat";
    case "propeller":
    case "idle":
      return what;
    case "ground":
      return before === "idle" ? "ground" : undefined;
    case "quit":
      return undefined;
  }
}

/**
 * Prompts of a coached run-up, by how the hand follows them; deterministic per seed. The first side checked is the type's first
 * side.
 */
export function promptsFor({ done, engine }: UnseenCase, hand: Hand, seed: number): Mark[] {
  const random = seededRandom(seed * 13 + HANDS.indexOf(hand) * 7919 + 5);
  const between = (low: number, high: number) => low + (high - low) * random();
  const first = engine.profile.firstSide;
  const sides = { first, second: first === "right" ? ("left" as const) : ("right" as const) };
  const marks: (Mark & { acted: number; until: number })[] = [];
  let cycled = false;
  done.forEach(({ what, from, to }, i) => {
    const before = done[i - 1]?.what;
    const isSide = (doing: Doing | undefined) => doing === "first" || doing === "second";
    // Directly from one side to the other: "both" was prompted, and the hand went past it.
    if (isSide(what) && isSide(before)) {
      const last = marks.at(-1);
      const t = Math.max(from - between(1, 6), (last?.t ?? 0) + 1);
      marks.push({ step: "both", t, acted: Number.NaN, until: from });
    }
    const step = called(what, before, sides);
    // A propeller is prompted once, however often it is cycled.
    if (!step || (step === "propeller" && cycled)) return;
    cycled ||= step === "propeller";
    const soonest = (marks.at(-1)?.t ?? -10) + 0.6;
    marks.push({ step, t: Math.max(soonest, from - between(0.4, 2.2)), acted: from, until: to });
  });
  const ofSides = marks.flatMap(({ step }, i) => (step === "right" || step === "left" ? [i] : []));
  const at = ofSides[Math.floor(random() * ofSides.length)];
  const one = at === undefined ? undefined : marks[at];
  if (one && at !== undefined) {
    const before = marks[at - 1];
    const next = marks[at + 1];
    const soonest = (before?.t ?? 0) + 1;
    if (hand === "late") one.t = Math.max(soonest, one.acted - between(4, 9));
    if (hand === "ahead") {
      one.t = one.acted + between(1, 3);
      if (next) next.t = Math.max(next.t, one.t + 1);
    }
    if (hand === "behind the next prompt" && next) {
      // The coach moved on before the hand had moved.
      const t = one.acted - between(0.8, 3);
      one.t = Math.max(soonest, t - between(4, 8));
      next.t = Math.max(one.t + 0.8, t);
    }
    if (hand === "leaves out the return" && next?.step === "both") {
      // "Both" was prompted while still on the side, and so was the next step.
      next.t = Math.max(one.t + 1, (Number.isNaN(next.acted) ? next.until : next.acted) - between(5, 8));
    }
  }
  return marks.map(({ step, t }) => ({ step, t })).sort((a, b) => a.t - b.t);
}
