import type { Side } from "../run-up/reading/run-up-reading";
import { calibrate } from "./calibrate";
import { limitCertainty } from "./certainty";
import {
  type DiagnosisContext,
  FEATURES,
  type Feature,
  MAGNETO_FEATURES,
  NAMES_CYLINDER,
  type Observation,
} from "./evidence/observations";
import {
  HEALTHY,
  HEALTHY_COARSE,
  type Likelihood,
  UNKNOWN_FAULT,
  uninformativeLikelihood,
} from "./fault-library";
import { type Hypothesis, hypotheses } from "./hypotheses";

export interface Diagnosis {
  /** Most likely first; the probabilities sum to 1. */
  ranked: Hypothesis[];
  /** The same at the library's rates alone, before the claim is limited; see `limitCertainty`. */
  byRates: Hypothesis[];
  /** A claim above nine in ten would rest on the assumed rates, not on the observations. */
  restsOnRates: boolean;
  /**
   * Likelihood of the observations under the best explanation relative to a typical case: small means no known fault explains
   * them well.
   */
  fits: number;
}

/**
 * Probability of one observation under an explanation, 0 to 1. A state naming a cylinder has the library's probability at the
 * fault's own cylinder; under any other explanation every cylinder is equally likely.
 */
export function probabilityOf(
  observation: Observation,
  hypothesis: Hypothesis,
  context: DiagnosisContext,
): number {
  const { feature, state, side, cylinder } = observation;
  const likelihood = likelihoodFor(feature, side, hypothesis, context);
  const p = stateProbability(feature, state, likelihood);
  if (!NAMES_CYLINDER.has(state) || cylinder === undefined) return p;
  const others = Math.max(1, context.cylinders - 1);
  const own = hypothesis.cylinder !== undefined && likelihood !== healthy(feature, context);
  if (!own) return p / Math.max(1, context.cylinders);
  if (cylinder === hypothesis.cylinder) return p * 0.97;
  // The faulty cylinder shows nothing, and another stands out as in a healthy engine.
  const quiet = stateProbability(feature, FEATURES[feature][0], likelihood);
  const another =
    stateProbability(feature, state, healthy(feature, context)) / Math.max(1, context.cylinders);
  return Math.max((p * 0.03) / others, quiet * another);
}

/** Likelihoods of a healthy engine, limited to what this trace can show. */
const healthy = (feature: Feature, { coarse }: DiagnosisContext): Likelihood =>
  (coarse ? HEALTHY_COARSE[feature] : undefined) ?? HEALTHY[feature];

function likelihoodFor(
  feature: Feature,
  side: Side | undefined,
  { fault, side: faultSide }: Hypothesis,
  context: DiagnosisContext,
): Likelihood {
  if (!fault) return healthy(feature, context);
  if (fault === UNKNOWN_FAULT) return uninformativeLikelihood(healthy(feature, context), FEATURES[feature]);
  if (MAGNETO_FEATURES.has(feature) && faultSide && side) {
    const own = fault.shows[`${feature}.${side === faultSide ? "this" : "other"}`];
    if (own) return own;
  }
  return fault.shows[feature] ?? healthy(feature, context);
}

/** Minimum probability: a zero could never be corrected by evidence. */
const LEAST = 0.0002;

/** States missing in the table share the remaining probability; none is impossible. */
function stateProbability(feature: Feature, state: string, { states }: Likelihood): number {
  const given = states[state];
  if (given !== undefined) return Math.max(given, LEAST);
  const named = Object.values(states).reduce((sum, p) => sum + p, 0);
  const left = FEATURES[feature].length - Object.keys(states).length;
  return Math.max(LEAST, (1 - named) / Math.max(1, left));
}

/** Probability of each state of a feature under an explanation, in the order of `FEATURES`, regardless of the cylinder. */
export function stateChances(
  feature: Feature,
  side: Side | undefined,
  hypothesis: Hypothesis,
  context: DiagnosisContext,
): number[] {
  const likelihood = likelihoodFor(feature, side, hypothesis, context);
  return FEATURES[feature].map((state) => stateProbability(feature, state, likelihood));
}

/**
 * Ranks explanations by Bayes' rule over the fault library: one fault at a time, observations conditionally independent.
 * Probabilities from 0 to 1. Valid range: any observations; without any, the prior rates.
 * Complexity: O(explanations · observations). Source: Bayes' rule; the library's numbers are own estimates, see there.
 */
export function diagnose(observations: readonly Observation[], context: DiagnosisContext): Diagnosis {
  const { ranked, fits } = weigh(observations, context);
  return { ...concluded(ranked, context), fits };
}

function concluded(weighed: Hypothesis[], context: DiagnosisContext): Omit<Diagnosis, "fits"> {
  const byRates = context.unprompted ? calibrate(weighed) : weighed;
  return { ...limitCertainty(byRates, weighed, context), byRates };
}

function weigh(
  observations: readonly Observation[],
  context: DiagnosisContext,
): Pick<Diagnosis, "ranked" | "fits"> {
  const before = hypotheses(context);
  const logs = before.map((hypothesis) => {
    let log = Math.log(hypothesis.probability);
    for (const observation of observations) log += Math.log(probabilityOf(observation, hypothesis, context));
    return log;
  });
  const top = Math.max(...logs);
  const weights = logs.map((log) => Math.exp(log - top));
  const sum = weights.reduce((a, b) => a + b, 0);
  const ranked = before
    .map((hypothesis, i) => ({ ...hypothesis, probability: (weights[i] as number) / sum }))
    .sort((a, b) => b.probability - a.probability);
  const best = ranked[0] as Hypothesis;
  let fits = 1;
  for (const observation of observations) {
    const likely = Math.max(
      ...FEATURES[observation.feature].map((state) =>
        stateProbability(
          observation.feature,
          state,
          likelihoodFor(observation.feature, observation.side, best, context),
        ),
      ),
    );
    fits *=
      stateProbability(
        observation.feature,
        observation.state,
        likelihoodFor(observation.feature, observation.side, best, context),
      ) / likely;
  }
  return { ranked, fits };
}

/** Observations under one interpretation of a trace, its weight, and the context as far as that reading can tell. */
export interface SeenWay {
  weight: number;
  observations: readonly Observation[];
  context: DiagnosisContext;
}

/**
 * Combines the diagnoses of all interpretations of a trace, weighted. The fit is that of the most likely interpretation. Weights
 * are normalised.
 * Valid range: at least one interpretation. Source: law of total probability.
 */
export function diagnoseInterpretations(ways: readonly SeenWay[]): Diagnosis {
  const all = ways.reduce((sum, { weight }) => sum + weight, 0);
  const chances = new Map<string, Hypothesis>();
  let fits = 1;
  for (const [i, { weight, observations, context }] of ways.entries()) {
    const diagnosis = weigh(observations, context);
    if (i === 0) fits = diagnosis.fits;
    for (const hypothesis of diagnosis.ranked) {
      const key = [hypothesis.fault?.id, hypothesis.side, hypothesis.cylinder].join();
      const known = chances.get(key);
      const part = (weight / all) * hypothesis.probability;
      if (known) known.probability += part;
      else chances.set(key, { ...hypothesis, probability: part });
    }
  }
  const ranked = [...chances.values()].sort((a, b) => b.probability - a.probability);
  const context = ways[0]?.context;
  if (!context) throw new RangeError("A diagnosis needs at least one interpretation.");
  return { ...concluded(ranked, context), fits };
}

/** Name of an explanation: "fouled plug, cylinder 3, left magneto". `words` are this type's names of the sides. */
export function hypothesisName(
  { fault, side, cylinder }: Hypothesis,
  words: { right: string; left: string } = { right: "right", left: "left" },
): string {
  if (!fault) return "no fault";
  const other = side === "right" ? words.left : words.right;
  const name =
    cylinder === undefined
      ? fault.name.replace(", cylinder {cylinder}", "").replace("cylinder {cylinder}", "a cylinder")
      : fault.name;
  return name
    .replace("{side}", side ? words[side] : "")
    .replace("{other}", other)
    .replace("{cylinder}", String(cylinder));
}
