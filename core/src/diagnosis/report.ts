import type { FindingGrade } from "../judgement/judgement";
import { capital } from "../units/format";
import { diagnoseInterpretations, hypothesisName, probabilityOf, type SeenWay } from "./diagnose";
import type { DiagnosisContext, Feature, Observation } from "./evidence/observations";
import { UNKNOWN_FAULT } from "./fault-library";
import { type HiddenFault, hiddenFaults } from "./hidden-faults";
import type { Hypothesis } from "./hypotheses";
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

/** A test to do next, in words. */
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

/** A diagnosis as plain words and numbers, so that a worker can send it. */
export interface DiagnosisReport {
  ranked: Explanation[];
  next: NextTest[];
  /** Strongest evidence for the first explanation, or against "no fault". */
  telling: string[];
  /** True if no known fault explains the observations well. */
  unlike: boolean;
  /** More certainty than this would rest on faults being rare, not on what was observed. */
  restsOnRates: boolean;
  /** Faults that this run-up could not have shown: not assessed. */
  hidden: HiddenFault[];
}

const SHOWN = 4;
/** Likelihood ratio from which an observation counts as evidence. */
const TELLS = 3;

/**
 * Builds the report: most likely explanations, evidence, next tests. `words` are this type's names of the sides; `others` are
 * further interpretations of the trace, each with its observations and its weight relative to `weight` of the first. Complexity:
 * see `diagnose` and `rankTests`.
 */
export function diagnosisReport(
  observations: readonly Observation[],
  context: DiagnosisContext,
  words?: { right: string; left: string },
  { weight, others }: { weight: number; others: readonly SeenWay[] } = { weight: 1, others: [] },
): DiagnosisReport {
  const ways = [{ weight, observations, context }, ...others];
  const { ranked, fits, restsOnRates } = diagnoseInterpretations(ways);
  const [best] = ranked;
  const healthy = ranked.find((hypothesis) => !hypothesis.fault);
  // Evidence comes from the most likely interpretation that has any.
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
    restsOnRates,
    hidden: hiddenFaults(observations, context, words),
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
      ratio: probabilityOf(observation, best, context) / probabilityOf(observation, healthy, context),
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
