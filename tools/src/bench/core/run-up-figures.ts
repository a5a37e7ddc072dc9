import { diagnose, type Hypothesis, hypotheses, rankTests } from "@cravix/core/diagnosis";
import {
  FAULT_KINDS,
  type FaultKind,
  Monitor,
  type MonitorSample,
  simulateRunUp,
} from "@cravix/core/engine-model";
import { readRunUp, traceOf } from "@cravix/core/run-up";
import { HANDS, type Hand } from "@cravix/core/testing/coached-unseen-cases";
import {
  measureAsked,
  measureCoached,
  measureUnseenCases,
  type Share,
} from "@cravix/core/testing/measure-unseen-cases";
import type { Judge } from "@cravix/core/testing/run-unseen-case";
import {
  CASE_ENGINES,
  canHave,
  placeOf,
  type RunUpCase,
  runUpCase,
  tally,
  workCase,
} from "@cravix/core/testing/run-up-cases";
import { unfittedCase } from "@cravix/core/testing/unfitted-cases";
import { UNSEEN_CASE_PROBLEMS } from "@cravix/core/testing/unseen-cases";
import { seededRandom } from "@cravix/core/units/seeded-random";
import { type Figure, plain, quantile, reaching, within } from "../figure";
import { so, TINY } from "../size";
import { firstReader } from "./baseline-reader";

const HALF_HOUR_LINES = so(18_000, 4000);

function timed(work: () => unknown, rounds: number): number {
  work();
  return quantile(
    Array.from({ length: rounds }, () => {
      const from = performance.now();
      work();
      return performance.now() - from;
    }),
    0.5,
  );
}

/** Speed of the engine model, of reading a long trace, and of diagnosis. Baselines: a plain pass over the same data. */
export function runUpFigures(): Figure[] {
  const [engine] = CASE_ENGINES;
  if (!engine) throw new Error("no engine to measure with");
  const one = runUpCase("none", 0, engine);
  const monitor = new Monitor(one.options);
  const seconds = so(1800, 30);
  const modelMs = timed(
    () => {
      for (let i = 0; i < seconds * 10; i++) monitor.next();
    },
    so(3, 1),
  );
  // Same number of steps with minimal work.
  let x = 1;
  const bareMs = timed(() => {
    for (let i = 0; i < seconds * 50; i++) x += Math.sqrt(x + Math.exp(-x)) * 0.02 - x * 0.01;
  }, 3);
  const times = (seconds * 1000) / modelMs;

  // Half an hour at ten samples per second: taxi, with a run-up at the end.
  const taxi = new Monitor({ ...one.options, seed: 3 });
  const runUp = simulateRunUp(one.options).samples;
  const lines: MonitorSample[] = Array.from({ length: HALF_HOUR_LINES - runUp.length }, () => taxi.next());
  const from = lines.at(-1)?.t ?? 0;
  for (const line of runUp) lines.push({ ...line, t: from + 0.1 + line.t });
  const trace = traceOf(lines);
  const readMs = timed(() => readRunUp(trace, engine.profile), so(9, 1));
  const copyMs = timed(() => traceOf(lines), so(9, 1));

  const worked = workCase(runUpCase("fouled plug", 3, engine));
  const diagnoseMs = timed(() => {
    const { ranked } = diagnose(worked.observations, worked.context);
    rankTests(ranked, worked.context, worked.observations);
  }, 60);
  const sortMs = timed(() => hypotheses(worked.context).sort((a, b) => b.probability - a.probability), 60);
  return [
    reaching(
      "engine model speed, multiple of real time (baseline: empty steps)",
      times,
      "×",
      (seconds * 1000) / bareMs,
      2000,
    ),
    within(
      "finding a run-up in half an hour of data at 10 Hz (baseline: parsing the columns)",
      readMs,
      "ms",
      copyMs,
      200,
    ),
    within("diagnosis and next test (baseline: sorting the faults)", diagnoseMs, "ms", sortMs, 20),
  ];
}

/** Cases per kind for accuracy figures. */
const EACH = so(5, 1);
const ENGINES = so(CASE_ENGINES, CASE_ENGINES.slice(0, 1));

/**
 * Accuracy of reading and diagnosis: seeded cases of every fault on four engines, and cases at library rates for the reliability
 * of probabilities. Baselines: always naming the most frequent fault.
 */
export function runUpAccuracy(): Figure[] {
  const { cases, first, three, healthy, alarms, worked } = tally({
    each: EACH,
    healthyEach: so(5 * EACH, 1),
    seed: 4001,
    engines: ENGINES,
  });
  let steps = 0;
  let inTime = 0;
  let drops = 0;
  let close = 0;
  for (const one of worked) {
    const scale = Math.max(1, one.engine.profile.rpm / 1800);
    steps += one.steps.length;
    inTime += one.steps.filter(({ offS = 9 }) => offS <= 0.5).length;
    drops += one.drops.length;
    close += one.drops.filter(({ truth, read = 9999 }) => Math.abs(truth - read) <= 10 * scale).length;
  }
  const percent = (part: number, whole: number) => (100 * part) / whole;
  const blind = 100 / (FAULT_KINDS.length - 1);
  return [
    reaching(
      `run-up steps found within 0.5 s, of ${steps} (baseline: chance over 10 s)`,
      percent(inTime, steps),
      "%",
      10,
      99,
    ),
    reaching(
      `magneto drops within 10 rpm at 1,800 rpm, of ${drops} (baseline: half the 125 rpm limit either way)`,
      percent(close, drops),
      "%",
      16,
      99,
    ),
    reaching(
      `correct fault ranked first, of ${cases} (baseline: always the same fault)`,
      percent(first, cases),
      "%",
      blind,
      90,
    ),
    reaching(`correct fault among the first three, of ${cases}`, percent(three, cases), "%", 3 * blind, 99),
    within(
      `false alarms on healthy engines, of ${healthy} (baseline: one in ten)`,
      percent(alarms, healthy),
      "%",
      10,
      2,
    ),
    ...reliability(),
  ];
}

/** The same cases under realistic conditions; prompted ones are the easy case. */
const MANNERS: [string, (one: RunUpCase) => RunUpCase][] = [
  [
    "from a file without coach prompts, follow-up questions answered",
    (one) => ({ ...one, unprompted: true }),
  ],
  ["at one line a second", (one) => ({ ...one, options: { ...one.options, hz: 1 } })],
  [
    "on realistic engines and monitors: uneven cylinders, slow probes, stepped tachometers",
    (one) => ({ ...one, options: { ...one.options, lifelike: true } }),
  ],
  ["with twice the noise", (one) => ({ ...one, options: { ...one.options, noise: 2 } })],
  ["with a hurried pilot, two thirds of the time on each step", (one) => ({ ...one, pace: 0.65 })],
];

/** Diagnosis from poorer traces. Baseline: naming one fault blindly; for alarms one in ten. */
export function runUpManners(): Figure[] {
  return MANNERS.flatMap(([name, change]) => {
    const { cases, first, three, healthy, alarms } = tally({
      each: so(2, 1),
      healthyEach: so(10, 1),
      engines: so(ENGINES, ENGINES.slice(0, 1)),
      from: 11,
      seed: 9001,
      change,
    });
    const blind = 100 / (FAULT_KINDS.length - 1);
    return [
      plain(`correct fault ranked first ${name}, of ${cases}`, (100 * first) / cases, "%", blind),
      plain(`correct fault among the first three ${name}`, (100 * three) / cases, "%", 3 * blind),
      plain(`false alarms ${name}, of ${healthy}`, (100 * alarms) / healthy, "%", 10),
    ];
  });
}

const DRAWN = so(400, 4);

/** Faults no trace shows by itself: a side without a drop, heat without effect. The page asks about them. */
const UNSEEN: ReadonlySet<string> = new Set(["hot magneto", "heat cable off"]);
const UNSEEN_CASES = so(100, 1);
/** Seeds not used for tuning. */
const HELD_OUT = 200_000;

/**
 * Unseen run-ups read without questions: coarse monitors, cylinders that differ, pilots with habits. Baselines: the first reader
 * on the same cases in the same run, from the project's history; NaN without history. It stated no probabilities.
 */
export async function runUpUnseenCases(): Promise<Figure[]> {
  const first = TINY ? undefined : await firstReader();
  try {
    return unseenCasesBeside(first?.judge);
  } finally {
    first?.done();
  }
}

function unseenCasesBeside(judge: Judge | undefined): Figure[] {
  const figures = measureUnseenCases(HELD_OUT, UNSEEN_CASES);
  const past = judge && measureUnseenCases(HELD_OUT, UNSEEN_CASES, { judge });
  const { healthy, alarms, first, withinThree, byTrouble, threeByTrouble } = figures;
  const { sides, sidesOrUnsure, drops, dropsAsSaid, cycles, asTheyCome, before, claims } = figures;
  const percent = ({ right, all }: Share) => (100 * right) / Math.max(1, all);
  const canShow = (of: ReadonlyMap<string, Share>): Share =>
    [...of]
      .filter(([trouble]) => !UNSEEN.has(trouble))
      .reduce((sum, [, { right, all }]) => ({ right: sum.right + right, all: sum.all + all }), {
        right: 0,
        all: 0,
      });
  const shown = canShow(byTrouble);
  const { dead, hot, healthy: healthyAsked, questions } = measureAsked(HELD_OUT, UNSEEN_CASES);
  /** Share of the two critical faults that were missed, %. */
  const missed = (...of: (Share | undefined)[]) => {
    const all = of.reduce((sum, share) => sum + (share?.all ?? 0), 0);
    const right = of.reduce((sum, share) => sum + (share?.right ?? 0), 0);
    return (100 * (all - right)) / Math.max(1, all);
  };
  const shownInThree = canShow(threeByTrouble);
  const was = (share: Share | undefined) => (share ? percent(share) : Number.NaN);
  const coached = withCoach();
  const coachedPast = judge && withCoach(judge);
  const left = ({ right, all }: Share): Share => ({ right: all - right, all });
  return [
    reaching(
      `unseen engines: healthy reported healthy, of ${healthy.all}`,
      percent(healthy),
      "%",
      was(past?.healthy),
      97,
    ),
    within(
      `unseen engines: fault above 50 % on a healthy engine, of ${alarms.all}`,
      percent(alarms),
      "%",
      was(past?.alarms),
      2,
    ),
    plain(
      `unseen engines: correct fault ranked first, of ${first.all}`,
      percent(first),
      "%",
      was(past?.first),
    ),
    plain(
      `unseen engines: correct fault among the first three, of ${withinThree.all}`,
      percent(withinThree),
      "%",
      was(past?.withinThree),
    ),
    reaching(
      `unseen engines: correct fault ranked first, faults visible in a trace only, of ${shown.all}`,
      percent(shown),
      "%",
      was(past && canShow(past.byTrouble)),
      88,
    ),
    reaching(
      `unseen engines: correct fault among the first three, faults visible in a trace only, of ${shownInThree.all}`,
      percent(shownInThree),
      "%",
      was(past && canShow(past.threeByTrouble)),
      97,
    ),
    within(
      `unseen engines: dead or ungrounded magneto not ranked first after the follow-up questions, of ${dead.all + hot.all} (baseline: without questions)`,
      missed(dead, hot),
      "%",
      missed(byTrouble.get("dead magneto"), byTrouble.get("hot magneto")),
      0.5,
    ),
    plain(
      `unseen engines: healthy reported healthy after the follow-up questions, of ${healthyAsked.all} (baseline: without questions)`,
      percent(healthyAsked),
      "%",
      percent(healthy),
    ),
    plain(
      "unseen engines: questions per trace, mean (baseline: all questions for a trace)",
      questions,
      "questions",
      5,
    ),
    within(
      `unseen engines, coached: Stop on a healthy engine, of ${coached.stopped.all}`,
      percent(coached.stopped),
      "%",
      was(coachedPast?.stopped),
      0.3,
    ),
    reaching(
      `unseen engines, coached: healthy reported healthy, of ${coached.healthy.all}`,
      percent(coached.healthy),
      "%",
      was(coachedPast?.healthy),
      97,
    ),
    within(
      `unseen engines, coached: dead or ungrounded magneto neither ranked first nor rechecked, of ${coached.caught.all}`,
      percent(left(coached.caught)),
      "%",
      was(coachedPast && left(coachedPast.caught)),
      0.5,
    ),
    plain(
      `unseen engines, coached: healthy engine asked to repeat a magneto, of ${coached.againHealthy.all}`,
      percent(coached.againHealthy),
      "%",
      was(coachedPast?.againHealthy),
    ),
    ...[...byTrouble].map(([trouble, share]) =>
      plain(
        `unseen engines: ${trouble} ranked first, of ${share.all}`,
        percent(share),
        "%",
        was(past?.byTrouble.get(trouble)),
      ),
    ),
    plain(
      `unseen engines: magneto steps with start and end found within 1 s, of ${sides.all}`,
      percent(sides),
      "%",
      was(past?.sides),
    ),
    reaching(
      `unseen engines: the same, or reported as uncertain with the true step inside, of ${sidesOrUnsure.all}`,
      percent(sidesOrUnsure),
      "%",
      was(past?.sidesOrUnsure),
      97,
    ),
    reaching(
      `unseen engines: magneto drops within 12 rpm, of ${drops.all}`,
      percent(drops),
      "%",
      was(past?.drops),
      95,
    ),
    plain(
      `unseen engines: magneto drops within the stated uncertainty (two sigma), of ${dropsAsSaid.all}`,
      percent(dropsAsSaid),
      "%",
      95,
    ),
    within(
      "unseen engines: calibration error in ten bins, faults at the rates of the library",
      100 * asTheyCome.error,
      "percentage points",
      past ? 100 * past.asTheyCome.error : Number.NaN,
      4,
    ),
    plain(
      "unseen engines: the same (baseline: before calibration, same cases)",
      100 * asTheyCome.error,
      "percentage points",
      100 * before.error,
    ),
    within(
      "unseen engines: claims above 90 % against their frequency, the worst hundredth, faults at the rates of the library",
      100 * claims.atRates.apart,
      "percentage points",
      past ? 100 * past.claims.atRates.apart : Number.NaN,
      3,
    ),
    within(
      "unseen engines: the same, every fault as frequent as a healthy engine",
      100 * claims.alike.apart,
      "percentage points",
      past ? 100 * past.claims.alike.apart : Number.NaN,
      3,
    ),
    plain(
      "unseen engines: traces with a claim above 90 %, every fault as frequent as a healthy engine",
      100 * claims.alike.share,
      "%",
      past ? 100 * past.claims.alike.share : Number.NaN,
    ),
    reaching(
      `unseen engines: propeller cycles found, of ${cycles.all}`,
      percent(cycles),
      "%",
      was(past?.cycles),
      90,
    ),
  ];
}

/**
 * The same on a generator that nothing was fitted on. Baselines: the value expected from naming one fault blindly, and the
 * certainty at library rates before claims are limited.
 */
export function runUpUnfittedCases(): Figure[] {
  const { healthy, alarms, first, withinThree, cycles, claims } = measureUnseenCases(1, UNSEEN_CASES, {
    make: unfittedCase,
  });
  const percent = ({ right, all }: Share) => (100 * right) / Math.max(1, all);
  const blind = 100 / (UNSEEN_CASE_PROBLEMS.length - 1);
  return [
    reaching(
      `unfitted generator: healthy reported healthy, of ${healthy.all} (baseline: always)`,
      percent(healthy),
      "%",
      100,
      95,
    ),
    within(
      `unfitted generator: fault above 50 % on a healthy engine, of ${alarms.all} (baseline: one in ten)`,
      percent(alarms),
      "%",
      10,
      2,
    ),
    plain(`unfitted generator: correct fault ranked first, of ${first.all}`, percent(first), "%", blind),
    plain(
      `unfitted generator: correct fault among the first three, of ${withinThree.all}`,
      percent(withinThree),
      "%",
      3 * blind,
    ),
    reaching(
      `unfitted generator: propeller cycles found, of ${cycles.all} (baseline: strangers' traces before cycles were searched, 29 of 49)`,
      percent(cycles),
      "%",
      59,
      90,
    ),
    ...(["atRates", "alike"] as const).map((rates) =>
      within(
        `unfitted generator: claims above 90 % against their frequency, the worst hundredth, ${rates === "alike" ? "every fault as frequent as a healthy engine" : "faults at the rates of the library"} (baseline: ten points)`,
        100 * claims[rates].apart,
        "percentage points",
        10,
        3,
      ),
    ),
  ];
}

/** Coached run-ups with hands that follow, and with hands that are once late, early or skip a return. */
function withCoach(judge?: Judge) {
  const of = (hands: readonly Hand[]) =>
    measureCoached(HELD_OUT, 3 * UNSEEN_CASES, { hands, ...(judge && { judge }) });
  const follow = of(HANDS.slice(0, 1));
  const loose = of(HANDS.slice(1));
  const both = (a: Share, b: Share): Share => ({ right: a.right + b.right, all: a.all + b.all });
  return {
    healthy: both(follow.healthy, loose.healthy),
    stopped: both(follow.stopped, loose.stopped),
    caught: both(follow.caught, loose.caught),
    againHealthy: both(follow.againHealthy, loose.againHealthy),
  };
}

/** Cases at library rates: how often stated probabilities were right. */
function reliability(): Figure[] {
  const random = seededRandom(99);
  const bins = [0, 0.5, 0.8, 0.95, 1.0001].map((from) => ({ from, said: 0, right: 0, n: 0 }));
  let said = 0;
  let right = 0;
  for (let n = 0; n < DRAWN; n++) {
    const engine = CASE_ENGINES[n % CASE_ENGINES.length] as (typeof CASE_ENGINES)[number];
    const kind = drawn(random, engine);
    const one: RunUpCase = runUpCase(kind, Math.floor(random() * 1000), engine, 70_000 + n);
    const { diagnosis } = workCase(one);
    const place = placeOf(one, diagnosis);
    const best = diagnosis.ranked[0] as Hypothesis;
    said += best.probability;
    if (place === 0) right++;
    const bin = bins.findLast(({ from }) => best.probability >= from);
    if (!bin) continue;
    bin.n++;
    bin.said += best.probability;
    if (place === 0) bin.right++;
  }
  return [
    within(
      `calibration: mean confidence ${((100 * said) / DRAWN).toFixed(1)} %, correct ${((100 * right) / DRAWN).toFixed(1)} %, of ${DRAWN} cases sampled at the rates of the library`,
      (Math.abs(said - right) / DRAWN) * 100,
      "percentage points",
      100,
      3,
    ),
    ...bins
      .filter(({ n }) => n > 0)
      .map(({ from, said: s, right: r, n }) =>
        plain(
          `reliability from ${from}: ${n} cases, correct (baseline: stated confidence)`,
          (100 * r) / n,
          "%",
          (100 * s) / n,
        ),
      ),
  ];
}

/** A random fault at library rates, among those that can be simulated. */
function drawn(random: () => number, engine: (typeof CASE_ENGINES)[number]): FaultKind {
  const { shape } = engine;
  const all = hypotheses({
    cylinders: shape.cylinders,
    fuelSystem: shape.fuelSystem,
    propeller: shape.propeller,
    suction: shape.vacuumPump,
  });
  const rates = new Map<FaultKind, number>();
  for (const { fault, probability } of all) {
    const kind = (fault?.id ?? "none") as FaultKind;
    if (FAULT_KINDS.includes(kind) && canHave(kind, engine))
      rates.set(kind, (rates.get(kind) ?? 0) + probability);
  }
  let left = random() * [...rates.values()].reduce((a, b) => a + b, 0);
  for (const [kind, rate] of rates) {
    left -= rate;
    if (left <= 0) return kind;
  }
  return "none";
}
