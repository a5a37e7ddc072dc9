import { probabilityOf } from "./diagnose";
import type { DiagnosisContext } from "./evidence/observations";
import type { Hypothesis } from "./hypotheses";
import { entropy } from "./next-test";
import type { OpenQuestion } from "./open-questions";

/** A question, and the information its answer is expected to give about fault and side, bits. */
export interface RankedQuestion {
  question: OpenQuestion;
  bits: number;
}

/**
 * Ranks questions by the mean reduction of entropy over their answers, largest first; ties keep their order. For a fault on one
 * of two unidentified sides, identifying the side counts as one bit. Valid range: explanations whose probabilities sum to 1.
 * Pure.
 * Complexity: O(answers · explanations). Source: Lindley, Ann. Math. Stat. 27 (1956).
 */
export function rankQuestions(
  questions: readonly OpenQuestion[],
  ranked: readonly Hypothesis[],
  context: DiagnosisContext,
): RankedQuestion[] {
  return questions
    .map((question) => ({ question, bits: bitsOf(question, ranked, context) }))
    .sort((a, b) => b.bits - a.bits);
}

function bitsOf(question: OpenQuestion, ranked: readonly Hypothesis[], context: DiagnosisContext): number {
  const joint = question.answers.map(() => ranked.map(() => 0));
  for (const [h, hypothesis] of ranked.entries())
    for (const [a, chance] of probabilitiesOf(question, hypothesis, context).entries())
      (joint[a] as number[])[h] = chance * hypothesis.probability;
  let after = 0;
  for (const row of joint) {
    const chance = row.reduce((sum, p) => sum + p, 0);
    if (chance > 0) after += chance * entropy(row.map((p) => p / chance));
  }
  const names = question.answers.some(({ sides }) => sides?.first !== undefined);
  const ofASide = ranked.reduce((sum, { side, probability }) => sum + (side ? probability : 0), 0);
  const told = Math.max(0, entropy(ranked.map(({ probability }) => probability)) - after);
  return told + (names ? ofASide : 0);
}

/** Probability of each answer under an explanation, from its observations; answers without observations share the rest. */
function probabilitiesOf(
  { answers }: OpenQuestion,
  hypothesis: Hypothesis,
  context: DiagnosisContext,
): number[] {
  const said = answers.map(({ told }) =>
    told.length === 0
      ? undefined
      : told.reduce((product, observation) => product * probabilityOf(observation, hypothesis, context), 1),
  );
  const silent = said.filter((chance) => chance === undefined).length;
  const named = said.reduce<number>((sum, chance) => sum + (chance ?? 0), 0);
  // If every answer has observations, one of them is certain to be given.
  const left = silent > 0 ? Math.max(0, 1 - named) / silent : 0;
  const all = named + silent * left;
  return said.map((chance) => (all > 0 ? (chance ?? left) / all : 1 / answers.length));
}
