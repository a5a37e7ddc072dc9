import { type DrawnStretch, drawnTrace } from "../../testing/drawn-trace";
import { CASE_ENGINES, type CaseEngine } from "../../testing/run-up-cases";
import { readRunUp } from "../index";

/** Drawn run-ups in which a side follows directly after carburettor heat, as in coarse traces: the rpm with heat is not a base. */
const { profile } = (CASE_ENGINES as readonly CaseEngine[])[0] as CaseEngine;

const TAXI = { seconds: 25, rpm: 1000, egt: -170 };
const BOTH = { seconds: 9, rpm: 1800 };
const WARM = { seconds: 8, rpm: 1715, egt: -45 };
const SIDE = { seconds: 9, rpm: 1735, egt: 60 };
const IDLE = { seconds: 8, rpm: 680, egt: -300 };
const read = (stretches: readonly DrawnStretch[], every = 0.5) =>
  readRunUp(drawnTrace(stretches, { every }), profile);

test.each([0.5, 1])("with a line every %s s its drop is held against the run-up's base", (every) => {
  const { heat, tries } = read([TAXI, BOTH, WARM, SIDE, BOTH, { ...SIDE, rpm: 1730 }, BOTH, IDLE], every);
  expect(tries).toHaveLength(2);
  expect(Math.abs((tries[0]?.drop ?? 0) - 65)).toBeLessThan(12);
  expect(Math.abs((tries[1]?.drop ?? 0) - 70)).toBeLessThan(12);
  expect(heat?.drop).toBeGreaterThan(75);
  expect(heat?.drop).toBeLessThan(95);
});

test("with the heat left on, its drop is compared with the warm base", () => {
  const cool = { ...SIDE, rpm: 1650, egt: 15 };
  const { tries } = read([TAXI, BOTH, WARM, cool, WARM, { ...cool, rpm: 1645 }, WARM, BOTH, IDLE]);
  const [first] = tries;
  if (!first) throw new Error("no side was found");
  expect(Math.abs(first.drop - 65)).toBeLessThan(12);
});

test("a side with higher rpm than before is doubtful: no engine does that on one magneto", () => {
  const trace = drawnTrace([TAXI, BOTH, { ...SIDE, rpm: 1840 }, BOTH, SIDE, BOTH, IDLE], { every: 0.5 });
  const marks = (["run-up", "right", "both", "left", "both", "idle"] as const).map((step, i) => ({
    step,
    t: [25, 34, 43, 52, 61, 70][i] as number,
  }));
  const { right, left, notes } = readRunUp(trace, profile, marks);
  expect(right?.drop).toBeLessThan(-25);
  expect(right?.doubt).toContain("the throttle moved");
  expect(left?.doubt).toBeUndefined();
  expect(notes.some(({ sentence }) => sentence.includes("the throttle moved"))).toBe(true);
});
