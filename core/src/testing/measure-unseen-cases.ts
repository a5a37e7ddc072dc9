import { hypotheses } from "../diagnosis/index";
import type { FoundStep } from "../run-up/index";
import { type Hand, promptsFor } from "./coached-unseen-cases";
import {
  A_DROP_RPM,
  answerUnseenCase,
  coachUnseenCase,
  type Judge,
  nameOf,
  runUnseenCase,
  type WorkedUnseenCase,
} from "./run-unseen-case";
import { UNSEEN_CASE_PROBLEMS, type UnseenCase, type UnseenCaseProblem, unseenCase } from "./unseen-cases";

/** A count of successes. */
export interface Share {
  all: number;
  right: number;
}

export interface UnseenCaseFigures {
  healthy: Share;
  /** Healthy engines diagnosed as more likely faulty than not. */
  alarms: Share;
  first: Share;
  withinThree: Share;
  /** True fault ranked first, and among the first three, by fault. */
  byTrouble: Map<UnseenCaseProblem, Share>;
  threeByTrouble: Map<UnseenCaseProblem, Share>;
  /** Checked sides whose start and end were found within a second (and half a sampling interval). */
  sides: Share;
  /** The same, also counting those correctly reported as uncertain. */
  sidesOrUnsure: Share;
  /** Of those found: drops within twelve rpm of the truth. */
  drops: Share;
  /** Drops whose truth is within twice the stated sigma. */
  dropsAsSaid: Share;
  /** Propeller cycles of which a step was found. */
  cycles: Share;
  /** Sides found that were not checked. */
  invented: number;
  /** Reliability of the probabilities at library rates in ten bins, and the same before calibration. */
  asTheyCome: Calibration;
  before: Calibration;
  /** What is claimed above nine in ten, with faults at library rates, and with each as frequent as a healthy engine. */
  claims: { atRates: Claims; alike: Claims };
}

/** Claims above nine in ten, in each hundredth of stated probability. */
export interface Claims {
  /** Share of all traces. */
  share: number;
  /** Stated and actual frequency of all of them. */
  said: number;
  right: number;
  /** Largest difference between the two in a hundredth that has at least fifty traces. */
  apart: number;
  parts: { from: number; cases: number; said: number; right: number }[];
}

export interface Calibration {
  /** Mean difference between stated and actual frequency, weighted by bin. */
  error: number;
  parts: { said: number; right: number; weight: number }[];
}

interface Said {
  said: number;
  right: boolean;
  rate: number;
  alike: number;
}

/** Tolerance for a start or end to count as found, seconds. */
const NEAR_S = 1;
const NEAR_RPM = 12;

/**
 * Runs `each` unseen cases per fault (four times as many healthy ones) from a seed on and counts the results. The cases are
 * generated, not from real engines. `judge` as of `runUnseenCase`; `make` is the generator.
 */
export function measureUnseenCases(
  from: number,
  each: number,
  { judge, make = unseenCase }: { judge?: Judge | undefined; make?: typeof unseenCase } = {},
): UnseenCaseFigures {
  const share = (): Share => ({ all: 0, right: 0 });
  const figures = {
    healthy: share(),
    alarms: share(),
    first: share(),
    withinThree: share(),
    sides: share(),
    sidesOrUnsure: share(),
    drops: share(),
    dropsAsSaid: share(),
    cycles: share(),
    invented: 0,
  };
  const byTrouble = new Map<UnseenCaseProblem, Share>();
  const threeByTrouble = new Map<UnseenCaseProblem, Share>();
  const said: Said[] = [];
  const saidBefore: Said[] = [];
  const claimed: Said[] = [];
  for (const trouble of UNSEEN_CASE_PROBLEMS) {
    const count = each * (trouble === "none" ? 4 : 1);
    for (let n = 0; n < count; n++) {
      const one = make(trouble, from + n);
      const worked = runUnseenCase(one, judge);
      const { chances, place } = worked;
      for (const [of, to] of [
        [chances, claimed],
        [worked.byRates, said],
        [worked.before, saidBefore],
      ] as const) {
        const [best] = [...of].sort((a, b) => b[1] - a[1]);
        to.push({
          said: best?.[1] ?? 0,
          right: best?.[0] === trouble,
          rate: rateOf(one) / count,
          alike: 1 / count,
        });
      }
      countSides(one, worked, figures);
      countCycles(one, worked, figures.cycles);
      if (trouble === "none") {
        add(figures.healthy, place === 0);
        add(
          figures.alarms,
          [...chances].some(([name, chance]) => name !== "none" && chance > 0.5),
        );
        continue;
      }
      add(figures.first, place === 0);
      add(figures.withinThree, place >= 0 && place < 3);
      for (const [of, right] of [
        [byTrouble, place === 0],
        [threeByTrouble, place >= 0 && place < 3],
      ] as const) {
        const own = of.get(trouble) ?? share();
        add(own, right);
        of.set(trouble, own);
      }
    }
  }
  return {
    ...figures,
    byTrouble,
    threeByTrouble,
    asTheyCome: calibration(said.map(({ rate, ...one }) => ({ ...one, weight: rate }))),
    before: calibration(saidBefore.map(({ rate, ...one }) => ({ ...one, weight: rate }))),
    claims: {
      atRates: claims(claimed.map(({ rate, ...one }) => ({ ...one, weight: rate }))),
      alike: claims(claimed.map(({ alike, ...one }) => ({ ...one, weight: alike }))),
    },
  };
}

/** Results after the page's questions, answered from the truth. */
export interface AskedFigures {
  /** Dead and ungrounded magnetos ranked first. */
  dead: Share;
  hot: Share;
  /** Healthy engines diagnosed as healthy. */
  healthy: Share;
  /** Mean number of questions per trace. */
  questions: number;
}

/** Cases measured: faults that must not be missed, and healthy engines that answers must not turn faulty. */
const ASKED = { dead: "dead magneto", hot: "hot magneto", healthy: "none" } as const;

/** Runs `each` unseen cases of each of these from a seed on, four times as many healthy ones, with a pilot who answers. */
export function measureAsked(from: number, each: number): AskedFigures {
  const figures = { dead: { all: 0, right: 0 }, hot: { all: 0, right: 0 }, healthy: { all: 0, right: 0 } };
  let questions = 0;
  let traces = 0;
  for (const kind of ["dead", "hot", "healthy"] as const)
    for (let n = 0; n < each * (kind === "healthy" ? 4 : 1); n++) {
      const { asked, place } = answerUnseenCase(unseenCase(ASKED[kind], from + n));
      add(figures[kind], place === 0);
      questions += asked.length;
      traces++;
    }
  return { ...figures, questions: questions / Math.max(1, traces) };
}

/** Results of coached run-ups. */
export interface CoachedFigures {
  /** Healthy engines diagnosed as healthy; and those stopped. */
  healthy: Share;
  stopped: Share;
  /** Dead and ungrounded magnetos ranked first, or a repeat requested. */
  caught: Share;
  /** Faulty and healthy engines for which a repeat was requested. */
  again: Share;
  againHealthy: Share;
}

/**
 * Runs `each` healthy unseen cases, and as many with a dead or ungrounded magneto, coached, with hands that follow within seconds
 * or deviate once per run-up. `judge` as of `runUnseenCase`.
 */
export function measureCoached(
  from: number,
  each: number,
  { hands, judge }: { hands: readonly Hand[]; judge?: Judge },
): CoachedFigures {
  const share = (): Share => ({ all: 0, right: 0 });
  const figures = {
    healthy: share(),
    stopped: share(),
    caught: share(),
    again: share(),
    againHealthy: share(),
  };
  for (let n = 0; n < each; n++)
    for (const trouble of ["none", n % 2 ? "dead magneto" : "hot magneto"] as const) {
      const one = unseenCase(trouble, from + n);
      const hand = hands[n % hands.length] as Hand;
      const { place, again, stopped } = coachUnseenCase(one, promptsFor(one, hand, from + n), judge);
      if (trouble === "none") {
        add(figures.healthy, place === 0);
        add(figures.stopped, stopped);
        add(figures.againHealthy, again);
      } else {
        add(figures.caught, place === 0 || again);
        add(figures.again, again);
      }
    }
  return figures;
}

function add(share: Share, right: boolean): void {
  share.all++;
  if (right) share.right++;
}

function countSides(
  { done }: UnseenCase,
  { reading }: WorkedUnseenCase,
  figures: Pick<UnseenCaseFigures, "sides" | "sidesOrUnsure" | "drops" | "dropsAsSaid"> & {
    invented: number;
  },
): void {
  const near = NEAR_S + reading.interval / 2;
  const tried = done.filter(
    ({ what, drop }) => (what === "first" || what === "second") && (drop ?? 0) > A_DROP_RPM,
  );
  const found = reading.steps.filter(({ step }) => step === "right" || step === "left");
  for (const { from, to, drop } of tried) {
    const step = found.find(({ at, until }) => Math.abs(at - from) <= near && Math.abs(until - to) <= near);
    add(figures.sides, step !== undefined);
    add(
      figures.sidesOrUnsure,
      step !== undefined ||
        found.some((one) => covers(one, "at", from, near) && covers(one, "until", to, near)),
    );
    const read = step && reading.tries.find((one) => one.from === step.at);
    if (!read || drop === undefined) continue;
    add(figures.drops, Math.abs(read.drop - drop) <= NEAR_RPM);
    add(figures.dropsAsSaid, Math.abs(read.drop - drop) <= 2 * read.dropSigma);
  }
  const sides = done.filter(({ what }) => what === "first" || what === "second");
  figures.invented += found.filter(
    ({ at, until }) => !sides.some(({ from, to }) => Math.min(until, to) - Math.max(at, from) > 0.5),
  ).length;
}

function countCycles({ done }: UnseenCase, { reading }: WorkedUnseenCase, cycles: Share): void {
  const found = reading.steps.filter(({ step }) => step === "propeller");
  for (const { what, from, to } of done)
    if (what === "propeller")
      add(
        cycles,
        found.some(({ at, until }) => at < to + NEAR_S && until > from - NEAR_S),
      );
}

/** True if a side's start or end is within tolerance of the truth, or its stated range covers it. */
function covers(step: FoundStep, end: "at" | "until", truth: number, near: number): boolean {
  if (Math.abs(step[end] - truth) <= near) return true;
  if (step.perhapsBoth) return truth > step.at && truth < step.until;
  const range = end === "at" ? step.atRange : step.untilRange;
  return (
    range !== undefined && range[1] - range[0] > near && truth >= range[0] - 0.5 && truth <= range[1] + 0.5
  );
}

/** Library rate of this fault on this engine, relative to the other generated faults. */
export function rateOf({ trouble, engine: { shape } }: UnseenCase): number {
  let own = 0;
  for (const { fault, probability } of hypotheses({
    cylinders: shape.cylinders,
    fuelSystem: shape.fuelSystem,
    propeller: shape.propeller,
    suction: shape.vacuumPump,
  }))
    if (nameOf(fault?.id) === trouble) own += probability;
  return own;
}

interface Weighed {
  said: number;
  right: boolean;
  weight: number;
}

/** Fewest traces in a hundredth: with fewer, the actual frequency is itself uncertain by more than three points. */
const FEW = 50;

function claims(cases: readonly Weighed[]): Claims {
  const above = cases.filter(({ said }) => said > 0.9);
  const parts = Array.from({ length: 10 }, (_, i) => ({
    from: 0.9 + i / 100,
    ...frequencies(above.filter(({ said }) => Math.min(9, Math.floor((said - 0.9) * 100 + 1e-9)) === i)),
  }));
  const { weight, said, right } = frequencies(above);
  const gaps = parts.filter((one) => one.cases >= FEW).map((one) => Math.abs(one.said - one.right));
  return { share: weight / frequencies(cases).weight, said, right, apart: Math.max(0, ...gaps), parts };
}

/** Weighted mean of what was stated and of what was right; zero for no cases. */
function frequencies(cases: readonly Weighed[]) {
  const weight = cases.reduce((sum, one) => sum + one.weight, 0);
  const mean = (of: (one: Weighed) => number) =>
    cases.reduce((sum, one) => sum + one.weight * of(one), 0) / Math.max(weight, Number.MIN_VALUE);
  return {
    cases: cases.length,
    weight,
    said: mean(({ said }) => said),
    right: mean(({ right }) => Number(right)),
  };
}

function calibration(cases: readonly Weighed[]): Calibration {
  const parts = Array.from({ length: 10 }, () => ({ said: 0, right: 0, weight: 0 }));
  for (const one of cases) {
    const part = parts[Math.min(9, Math.floor(one.said * 10))];
    if (!part) continue;
    part.said += one.said * one.weight;
    part.right += one.right ? one.weight : 0;
    part.weight += one.weight;
  }
  const all = parts.reduce((sum, { weight }) => sum + weight, 0);
  return {
    error: parts.reduce((sum, { said, right }) => sum + Math.abs(said - right), 0) / all,
    parts: parts.map(({ said, right, weight }) =>
      weight > 0
        ? { said: said / weight, right: right / weight, weight: weight / all }
        : { said: 0, right: 0, weight },
    ),
  };
}
