import { type DrawnStretch, drawnTrace } from "../../testing/drawn-trace";
import { CASE_ENGINES, type CaseEngine, placeOf, runUpCase, workCase } from "../../testing/run-up-cases";
import { UNSEEN_CASE_PROBLEMS, type UnseenCaseProblem, unseenCase } from "../../testing/unseen-cases";
import { seededRandom } from "../../units/seeded-random";
import { type Mark, RUN_UP_STEPS, type RunUpStep, readRunUp, readWays, traceOf } from "../index";

/**
 * Drawn run-ups with the coach's prompts: a prompt is strong evidence of an action but not proof. Late, early and missing actions
 * are common practice.
 */
const { profile } = (CASE_ENGINES as readonly CaseEngine[])[0] as CaseEngine;

const TAXI = { seconds: 25, rpm: 1000, egt: -170 };
const BOTH = { seconds: 12, rpm: 1800 };
const RIGHT = { seconds: 9, rpm: 1735, egt: 60 };
const LEFT = { seconds: 9, rpm: 1705, egt: 60 };
const IDLE = { seconds: 9, rpm: 680, egt: -300 };
const USUAL = [TAXI, BOTH, RIGHT, BOTH, LEFT, BOTH, IDLE];
/** Start of each stretch of the usual run-up: 25, 37, 46, 58, 67, 79. */
const CALLED: [RunUpStep, number][] = [
  ["run-up", 24],
  ["right", 36],
  ["both", 45],
  ["left", 57],
  ["both", 66],
  ["idle", 78],
];
const marks = (change: Record<number, number> = {}): Mark[] =>
  CALLED.map(([step, t], i) => ({ step, t: change[i] ?? t }));
const read = (stretches: readonly DrawnStretch[], prompts: Mark[], every = 0.5) =>
  readRunUp(drawnTrace(stretches, { every }), profile, prompts);
const near = (drop: number | undefined, truth: number) =>
  expect(Math.abs((drop ?? 999) - truth)).toBeLessThan(8);

describe.each([0.1, 0.5, 1])("prompts as evidence, with a line every %s s", (every) => {
  it.each<[string, Record<number, number>]>([
    ["in time", {}],
    ["late by seven seconds", { 1: 30 }],
    ["still on both when the next step was called", { 1: 29, 2: 35 }],
    ["two seconds ahead of its prompt", { 1: 38.5 }],
    ["two seconds ahead, on the second side", { 3: 60 }],
  ])("a hand that is %s drops on the side that was called", (_, change) => {
    const { right, left, notes } = read(USUAL, marks(change), every);
    near(right?.drop, 65);
    near(left?.drop, 95);
    expect([right?.doubt, left?.doubt]).toEqual([undefined, undefined]);
    expect(notes.map(({ kind }) => kind)).not.toContain("no change seen");
  });

  it("a side called but not selected is no drop, and the other keeps its own", () => {
    const { right, left } = read(
      [TAXI, BOTH, { ...BOTH, seconds: 9 }, BOTH, LEFT, BOTH, IDLE],
      marks(),
      every,
    );
    expect(right?.seen).toBe(false);
    expect(Math.abs(right?.drop ?? 99)).toBeLessThan(8);
    near(left?.drop, 95);
  });

  it("a side that hardly drops is repeated: the engine may not have settled, and no drop would be a stop", () => {
    const hardly = [TAXI, BOTH, { seconds: 9, rpm: 1784 }, BOTH, LEFT, BOTH, IDLE];
    const { right, left } = read(hardly, marks(), every);
    if (right?.seen) expect(right.doubt).toContain("hardly dropped");
    else expect(Math.abs(right?.drop ?? 99)).toBeLessThan(20);
    near(left?.drop, 95);
  });

  it("if the key was left on a side, nothing is reported of the side called meanwhile", () => {
    const straight = [TAXI, BOTH, { ...RIGHT, seconds: 30 }, BOTH, IDLE];
    const { right, left, notes } = read(straight, marks(), every);
    near(right?.drop, 65);
    // A key that was not turned must not be reported as an ungrounded magneto, the worst possible result.
    expect(left).toBeUndefined();
    expect(notes.map(({ kind }) => kind)).toContain("second never tried");
  });

  it("an engine that stops on a side is stopped on the side that was called, whatever the pilot does next", () => {
    const cut = [TAXI, BOTH, RIGHT, BOTH, { seconds: 8, rpm: 0, egt: -900 }];
    for (const late of [57, 52])
      expect(read(cut, marks({ 3: late }).slice(0, 4), every).left?.feel).toBe("quit");
  });

  it("a drop without a prompt is no reading", () => {
    const once = read(
      [TAXI, BOTH, RIGHT, BOTH, IDLE],
      [CALLED[0], ["idle", 57]].map((one) => {
        const [step, t] = one as [RunUpStep, number];
        return { step, t };
      }),
      every,
    );
    for (const made of once.tries) expect(made.doubt).toContain("not asked for");
    expect(once.tries.length).toBeGreaterThan(0);
  });
});

test("prompted traces have other interpretations too, with weights that add up to one; a clear one is nearly certain", () => {
  const ways = readWays(drawnTrace(USUAL, { every: 0.5 }), profile, marks());
  expect(ways.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(1, 9);
  expect(ways[0]?.weight).toBeGreaterThan(0.9);
});

test("a side's name is the prompt's, whichever the type tries first", () => {
  const other = marks().map(
    ({ step, t }): Mark => ({ step: step === "right" ? "left" : step === "left" ? "right" : step, t }),
  );
  const { right, left, notes } = read(USUAL, other);
  near(left?.drop, 65);
  near(right?.drop, 95);
  expect(notes.map(({ kind }) => kind)).toContain("wrong order");
});

test.each(
  CASE_ENGINES.map((engine) => [engine.name, engine] as const),
)("one line a second, %s: an engine that stops while a side is called stops on that side, and does not quit at idle on its way down", (_, engine) => {
  for (const n of [11, 12]) {
    const one = runUpCase("dead magneto", n, engine, 9001);
    const worked = workCase({ ...one, options: { ...one.options, hz: 1 } });
    expect(placeOf(one, worked.diagnosis)).toBe(0);
    expect(worked.reading.idle).toBeUndefined();
  }
});

test("nonsensical prompts are tolerated: any steps at any times, in any order, and traces that end anywhere", () => {
  for (let i = 200; i < 300; i++) {
    const random = seededRandom(i + 31);
    const one = unseenCase(
      UNSEEN_CASE_PROBLEMS[i % UNSEEN_CASE_PROBLEMS.length] as UnseenCaseProblem,
      40_000 + i,
    );
    const end = one.lines.at(-1)?.t ?? 0;
    const prompts = Array.from(
      { length: Math.floor(random() * 16) },
      (): Mark => ({
        step: RUN_UP_STEPS[Math.floor(random() * RUN_UP_STEPS.length)] as RunUpStep,
        t: -20 + random() * (end + 40),
      }),
    );
    if (random() < 0.7) prompts.sort((a, b) => a.t - b.t);
    const lines = random() < 0.3 ? one.lines.slice(0, Math.floor(random() * one.lines.length)) : one.lines;
    for (const { reading, weight } of readWays(traceOf(lines), one.engine.profile, prompts)) {
      expect(weight).toBeGreaterThan(0);
      // Each step begins when the one before it ends, or later, and none ends before it began.
      const times = reading.steps.map(({ at }) => at);
      expect(times).toEqual([...times].sort((a, b) => a - b));
      expect(reading.steps.filter(({ at, until }) => until < at)).toEqual([]);
      expect(reading.tries.filter(({ drop }) => !Number.isFinite(drop))).toEqual([]);
    }
  }
});
