import type { Side } from "../run-up/reading/run-up-reading";
import { probabilityOf } from "./diagnose";
import {
  type DiagnosisContext,
  FEATURES,
  type Feature,
  type Observation,
  type StateOf,
} from "./evidence/observations";
import type { Hypothesis } from "./hypotheses";

/** A test in the cockpit, and its possible outcomes. */
export interface Test {
  id: string;
  /** Feature its outcome observes. */
  feature: Feature;
  title: string;
  how: string;
  caution: string;
  /** Minutes it takes: of two equally informative tests, the shorter comes first. */
  minutes: number;
  /** Done on one magneto. */
  ofASide?: boolean;
  only?: (context: DiagnosisContext) => boolean;
}

const EYES = "Hold the brakes, look outside. The handbook comes first.";

/** Tests a pilot can do, besides asking a mechanic. */
export const TESTS: readonly Test[] = [
  {
    id: "clear",
    feature: "cleared",
    title: "Clear the plugs: lean, slightly more rpm, one minute, check again",
    how: "Lean to peak EGT, hold about a minute, then rich and run-up rpm. Check both magnetos again.",
    caution:
      "Monitor CHT and oil throughout. Two tries at most. Hold the brakes, look outside. The handbook comes first.",
    minutes: 2,
  },
  {
    id: "lean",
    feature: "leaned",
    title: "Lean for best power, check again",
    how: "At run-up rpm, lean for maximum rpm, then check both magnetos again.",
    caution: EYES,
    minutes: 1,
  },
  {
    id: "again",
    feature: "again",
    title: "The same side again, slowly, looking at the key",
    how: "Count the clicks, stay there five seconds, watch the tachometer.",
    caution: "Until you see a drop, treat the propeller as live even with the key off.",
    minutes: 0.5,
    ofASide: true,
  },
  {
    id: "ground check",
    feature: "grounded",
    title: "At idle, key briefly to off and back",
    how: "Throttle closed. Key to off until the engine falters, then straight back to both. It must falter.",
    caution:
      "Only at idle, and only if your handbook gives this check. Keep everyone clear of the propeller.",
    minutes: 0.5,
  },
  {
    id: "long heat",
    feature: "longHeat",
    title: "Carburettor heat for 30 seconds, then off",
    how: "Full heat for 30 seconds, then off. Higher rpm than before means there was ice.",
    caution: "Heated air is usually unfiltered. Do not do this over sand or grass.",
    minutes: 1,
    only: ({ fuelSystem }) => fuelSystem === "carburettor",
  },
  {
    id: "reset alternator",
    feature: "reset",
    title: "Alternator off for three seconds, then on",
    how: "Switch electrical loads off first. Do this once only.",
    caution: "Reset a tripped breaker once at most, as the handbook says.",
    minutes: 0.5,
  },
  {
    id: "cross-check",
    feature: "crossCheck",
    title: "Check another gauge or warning light",
    how: "Oil pressure: check the warning light and oil temperature. Suction: check that the gyro instruments are steady.",
    caution: "Low oil pressure: shut down first, check afterwards.",
    minutes: 0.2,
  },
  {
    id: "cycle again",
    feature: "cycled",
    title: "Warm the oil, cycle the propeller twice more",
    how: "Cold oil moves slowly in the hub. Cycle twice more with the same lever travel.",
    caution: EYES,
    minutes: 1,
    only: ({ propeller }) => propeller === "constant speed",
  },
  {
    id: "more power",
    feature: "morePower",
    title: "Slightly more power, check that cylinder's EGT again",
    how: "At higher manifold pressure a leak matters less, and the EGT moves back in line with the others.",
    caution: EYES,
    minutes: 1,
  },
];

export interface RankedTest {
  test: Test;
  side?: Side;
  /** Expected information about the fault, bits. */
  bits: number;
  /** Possible outcomes, and what would then be most likely. */
  outcomes: { state: string; chance: number; likeliest: Hypothesis }[];
}

/** Entropy of a probability distribution, bits. */
export function entropy(probabilities: readonly number[]): number {
  let bits = 0;
  for (const p of probabilities) if (p > 0) bits -= p * Math.log2(p);
  return bits;
}

/**
 * Ranks tests by expected information in bits, the mean reduction of entropy over their outcomes, largest first. Tests below
 * `least` bits and tests already done are left out. Valid range: explanations whose probabilities sum to 1.
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
    // A cockpit test limited to certain engines (not a test runner's `only`).
    if (test.only && !test.only(context)) continue;
    for (const side of test.ofASide ? (["right", "left"] as const) : [undefined]) {
      if (done.some((observation) => observation.feature === test.feature && observation.side === side))
        continue;
      let after = 0;
      const outcomes: RankedTest["outcomes"] = [];
      for (const state of FEATURES[test.feature] as readonly StateOf<Feature>[]) {
        const outcome = { feature: test.feature, state, words: "", ...(side && { side }) };
        const joint = ranked.map(
          (hypothesis) => hypothesis.probability * probabilityOf(outcome, hypothesis, context),
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
