import { afterRemedy } from "../diagnosis/evidence/cleared";
import type { Observation } from "../diagnosis/evidence/observations";
import { feelQuestion, observeTyped, type TypedRunUp } from "../diagnosis/evidence/typed";
import type { OpenQuestion } from "../diagnosis/open-questions";
import { type DiagnosisReport, diagnosisReport } from "../diagnosis/report";
import { classifyDrop, type Dropped } from "../engine/classify-drop";
import { otherSide } from "../engine/side";
import { type RunUpEngine, sideWords } from "./run-up-engine";

/** Numbers that were typed, and what was answered or done since. */
export interface Typed {
  numbers: TypedRunUp;
  told: Observation[];
  /** Cleared so often. */
  tries: number;
  /** What stood out before it was cleared. */
  before?: Observation[];
}

export interface TypedRead extends Typed {
  observations: Observation[];
  report: DiagnosisReport;
  remedied: boolean | undefined;
  question: OpenQuestion | undefined;
  /** A hot minute may mend it. */
  clears: boolean;
  /** Tried as often as the type allows: it goes back. */
  over: boolean;
}

/** What a hot minute may mend. */
export const PLUGS: ReadonlySet<string> = new Set(["fouled plug", "dead plug"]);

/**
 * Reads typed numbers: without probes, no cylinder is told from another. Rpm. Source: the fault library; its likelihoods are our own, as named
 * at each.
 */
export function readTyped(typed: Typed, engine: RunUpEngine): TypedRead {
  const { profile, limits, context } = engine;
  const { numbers, told, before, tries } = typed;
  const words = sideWords(profile);
  const now = [...observeTyped(numbers, profile, limits), ...told];
  const after = before && afterRemedy({ observations: before, remedy: "cleared" }, now, told);
  const observations = after?.observations ?? now;
  const report = diagnosisReport(observations, { ...context, cylinders: 0 }, words);
  const best = report.ranked[0]?.fault;
  const remedied = after?.remedied;
  const plug = best !== undefined && PLUGS.has(best);
  const clears = !remedied && ((report.next[0]?.id === "clear" && best !== undefined) || (tries > 0 && plug));
  return {
    ...typed,
    observations,
    report,
    remedied,
    question: remedied ? undefined : feelQuestion(now, words),
    clears,
    over: clears && tries >= profile.clear.tries,
  };
}

/** Which of these typed numbers are out of the type's limits, by name: a side, or how far the two are apart. Rpm. Never throws. */
export function valuesOutsideLimits(
  { base, right, left }: TypedRunUp,
  { profile, limits }: RunUpEngine,
): string[] {
  const words = sideWords(profile);
  const made = (rpm: number | undefined): Dropped | undefined =>
    rpm === undefined ? undefined : { drop: base - rpm, ...(rpm === 0 && { feel: "quit" as const }) };
  const sides = { right: made(right), left: made(left) };
  const judged = (["right", "left"] as const).flatMap((side) => {
    const own = sides[side];
    return own ? [{ side, ...classifyDrop(own, sides[otherSide(side)], limits) }] : [];
  });
  return [
    ...judged
      .filter(
        ({ state }) => state === "over" || state === "none" || state === "too small" || state === "quit",
      )
      .map(({ side }) => words[side]),
    ...(judged.some(({ tooFarApartRpm = 0 }) => tooFarApartRpm > 0) ? ["apart"] : []),
  ];
}

/** Whether there is anything to say beyond the numbers themselves. */
export function needsAttention({ report, question, before }: TypedRead): boolean {
  return question !== undefined || before !== undefined || report.ranked[0]?.fault !== undefined;
}
