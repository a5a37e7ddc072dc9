import {
  calibrate,
  type Diagnosis,
  type DiagnosisContext,
  diagnoseInterpretations,
  type Hypothesis,
  type Observation,
  type OpenQuestion,
  observeInterpretations,
  openQuestions,
  rankQuestions,
  TEMPERATURE,
} from "../diagnosis/index";
import type { EngineFeel } from "../engine/classify-drop";
import { judgeMagnetos } from "../engine/judge-magnetos";
import {
  type MagnetoSideOrder,
  type Mark,
  orderByAnswer,
  type ReadWay,
  type RunUpReading,
  readWays,
  type Trace,
  traceOf,
} from "../run-up/index";
import type { UnseenCase, UnseenCaseProblem } from "./unseen-cases";

export interface WorkedUnseenCase {
  reading: RunUpReading;
  observations: readonly Observation[];
  diagnosis: Diagnosis;
  /** Probability of each fault, summed over sides and cylinders; "none" for healthy. */
  chances: Map<string, number>;
  /** The same at library rates, before the claim is limited; and before calibration. */
  byRates: Map<string, number>;
  before: Map<string, number>;
  /** Rank of the true fault, from 0. */
  place: number;
}

/** Library name of a fault: a trace alone cannot distinguish a fouled plug from a dead one. */
export const nameOf = (id: string | undefined): string =>
  id === undefined ? "none" : id === "fouled plug" || id === "dead plug" ? "plug" : id;

/** Reads, observes and diagnoses a trace, given the answers about sides, other answers, and prompts. */
export type Judge = (
  one: UnseenCase,
  trace: Trace,
  sides: MagnetoSideOrder,
  told: readonly Observation[],
  marks?: readonly Mark[],
) => Pick<WorkedUnseenCase, "reading" | "observations" | "diagnosis">;

/** Reads and diagnoses an unseen case without asking questions; `judge` is the page's method, or another to compare with. */
export function runUnseenCase(one: UnseenCase, judge: Judge = judged): WorkedUnseenCase {
  const { reading, observations, diagnosis } = judge(one, traceOf(one.lines), {}, []);
  const chances = countByProblem(diagnosis.ranked);
  return {
    reading,
    observations,
    diagnosis,
    chances,
    byRates: countByProblem(diagnosis.byRates),
    before: countByProblem(calibrate(diagnosis.byRates, 1 / TEMPERATURE)),
    place: placeAmong(chances, one.trouble),
  };
}

/**
 * The same with a pilot who answers every question from the truth alone: the first side is right. It shows only where the
 * questions lead; a pilot who errs is not covered.
 */
export function answerUnseenCase(one: UnseenCase): { asked: OpenQuestion["id"][]; place: number } {
  const trace = traceOf(one.lines);
  const asked = new Set<OpenQuestion["id"]>();
  const told: Observation[] = [];
  let sides: MagnetoSideOrder = {};
  for (;;) {
    const { reading, diagnosis } = judged(one, trace, sides, told);
    const { context } = circumstances(one);
    const open = openQuestions(reading, one.engine.profile, asked);
    const question = rankQuestions(open, diagnosis.ranked, context)[0]?.question;
    if (!question)
      return { asked: [...asked], place: placeAmong(countByProblem(diagnosis.ranked), one.trouble) };
    asked.add(question.id);
    const answer = question.answers[answerOf(question.id, reading, one)];
    told.push(...(answer?.told ?? []));
    sides = { ...sides, ...answer?.sides };
  }
}

export interface CoachedUnseenCase {
  reading: RunUpReading;
  chances: Map<string, number>;
  place: number;
  /** Whether the magneto judgement is a stop. */
  stopped: boolean;
  /** A prompted side is doubtful or was not read, so a repeat is requested. */
  again: boolean;
}

/**
 * The same with the coach's prompts. If nothing changed on a side the coach asks whether the key was there, and this pilot
 * confirms it; nothing else is asked. `judge` as of `runUnseenCase`.
 */
export function coachUnseenCase(
  one: UnseenCase,
  marks: readonly Mark[],
  judge: Judge = judged,
): CoachedUnseenCase {
  const trace = traceOf(one.lines);
  const before = judge(one, trace, {}, [], marks).reading;
  const told = (["right", "left"] as const)
    .filter((side) => before[side]?.seen === false)
    .map(
      (side): Observation => ({ feature: "turned", state: "confirmed", side, words: "The key was there." }),
    );
  const { reading, diagnosis } = judge(one, trace, {}, told, marks);
  const chances = countByProblem(diagnosis.ranked);
  return {
    reading,
    chances,
    place: placeAmong(chances, one.trouble),
    stopped: stops(reading, one),
    again: (["right", "left"] as const).some((side) => !reading[side] || reading[side]?.doubt),
  };
}

/** True if the magneto judgement of this reading is a stop; doubtful sides are not judged. */
function stops({ right, left }: RunUpReading, { engine: { maxDropRpm, profile } }: UnseenCase): boolean {
  const base = (right ?? left)?.base;
  const logged = (side: typeof right): { rpm: number; feel?: EngineFeel } | undefined =>
    side && base !== undefined && !side.doubt
      ? { rpm: side.feel === "quit" ? 0 : Math.max(0, Math.round(base - side.drop)), feel: side.feel }
      : undefined;
  const sides = { right: logged(right), left: logged(left) };
  if (base === undefined || !(sides.right || sides.left)) return false;
  return judgeMagnetos({
    baseRpm: Math.round(base),
    ...(sides.right && { right: sides.right }),
    ...(sides.left && { left: sides.left }),
    profile: {
      maxDropRpm,
      resolutionRpm: 10,
      tachometerMaxRpm: 2 * profile.rpm,
      source: { kind: "common practice", text: "example value", example: true },
    },
  }).judgements.some(({ grade }) => grade === "stop");
}

/** Smaller changes are no drop, rpm: a return to both can differ by as much. */
export const A_DROP_RPM = 25;
const SIDES = { first: "right", second: "left" } as const;

/** Index of this pilot's answer. */
function answerOf(
  id: OpenQuestion["id"],
  reading: RunUpReading,
  { done, drops, trouble }: UnseenCase,
): number {
  const tries = done.filter(({ what }) => what === "first" || what === "second");
  /** No drop, a drop, or a stop. */
  const does = (side: "first" | "second") => {
    const drop = drops[side];
    return drop === undefined ? 2 : drop >= A_DROP_RPM ? 1 : 0;
  };
  const did = (what: string) => done.some((one) => one.what === what);
  /** What the hand was really doing during this stretch: the longest action in it. */
  const really = ({ from, to }: { from: number; to: number }) =>
    tries
      .map((one) => ({ ...one, shared: Math.min(to, one.to) - Math.max(from, one.from) }))
      .filter(({ shared }) => shared > 0)
      .sort((a, b) => b.shared - a.shared)[0]?.what as "first" | "second" | undefined;
  const seen = reading.tries.map(really).filter((what) => what !== undefined);
  switch (id) {
    case "order":
      // Right, left, or the same each time.
      return new Set(seen).size === 1 ? 2 : seen[0] === "second" ? 1 : 0;
    case "which side":
      return seen[0] && SIDES[seen[0]] === "left" ? 1 : 0;
    // It was selected: nothing dropped, the trace missed the drop, or the engine stopped.
    case "other side":
      return does(seen[0] === "first" ? "second" : "first");
    case "any side": {
      // Neither, right only, left only, both, stopped on right, stopped on left.
      const first = does("first");
      const second = does("second");
      return first === 2 ? 4 : second === 2 ? 5 : first + 2 * second;
    }
    case "heat":
      return !did("heat") ? NOT_TRIED : trouble === "heat cable off" ? 0 : MISSED;
    // None of these cases has an unresponsive propeller.
    default:
      return did(id) ? MISSED : NOT_TRIED;
  }
}

const MISSED = 1;
const NOT_TRIED = 2;

const placeAmong = (chances: ReadonlyMap<string, number>, trouble: UnseenCaseProblem): number =>
  [...chances]
    .sort((a, b) => b[1] - a[1])
    .map(([name]) => name)
    .indexOf(trouble);

/** Engine, conditions, and the type's limits. */
export function circumstances({ engine: { maxDropRpm, shape }, highAndRich, celsius }: UnseenCase) {
  const context: DiagnosisContext = {
    cylinders: shape.cylinders,
    fuelSystem: shape.fuelSystem,
    propeller: shape.propeller,
    suction: shape.vacuumPump,
    highAndRich,
    icingLikely: celsius < 15,
  };
  return { context, limits: { maxDropRpm, maxDifferenceRpm: 50, resolutionRpm: 10 } };
}

/** Reads with the answers about sides, observes, and diagnoses with the other answers, as the page does. */
export const judged: Judge = (one, trace, sides, told, marks) => {
  const { profile } = one.engine;
  const { context, limits } = circumstances(one);
  const ways = readWays(trace, profile, marks, sides);
  const { reading } = ways[0] as ReadWay;
  const seen = observeInterpretations(
    ways,
    orderByAnswer(profile, reading.prompted, sides),
    limits,
    context,
    told,
  );
  return { reading, observations: seen[0]?.observations ?? [], diagnosis: diagnoseInterpretations(seen) };
};

function countByProblem(ranked: readonly Hypothesis[]): Map<string, number> {
  const chances = new Map<string, number>();
  for (const { fault, probability } of ranked) {
    const name = nameOf(fault?.id);
    chances.set(name, (chances.get(name) ?? 0) + probability);
  }
  return chances;
}
