import { type DrawnStretch, drawnTrace } from "../../testing/drawn-trace";
import { CASE_ENGINES, type CaseEngine } from "../../testing/run-up-cases";
import { traceOf } from "../../trace/trace";
import { readRunUp } from "../index";
import { findPropellerCycles } from "./find-propeller-cycles";

/** Effects of pulling the propeller back: rpm falls, manifold pressure rises, EGT stays (common practice). */
const [FOUR, SIX] = CASE_ENGINES as readonly [CaseEngine, CaseEngine];
const TAXI = { seconds: 25, rpm: 1000, egt: -170 };
const BOTH = { seconds: 9, rpm: 1800 };
const SIDE = { seconds: 6, rpm: 1720, egt: 60 };
const IDLE = { seconds: 8, rpm: 680, egt: -300 };
const PULL = { seconds: 1.2, rpm: 1420, egt: 5, map: 19 };
const BEFORE = [TAXI, BOTH, SIDE, BOTH, SIDE, BOTH];

const cycles = (
  stretches: readonly DrawnStretch[],
  { every = 1, map = true, engine = SIX }: { every?: number; map?: boolean; engine?: CaseEngine } = {},
) => findPropellerCycles(drawnTrace(stretches, { every, map }), engine.profile);

test.each([1, 0.5, 0.2])("a cycle too short to leave a level is found, %d s between lines", (every) => {
  const found = cycles([...BEFORE, PULL, BOTH, PULL, BOTH, IDLE], { every });
  expect(found).toHaveLength(2);
  expect(Math.abs((found[0]?.from ?? 0) - 64)).toBeLessThan(every + 0.3);
  const { steps, propeller } = readRunUp(
    drawnTrace([...BEFORE, PULL, BOTH, PULL, BOTH, IDLE], { every, map: true }),
    SIX.profile,
  );
  expect(steps.map(({ step }) => step).slice(-3)).toEqual(["both", "propeller", "idle"]);
  expect(propeller?.drop).toBeGreaterThan(150);
});

test("without manifold pressure an unchanged EGT tells it from a magneto", () => {
  expect(cycles([...BEFORE, PULL, BOTH, IDLE], { map: false })).toHaveLength(1);
  // One magneto: EGT rises. Carburettor heat or a cut: it falls.
  expect(cycles([...BEFORE, { ...PULL, seconds: 3, egt: 90 }, BOTH, IDLE], { map: false })).toEqual([]);
  expect(cycles([...BEFORE, { ...PULL, egt: -700 }, BOTH, IDLE], { map: false })).toEqual([]);
});

test("what is no cycle is not taken for one", () => {
  // The throttle lowers manifold pressure.
  expect(cycles([...BEFORE, { ...PULL, map: 13 }, BOTH, IDLE])).toEqual([]);
  expect(cycles([...BEFORE, { ...PULL, egt: -700 }, BOTH, IDLE])).toEqual([]);
  expect(cycles([...BEFORE, IDLE])).toEqual([]);
  expect(cycles([...BEFORE, PULL, BOTH, IDLE], { engine: FOUR })).toEqual([]);
  // Held for good, or never back: not short.
  expect(cycles([...BEFORE, { ...PULL, seconds: 14 }, BOTH, IDLE])).toEqual([]);
  expect(cycles([...BEFORE, PULL])).toEqual([]);
});

test("with rpm alone, a cycle looks like a magneto and is not named", () => {
  const { t, channels } = drawnTrace([...BEFORE, PULL, BOTH, IDLE], { every: 0.5 });
  const lines = Array.from(t, (at, i) => ({ t: at, rpm: channels.rpm?.[i] ?? 0 }));
  expect(findPropellerCycles(traceOf(lines as Parameters<typeof traceOf>[0]), SIX.profile)).toEqual([]);
});
