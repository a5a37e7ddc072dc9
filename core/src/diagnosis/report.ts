import type { FindingGrade } from "../judgement/judgement";
import { capital } from "../units/format";
import { chanceOf, diagnoseInterpretations, type Hypothesis, hypothesisName, type SeenWay } from "./diagnose";
import type { DiagnosisContext, Feature, Observation } from "./evidence/observations";
import { UNKNOWN_FAULT } from "./fault-library";
import { rankTests } from "./next-test";

/** One explanation in words. */
export interface Explanation {
  fault?: string;
  name: string;
  what: string;
  probability: number;
  grade?: FindingGrade;
  action?: string;
  caution?: string;
  side?: "right" | "left";
  cylinder?: number;
}

/** Something to try, in words. */
export interface NextTest {
  id: string;
  feature: Feature;
  side?: "right" | "left";
  title: string;
  how: string;
  caution: string;
  bits: number;
  outcomes: { state: string; chance: number; likeliest: string; probability: number }[];
}

/** A diagnosis as it is told: nothing in it but words and numbers, so that a worker can hand it over. */
export interface DiagnosisReport {
  ranked: Explanation[];
  next: NextTest[];
  /** What speaks most for the first explanation, or against "nothing wrong". */
  telling: string[];
  /** Set where nothing on file explains what was seen well. */
  unlike: boolean;
}

const SHOWN = 4;
/** An observation tells when it is so many times likelier under the one than under the other. */
const TELLS = 3;

/**
 * What is likeliest, why, and what to try next. `words` are what the two sides are called on this type; `others` are further ways to read the same trace, each with what was seen in it and its weight
 * against `weight` of the first. Complexity: see `diagnose` and `rankTests`.
 */
export function diagnosisReport(
  observations: readonly Observation[],
  context: DiagnosisContext,
  words?: { right: string; left: string },
  { weight, others }: { weight: number; others: readonly SeenWay[] } = { weight: 1, others: [] },
): DiagnosisReport {
  const ways = [{ weight, observations, context }, ...others];
  const { ranked, fits } = diagnoseInterpretations(ways);
  const [best] = ranked;
  const healthy = ranked.find((hypothesis) => !hypothesis.fault);
  // What speaks for it is told of the likeliest way in which anything does.
  const telling =
    best?.fault && healthy
      ? ways
          .map((way) => tellingOnes(way.observations, best, healthy, way.context))
          .reduce((most, one) => (most.length > 0 ? most : one))
      : [];
  return {
    ranked: ranked.slice(0, SHOWN).map((hypothesis) => explanation(hypothesis, words)),
    next: rankTests(ranked, context, observations).map(({ test, side, bits, outcomes }) => ({
      id: test.id,
      feature: test.feature,
      title: side
        ? test.title.replace("The same side", capital((words ?? { right: "right", left: "left" })[side]))
        : test.title,
      how: test.how,
      caution: test.caution,
      bits,
      ...(side && { side }),
      outcomes: outcomes.map(({ state, chance, likeliest }) => ({
        state,
        chance,
        likeliest: hypothesisName(likeliest, words),
        probability: likeliest.probability,
      })),
    })),
    telling,
    unlike: best?.fault !== UNKNOWN_FAULT && fits < 1e-4,
  };
}

function tellingOnes(
  observations: readonly Observation[],
  best: Hypothesis,
  healthy: Hypothesis,
  context: DiagnosisContext,
): string[] {
  return observations
    .map((observation) => ({
      words: observation.words,
      ratio: chanceOf(observation, best, context) / chanceOf(observation, healthy, context),
    }))
    .filter(({ ratio, words }) => ratio > TELLS && words !== "")
    .sort((a, b) => b.ratio - a.ratio)
    .map(({ words }) => words);
}

function explanation(
  hypothesis: Hypothesis,
  words: { right: string; left: string } | undefined,
): Explanation {
  const { fault, probability, side, cylinder } = hypothesis;
  const name = hypothesisName(hypothesis, words);
  if (!fault) return { name, what: "all readings are normal", probability };
  return {
    fault: fault.id,
    name,
    what: fault.what,
    probability,
    grade: fault.grade,
    action: fault.action,
    ...(fault.caution && { caution: fault.caution }),
    ...(side && { side }),
    ...(cylinder !== undefined && { cylinder }),
  };
}
