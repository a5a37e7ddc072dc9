import type { Side } from "../run-up/reading/run-up-reading";
import {
  type DiagnosisContext,
  FEATURES,
  type Feature,
  MAGNETO_FEATURES,
  NAMES_CYLINDER,
  type Observation,
} from "./evidence/observations";
import {
  FAULTS,
  type Fault,
  HEALTHY,
  HEALTHY_COARSE,
  type Likelihood,
  UNKNOWN_FAULT,
  uninformativeLikelihood,
} from "./fault-library";

/** One explanation: a fault at a place, or none. */
export interface Hypothesis {
  /** Absent for the healthy engine. */
  fault?: Fault;
  side?: Side;
  cylinder?: number;
  probability: number;
}

export interface Diagnosis {
  /** Likeliest first; their probabilities add up to 1. */
  ranked: Hypothesis[];
  /** Chance of what was seen under the best explanation against a usual day: small means that nothing on file explains it well. */
  fits: number;
}

/**
 * Every explanation for this engine with its chance before anything is seen. Chances add up to one. Source: rates are our own, in proportion
 * (common practice), as named in the library.
 */
export function hypotheses(context: DiagnosisContext): Hypothesis[] {
  const found: Hypothesis[] = [];
  let all = 0;
  for (const fault of [...FAULTS, UNKNOWN_FAULT]) {
    if (fault.only && !fault.only(context)) continue;
    const rate = fault.rate * today(fault, context);
    all += rate;
    const sides: (Side | undefined)[] =
      fault.place === "side" || fault.place === "plug" ? ["right", "left"] : [undefined];
    const cylinders =
      (fault.place === "cylinder" || fault.place === "plug") && context.cylinders > 0
        ? Array.from({ length: context.cylinders }, (_, i) => i + 1)
        : [undefined];
    for (const side of sides)
      for (const cylinder of cylinders)
        found.push({
          fault,
          probability: rate / (sides.length * cylinders.length),
          ...(side && { side }),
          ...(cylinder !== undefined && { cylinder }),
        });
  }
  found.push({ probability: 1 - all });
  return found;
}

/** What the day makes of a rate: a mixture that was left rich in thin air, air that can make ice. */
function today(fault: Fault, { highAndRich, icingLikely }: DiagnosisContext): number {
  if (fault.id === "rich at altitude") return highAndRich === undefined ? 1 : highAndRich ? 12 : 0.05;
  if (fault.id === "carburettor ice") return icingLikely === undefined ? 1 : icingLikely ? 2 : 0.15;
  return 1;
}

/**
 * The chance of one observation under an explanation. A state that names a cylinder is as likely at the fault's own cylinder as the library
 * says; under any other explanation it may be any of them. From 0 to 1.
 */
export function chanceOf(
  observation: Observation,
  hypothesis: Hypothesis,
  context: DiagnosisContext,
): number {
  const { feature, state, side, cylinder } = observation;
  const likelihood = likelihoodFor(feature, side, hypothesis, context);
  const p = stateChance(feature, state, likelihood);
  if (!NAMES_CYLINDER.has(state) || cylinder === undefined) return p;
  const others = Math.max(1, context.cylinders - 1);
  const own = hypothesis.cylinder !== undefined && likelihood !== healthy(feature, context);
  if (!own) return p / Math.max(1, context.cylinders);
  if (cylinder === hypothesis.cylinder) return p * 0.97;
  // Its own shows nothing, and another stands out as one of a healthy engine may.
  const quiet = stateChance(feature, FEATURES[feature][0], likelihood);
  const another = stateChance(feature, state, healthy(feature, context)) / Math.max(1, context.cylinders);
  return Math.max((p * 0.03) / others, quiet * another);
}

/** What a healthy engine shows, as far as this trace can show it. */
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

/** Nothing is impossible: a table that says so would never be corrected by what is seen. */
const LEAST = 0.0002;

/** States that the table leaves out share what is missing to one; none is ever impossible. */
function stateChance(feature: Feature, state: string, { states }: Likelihood): number {
  const given = states[state];
  if (given !== undefined) return Math.max(given, LEAST);
  const named = Object.values(states).reduce((sum, p) => sum + p, 0);
  const left = FEATURES[feature].length - Object.keys(states).length;
  return Math.max(LEAST, (1 - named) / Math.max(1, left));
}

/**
 * What is likeliest after all that was seen: Bayes' rule over the fault library, one fault at a time, the observations taken as independent under
 * each explanation. Probabilities from 0 to 1. Valid range: any observations; the more the better, none gives the rates themselves.
 * Complexity: O(explanations · observations). Source: Bayes' rule; the library's numbers are own estimates, see there.
 */
export function diagnose(observations: readonly Observation[], context: DiagnosisContext): Diagnosis {
  const { ranked, fits } = weigh(observations, context);
  return { ranked: context.unprompted ? calibrate(ranked) : ranked, fits };
}

function weigh(observations: readonly Observation[], context: DiagnosisContext): Diagnosis {
  const before = hypotheses(context);
  const logs = before.map((hypothesis) => {
    let log = Math.log(hypothesis.probability);
    for (const observation of observations) log += Math.log(chanceOf(observation, hypothesis, context));
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
        stateChance(
          observation.feature,
          state,
          likelihoodFor(observation.feature, observation.side, best, context),
        ),
      ),
    );
    fits *=
      stateChance(
        observation.feature,
        observation.state,
        likelihoodFor(observation.feature, observation.side, best, context),
      ) / likely;
  }
  return { ranked, fits };
}

/** What was seen in one way to read a trace, how likely that way is, and what is known of the engine as far as that reading can tell. */
export interface SeenWay {
  weight: number;
  observations: readonly Observation[];
  context: DiagnosisContext;
}

/**
 * What is likeliest over all ways to read one trace: each way's diagnosis, added up by its weight. How well it fits is told of the likeliest way. Weights are taken as parts of their sum.
 * Valid range: at least one way. Source: the theorem of total probability.
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
  return { ranked: ways[0]?.context.unprompted ? calibrate(ranked) : ranked, fits };
}

/**
 * Of a trace that nobody prompted, what is said was so a little more often than it was said: about 87 of 100 where it was said of 85. This power on the chance of each trouble makes the two agree. It is
 * the one number that is fitted to cases: least log loss, troubles as often as the library has them, on 1,800 strangers (0.87) and on 1,200 of a source of another make (0.90).
 */
export const TEMPERATURE = 0.9;

/**
 * What was stated, brought to how often it is so: the chance of each trouble, its places added up, to the power 1 / `temperature`, and then parts of their sum; among the places of one trouble, and in the order
 * of troubles, nothing changes. Below one it is stated surer, above one less so. Probabilities from 0 to 1. Valid range: temperature above 0. Source: temperature scaling, Guo et al. (2017); fitted on
 * seeds that nothing is reported of (see `docs/decisions/who-judges-the-judge.md`).
 */
export function calibrate(ranked: readonly Hypothesis[], temperature = TEMPERATURE): Hypothesis[] {
  const troubles = new Map<string | undefined, number>();
  for (const { fault, probability } of ranked)
    troubles.set(fault?.id, (troubles.get(fault?.id) ?? 0) + probability);
  const power = 1 / temperature - 1;
  // One trouble's places keep their parts of it.
  const factor = (id: string | undefined) => (troubles.get(id) || 1) ** power;
  const all = ranked.reduce((sum, { fault, probability }) => sum + probability * factor(fault?.id), 0);
  return ranked
    .map((one) => ({ ...one, probability: (one.probability * factor(one.fault?.id)) / all }))
    .sort((a, b) => b.probability - a.probability);
}

/** An explanation in words: "fouled plug, cylinder 3, left magneto". `words` are what the sides are called on this type. */
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
