import { chanceOf, type Hypothesis } from "./diagnose";
import type { DiagnosisContext } from "./evidence/observations";
import { entropy } from "./next-test";
import type { OpenQuestion } from "./open-questions";

/** What is asked, and how much its answer is expected to tell of what is wrong and on which side, bits. */
export interface RankedQuestion {
  question: OpenQuestion;
  bits: number;
}

/**
 * The questions by how much each decides: the mean fall of uncertainty over its answers, what decides most first; of those that decide as much the order in which they came. Where a trouble belongs to
 * one of two sides of which nobody said which is which, the name of the side is one bit of that. Valid range: explanations with probabilities that add up to 1. Pure. Complexity: O(answers ·
 * explanations). Source: Lindley, Ann. Math. Stat. 27 (1956).
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
    for (const [a, chance] of chancesOf(question, hypothesis, context).entries())
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

/** How likely each answer is under an explanation: by what it amounts to; answers that amount to nothing share what the others leave. */
function chancesOf({ answers }: OpenQuestion, hypothesis: Hypothesis, context: DiagnosisContext): number[] {
  const said = answers.map(({ told }) =>
    told.length === 0
      ? undefined
      : told.reduce((product, observation) => product * chanceOf(observation, hypothesis, context), 1),
  );
  const silent = said.filter((chance) => chance === undefined).length;
  const named = said.reduce<number>((sum, chance) => sum + (chance ?? 0), 0);
  // Where every answer amounts to something, one of them is given all the same.
  const left = silent > 0 ? Math.max(0, 1 - named) / silent : 0;
  const all = named + silent * left;
  return said.map((chance) => (all > 0 ? (chance ?? left) / all : 1 / answers.length));
}
