import { type DrawnStretch, drawnTrace } from "../../testing/drawn-trace";
import { CASE_ENGINES, type CaseEngine } from "../../testing/run-up-cases";
import { readRunUp } from "../index";

const FOUR = CASE_ENGINES[0] as CaseEngine;
const TAXI = { seconds: 25, rpm: 1000, egt: -170 };
const BOTH = { seconds: 10, rpm: 1800 };
const SIDE = { seconds: 8, rpm: 1730, egt: 60 };
const IDLE = { seconds: 8, rpm: 680, egt: -300 };
const read = (stretches: readonly DrawnStretch[], every = 1) =>
  readRunUp(drawnTrace(stretches, { every }), FOUR.profile);

test("melted ice is visible, even with only four seconds on both before a side was tried", () => {
  const iced = (cold: number) => [
    TAXI,
    { seconds: 14, rpm: 1740 },
    { seconds: 5, rpm: 1670, egt: -25 },
    { seconds: 10, rpm: 1670, to: 1745, egt: -25 },
    { seconds: cold, rpm: 1815 },
    { ...SIDE, rpm: 1745 },
    { ...BOTH, rpm: 1815 },
    { ...SIDE, rpm: 1740 },
    { ...BOTH, rpm: 1815 },
    IDLE,
  ];
  for (const cold of [4, 9]) {
    const { heat } = read(iced(cold));
    expect(heat?.gain).toBeGreaterThan(55);
    expect(heat?.gain).toBeLessThan(95);
  }
});

test("carburettor heat is read where it was clear, whatever looks similar later", () => {
  const { heat } = read([
    TAXI,
    BOTH,
    { seconds: 10, rpm: 1725, egt: -28 },
    BOTH,
    SIDE,
    BOTH,
    SIDE,
    BOTH,
    // The hand pauses on the way to idle.
    { seconds: 2, rpm: 1690 },
    IDLE,
    TAXI,
  ]);
  expect(heat?.drop).toBeGreaterThan(60);
  expect(heat?.drop).toBeLessThan(90);
  expect(heat?.held).toBeGreaterThan(8);
  expect(heat?.held).toBeLessThan(12);
});

test("bursts of power while taxiing are no run-up, and nothing in them is a side", () => {
  const burst = { seconds: 5, rpm: 1500, egt: -90 };
  const reading = read([
    TAXI,
    burst,
    { ...TAXI, rpm: 1250 },
    { ...burst, rpm: 1540 },
    TAXI,
    BOTH,
    SIDE,
    BOTH,
    SIDE,
    BOTH,
    IDLE,
  ]);
  const begins = reading.steps.find(({ step }) => step === "run-up")?.at ?? 0;
  expect(begins).toBeGreaterThan(84);
  expect(reading.tries.map(({ side }) => side)).toEqual(["right", "left"]);
  for (const { drop } of reading.tries) expect(Math.abs(drop - 70)).toBeLessThan(12);
});

test("a side that starts and ends while the EGT still falls from the other is a side, and no carburettor heat", () => {
  const reading = read([
    TAXI,
    BOTH,
    { seconds: 8, rpm: 1610, egt: 120 },
    { seconds: 4, rpm: 1800 },
    { seconds: 5, rpm: 1735, egt: 30 },
    BOTH,
    IDLE,
  ]);
  expect(reading.tries.map(({ side }) => side)).toEqual(["right", "left"]);
  expect(reading.heat).toBeUndefined();
});

test("with a line every two seconds, a side of four seconds has its full depth", () => {
  const { tries } = read(
    [TAXI, BOTH, { ...SIDE, seconds: 10 }, BOTH, { ...SIDE, seconds: 4, rpm: 1620 }, BOTH, IDLE],
    2,
  );
  expect(tries.map(({ drop }) => Math.abs(drop - 70) < 15 || Math.abs(drop - 180) < 25)).toEqual([
    true,
    true,
  ]);
  // EGT of so few samples is read too.
  for (const { egtChange } of tries) expect(Object.keys(egtChange)).toHaveLength(4);
});

test("a very long segment on one side may be both, although the other is tried a second time after it", () => {
  const long = (seconds: number) =>
    read([TAXI, BOTH, { ...SIDE, seconds }, BOTH, { ...SIDE, rpm: 1700 }, BOTH, IDLE]).steps.filter(
      ({ step }) => step === "right" || step === "left",
    );
  expect(long(18).map(({ perhapsBoth }) => perhapsBoth ?? false)).toEqual([true, false]);
  expect(long(9).map(({ perhapsBoth }) => perhapsBoth ?? false)).toEqual([false, false]);
});

test("two lines on a side, two seconds apart, may be a transition: repeated", () => {
  const second = (seconds: number) =>
    read([TAXI, BOTH, SIDE, BOTH, { ...SIDE, seconds, rpm: 1650 }, BOTH, IDLE], 2).tries.find(
      ({ drop }) => drop > 95,
    );
  expect(second(3)?.doubt).toMatch(/a few seconds longer/);
  expect(second(12)?.doubt).toBeUndefined();
});
