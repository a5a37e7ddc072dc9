import { hypotheses } from "../diagnosis/index";
import { STRANGER_TROUBLES, type StrangerCase, type StrangerTrouble, strangerCase } from "./stranger-cases";
import { nameOf, type WorkedStranger, workStranger } from "./work-stranger";

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
  /** First, by trouble. */
  byTrouble: Map<StrangerTrouble, Share>;
  /** Sides that were tried and dropped, of which begin and end were found within a second (and half a line). */
  sides: Share;
  /** Of those that were found: drops within twelve rpm of what was done. */
  drops: Share;
  /** Found sides where none was. */
  invented: number;
  /** Said and so, in ten parts by what was said, each case as often as the library has its trouble; and each as often as any other. */
  asTheyCome: Calibration;
  allAlike: Calibration;
}

export interface Calibration {
  /** How far what was said is from what was so, mean over the parts, each by its weight; a part of one. */
  error: number;
  parts: { said: number; right: number; weight: number }[];
}

/** How near a begin or an end is "found", seconds. */
const NEAR_S = 1;
const NEAR_RPM = 12;

/**
 * Works `each` strangers of every trouble (four times as many healthy ones) from a seed on and counts what came of it. Nothing here is an engine's: the cases are our own, see there.
 */
export function measureStrangers(from: number, each: number): StrangerFigures {
  const share = (): Share => ({ all: 0, right: 0 });
  const figures = {
    healthy: share(),
    alarms: share(),
    first: share(),
    withinThree: share(),
    sides: share(),
    drops: share(),
    invented: 0,
  };
  const byTrouble = new Map<StrangerTrouble, Share>();
  const said: { said: number; right: boolean; rate: number; alike: number }[] = [];
  for (const trouble of STRANGER_TROUBLES) {
    const count = each * (trouble === "none" ? 4 : 1);
    for (let n = 0; n < count; n++) {
      const one = strangerCase(trouble, from + n);
      const worked = workStranger(one);
      const { chances, place } = worked;
      const [best] = [...chances].sort((a, b) => b[1] - a[1]);
      said.push({
        said: best?.[1] ?? 0,
        right: place === 0,
        rate: rateOf(one) / count,
        alike: 1 / count,
      });
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
      const own = byTrouble.get(trouble) ?? share();
      add(own, place === 0);
      byTrouble.set(trouble, own);
    }
  }
  return {
    ...figures,
    byTrouble,
    asTheyCome: calibration(said.map(({ rate, ...one }) => ({ ...one, weight: rate }))),
    allAlike: calibration(said.map(({ alike, ...one }) => ({ ...one, weight: alike }))),
  };
}

function add(share: Share, right: boolean): void {
  share.all++;
  if (right) share.right++;
}

function countSides(
  { done }: StrangerCase,
  { reading }: WorkedStranger,
  figures: { sides: Share; drops: Share; invented: number },
): void {
  const near = NEAR_S + reading.interval / 2;
  const tried = done.filter(({ what, drop }) => (what === "first" || what === "second") && (drop ?? 0) > 12);
  const found = reading.steps.filter(({ step }) => step === "right" || step === "left");
  for (const { from, to, drop } of tried) {
    const step = found.find(({ at, until }) => Math.abs(at - from) <= near && Math.abs(until - to) <= near);
    add(figures.sides, step !== undefined);
    const read = step && reading.tries.find((one) => one.from === step.at);
    if (read && drop !== undefined) add(figures.drops, Math.abs(read.drop - drop) <= NEAR_RPM);
  }
  const sides = done.filter(({ what }) => what === "first" || what === "second");
  figures.invented += found.filter(
    ({ at, until }) => !sides.some(({ from, to }) => Math.min(until, to) - Math.max(at, from) > 0.5),
  ).length;
}

/** How often the library has this trouble on this engine, beside the others that are made here. */
function rateOf({ trouble, engine: { shape } }: StrangerCase): number {
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
