import type { Side } from "../run-up/reading/run-up-reading";
import { chanceOf, type Hypothesis } from "./diagnose";
import {
  type DiagnosisContext,
  FEATURES,
  type Feature,
  type Observation,
  type StateOf,
} from "./evidence/observations";

/** Something that can be tried in the cockpit, and what it can come to. */
export interface Test {
  id: string;
  /** What its outcome is an observation of. */
  feature: Feature;
  title: string;
  how: string;
  caution: string;
  /** Minutes it takes: of two that tell as much the shorter is taken. */
  minutes: number;
  /** Done with one magneto. */
  ofASide?: boolean;
  only?: (context: DiagnosisContext) => boolean;
}

const EYES = "Brakes, eyes outside; the handbook comes first.";

/** What can be tried, besides asking a mechanic. */
export const TESTS: readonly Test[] = [
  {
    id: "clear",
    feature: "cleared",
    title: "Lean, a little more rpm, one minute, check again",
    how: "Lean for peak temperature, hold about a minute, back to rich and the run-up rpm, both magnetos again.",
    caution:
      "Heads and oil watched all the time. At most two tries. Brakes, eyes outside; the handbook comes first.",
    minutes: 2,
  },
  {
    id: "lean",
    feature: "leaned",
    title: "Lean for best power, check again",
    how: "At the run-up rpm lean until it runs fastest, then both magnetos again.",
    caution: EYES,
    minutes: 1,
  },
  {
    id: "again",
    feature: "again",
    title: "The same side again, slowly, key looked at",
    how: "Count the clicks, stay five seconds, watch the needle.",
    caution: "As long as nothing drops, the propeller counts as live with the key off.",
    minutes: 0.5,
    ofASide: true,
  },
  {
    id: "ground check",
    feature: "grounded",
    title: "At idle, key to off for a blink, and back",
    how: "Throttle at the stop. Off until it falters, then both again at once. It must falter.",
    caution: "Only at idle and only if your handbook knows this check. Nobody near the propeller.",
    minutes: 0.5,
  },
  {
    id: "long heat",
    feature: "longHeat",
    title: "Heat for half a minute, then off",
    how: "Full heat, thirty seconds, cold again: more rpm than before means ice.",
    caution: "Heated air is mostly not filtered: not over sand or grass.",
    minutes: 1,
    only: ({ fuelSystem }) => fuelSystem === "carburettor",
  },
  {
    id: "reset alternator",
    feature: "reset",
    title: "Alternator off, three seconds, on once",
    how: "Loads off first. Once, not again and again.",
    caution: "A breaker that has tripped is pressed once at most, as the handbook says.",
    minutes: 0.5,
  },
  {
    id: "cross-check",
    feature: "crossCheck",
    title: "Another needle or light for the same thing",
    how: "Oil: the warning light, the temperature. Suction: do the gyros stand?",
    caution: "Low oil pressure: shut down first, look afterwards.",
    minutes: 0.2,
  },
  {
    id: "cycle again",
    feature: "cycled",
    title: "Oil warm, propeller twice more",
    how: "Cold oil is slow in the hub. Twice more, the same distance of the lever.",
    caution: EYES,
    minutes: 1,
    only: ({ propeller }) => propeller === "constant speed",
  },
  {
    id: "more power",
    feature: "morePower",
    title: "A little more power, that cylinder's exhaust again",
    how: "Where the manifold pressure is high, a leak hardly counts and the cylinder falls in line.",
    caution: EYES,
    minutes: 1,
  },
];

export interface RankedTest {
  test: Test;
  side?: Side;
  /** Expected information about what is wrong, bits. */
  bits: number;
  /** What it may come to, and what would then be likeliest. */
  outcomes: { state: string; chance: number; likeliest: Hypothesis }[];
}

/** The uncertainty of a row of probabilities, bits. */
export function entropy(probabilities: readonly number[]): number {
  let bits = 0;
  for (const p of probabilities) if (p > 0) bits -= p * Math.log2(p);
  return bits;
}

/**
 * What to try next: for each test how much it is expected to tell, in bits, as the mean fall of uncertainty over its outcomes; the most telling first.
 * What would tell less than `least` bits is left out, and what has been done already. Valid range: explanations with probabilities that add up to 1.
 * Complexity: O(tests · outcomes · explanations). Source: Lindley, Ann. Math. Stat. 27 (1956).
 */
export function rankTests(
  ranked: readonly Hypothesis[],
  context: DiagnosisContext,
  done: readonly Observation[] = [],
  least = 0.03,
): RankedTest[] {
  const now = entropy(ranked.map((hypothesis) => hypothesis.probability));
  const found: RankedTest[] = [];
  for (const test of TESTS) {
    // A test in the cockpit, and the engines that it is for; nothing of a test runner.
    if (test.only && !test.only(context)) continue;
    for (const side of test.ofASide ? (["right", "left"] as const) : [undefined]) {
      if (done.some((observation) => observation.feature === test.feature && observation.side === side))
        continue;
      let after = 0;
      const outcomes: RankedTest["outcomes"] = [];
      for (const state of FEATURES[test.feature] as readonly StateOf<Feature>[]) {
        const outcome = { feature: test.feature, state, words: "", ...(side && { side }) };
        const joint = ranked.map(
          (hypothesis) => hypothesis.probability * chanceOf(outcome, hypothesis, context),
        );
        const chance = joint.reduce((a, b) => a + b, 0);
        if (chance <= 0) continue;
        const then = joint.map((p) => p / chance);
        after += chance * entropy(then);
        let best = 0;
        then.forEach((p, i) => {
          if (p > (then[best] as number)) best = i;
        });
        outcomes.push({
          state,
          chance,
          likeliest: { ...(ranked[best] as Hypothesis), probability: then[best] as number },
        });
      }
      const bits = now - after;
      if (bits >= least) found.push({ test, bits, outcomes, ...(side && { side }) });
    }
  }
  return found.sort((a, b) => b.bits - a.bits || a.test.minutes - b.test.minutes);
}
