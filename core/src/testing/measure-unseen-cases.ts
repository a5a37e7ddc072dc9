import { hypotheses } from "../diagnosis/index";
import type { FoundStep } from "../run-up/index";
import { type Hand, promptsFor } from "./coached-unseen-cases";
import {
  A_DROP_RPM,
  askStranger,
  coachStranger,
  type Judge,
  nameOf,
  runUnseenCase,
  type WorkedStranger,
} from "./run-unseen-case";
import { STRANGER_TROUBLES, type StrangerCase, type StrangerTrouble, strangerCase } from "./unseen-cases";

/** Something counted, and how many of it were as they should be. */
export interface Share {
  all: number;
  right: number;
}

export interface StrangerFigures {
  healthy: Share;
  /** Healthy engines of which some trouble was said to be likelier than not. */
  alarms: Share;
  first: Share;
  withinThree: Share;
  /** First, and among the first three, by trouble. */
  byTrouble: Map<StrangerTrouble, Share>;
  threeByTrouble: Map<StrangerTrouble, Share>;
  /** Sides that were tried and dropped, of which begin and end were found within a second (and half a line). */
  sides: Share;
  /** The same, or given as uncertain with what was done inside: between two times further apart than that, or as a stretch that may be both. */
  sidesOrUnsure: Share;
  /** Of those that were found: drops within twelve rpm of what was done. */
  drops: Share;
  /** Drops of which what was done lies within twice the stated sigma. */
  dropsAsSaid: Share;
  /** Found sides where none was. */
  invented: number;
  /** Said and so, in ten parts by what was said, each case as often as the library has its trouble; and each as often as any other. */
  asTheyCome: Calibration;
  /** As they come, before what is stated was brought to how often it is so. */
  before: Calibration;
  allAlike: Calibration;
}

export interface Calibration {
  /** How far what was said is from what was so, mean over the parts, each by its weight; a part of one. */
  error: number;
  parts: { said: number; right: number; weight: number }[];
}

interface Said {
  said: number;
  right: boolean;
  rate: number;
  alike: number;
}

/** How near a begin or an end is "found", seconds. */
const NEAR_S = 1;
const NEAR_RPM = 12;

/**
 * Works `each` strangers of every trouble (four times as many healthy ones) from a seed on and counts what came of it. Nothing here is an engine's: the cases are our own, see there. `judge` as of
 * `workStranger`.
 */
export function measureStrangers(from: number, each: number, judge?: Judge): StrangerFigures {
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
    invented: 0,
  };
  const byTrouble = new Map<StrangerTrouble, Share>();
  const threeByTrouble = new Map<StrangerTrouble, Share>();
  const said: Said[] = [];
  const saidBefore: Said[] = [];
  for (const trouble of STRANGER_TROUBLES) {
    const count = each * (trouble === "none" ? 4 : 1);
    for (let n = 0; n < count; n++) {
      const one = strangerCase(trouble, from + n);
      const worked = runUnseenCase(one, judge);
      const { chances, place } = worked;
      for (const [of, to] of [
        [chances, said],
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
    allAlike: calibration(said.map(({ alike, ...one }) => ({ ...one, weight: alike }))),
  };
}

/** What comes of the questions that the page asks, answered by what the hand did. */
export interface AskedFigures {
  /** Dead magnetos, and such that are not grounded: named first. */
  dead: Share;
  hot: Share;
  /** Healthy engines called healthy. */
  healthy: Share;
  /** How many questions were asked of a trace, mean. */
  questions: number;
}

/** Those of which that is measured: what nobody may miss, and what may not be called sick for an answer. */
const ASKED = { dead: "dead magneto", hot: "hot magneto", healthy: "none" } as const;

/** Works `each` strangers of each of these from a seed on, the healthy ones four times as many, with a pilot who answers. */
export function measureAsked(from: number, each: number): AskedFigures {
  const figures = { dead: { all: 0, right: 0 }, hot: { all: 0, right: 0 }, healthy: { all: 0, right: 0 } };
  let questions = 0;
  let traces = 0;
  for (const kind of ["dead", "hot", "healthy"] as const)
    for (let n = 0; n < each * (kind === "healthy" ? 4 : 1); n++) {
      const { asked, place } = askStranger(strangerCase(ASKED[kind], from + n));
      add(figures[kind], place === 0);
      questions += asked.length;
      traces++;
    }
  return { ...figures, questions: questions / Math.max(1, traces) };
}

/** What comes of run-ups that the coach calls. */
export interface CoachedFigures {
  /** Healthy engines called healthy; and such that were stopped. */
  healthy: Share;
  stopped: Share;
  /** Dead magnetos, and such that are not grounded: named first, or a side asked for again. */
  caught: Share;
  /** Sick ones of which a side was asked for again, and healthy ones. */
  again: Share;
  againHealthy: Share;
}

/**
 * Works `each` healthy strangers, and as many with a magneto that is dead or not grounded together, with the coach beside each: by hands that follow within seconds, or once in each run-up do not. `judge` as of
 * `workStranger`.
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
      const one = strangerCase(trouble, from + n);
      const hand = hands[n % hands.length] as Hand;
      const { place, again, stopped } = coachStranger(one, promptsFor(one, hand, from + n), judge);
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
  { done }: StrangerCase,
  { reading }: WorkedStranger,
  figures: Pick<StrangerFigures, "sides" | "sidesOrUnsure" | "drops" | "dropsAsSaid"> & { invented: number },
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

/** Whether a side's begin or end is where it was done, or given as lying somewhere with that inside. */
function covers(step: FoundStep, end: "at" | "until", truth: number, near: number): boolean {
  if (Math.abs(step[end] - truth) <= near) return true;
  if (step.perhapsBoth) return truth > step.at && truth < step.until;
  const range = end === "at" ? step.atRange : step.untilRange;
  return (
    range !== undefined && range[1] - range[0] > near && truth >= range[0] - 0.5 && truth <= range[1] + 0.5
  );
}

/** How often the library has this trouble on this engine, beside the others that are made here. */
export function rateOf({ trouble, engine: { shape } }: StrangerCase): number {
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

function calibration(cases: { said: number; right: boolean; weight: number }[]): Calibration {
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
