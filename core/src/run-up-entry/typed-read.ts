import { afterRemedy } from "../diagnosis/evidence/cleared";
import type { Observation } from "../diagnosis/evidence/observations";
import { feelQuestion, observeTyped, type TypedRunUp } from "../diagnosis/evidence/typed";
import type { OpenQuestion } from "../diagnosis/open-questions";
import { type DiagnosisReport, diagnosisReport } from "../diagnosis/report";
import { classifyDrop, type Dropped } from "../engine/classify-drop";
import { otherSide } from "../engine/side";
import { type RunUpEngine, sideNames } from "./run-up-engine";

/** Numbers entered by hand, with answers and remedies since. */
export interface Typed {
  numbers: TypedRunUp;
  told: Observation[];
  /** Number of clearing attempts. */
  tries: number;
  /** Observations before clearing. */
  before?: Observation[];
}

export interface TypedRead extends Typed {
  observations: Observation[];
  report: DiagnosisReport;
  remedied: boolean | undefined;
  question: OpenQuestion | undefined;
  /** True if clearing the plugs may help. */
  clears: boolean;
  /** True after the type's maximum attempts: taxi back. */
  over: boolean;
}

/** Faults that clearing may cure. */
export const PLUGS: ReadonlySet<string> = new Set(["fouled plug", "dead plug"]);

/**
 * Diagnoses numbers entered by hand: without probes, no cylinder can be identified. Rpm. Source: the fault library; its
 * likelihoods are own estimates, explained at each.
 */
export function readTyped(typed: Typed, engine: RunUpEngine): TypedRead {
  const { profile, limits, context } = engine;
  const { numbers, told, before, tries } = typed;
  const words = sideNames(profile);
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

/** Names of entered values outside the type's limits: a side, or the difference. Rpm. Never throws. */
export function valuesOutsideLimits(
  { base, right, left }: TypedRunUp,
  { profile, limits }: RunUpEngine,
): string[] {
  const words = sideNames(profile);
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

/** True if there is anything to report beyond the numbers. */
export function needsAttention({ report, question, before }: TypedRead): boolean {
  return question !== undefined || before !== undefined || report.ranked[0]?.fault !== undefined;
}
