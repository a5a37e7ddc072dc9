import fc from "fast-check";
import { source } from "../testing/small-aircraft";
import { classifyDrop, type DropLimits, type Dropped } from "./classify-drop";
import { judgeMagnetos } from "./judge-magnetos";

// Limits typical of light aircraft handbooks: maximum drop 125 rpm, difference 50 (common practice).
const LIMITS: DropLimits = { maxDropRpm: 125, maxDifferenceRpm: 50, resolutionRpm: 10 };
const state = (made: Dropped, other?: Dropped, limits = LIMITS) => classifyDrop(made, other, limits).state;

test.each<[string, Dropped, Dropped | undefined, string]>([
  ["inside", { drop: 70 }, { drop: 80 }, "usual"],
  ["at the limit, which is within limits (", { drop: 125 }, { drop: 100 }, "usual"],
  ["over", { drop: 126 }, { drop: 100 }, "over"],
  ["far more than the other", { drop: 120 }, { drop: 60 }, "uneven"],
  ["far less than the other: that one is uneven", { drop: 60 }, { drop: 120 }, "usual"],
  ["as far apart as it may be", { drop: 110 }, { drop: 60 }, "usual"],
  ["nothing", { drop: 0 }, { drop: 70 }, "none"],
  ["a rise", { drop: -20 }, { drop: 70 }, "none"],
  ["not seen in the trace", { drop: 12, seen: false }, { drop: 70 }, "none"],
  ["less than the tachometer shows", { drop: 5 }, { drop: 70 }, "too small"],
  ["beside a side where nothing dropped", { drop: 70 }, { drop: 0, seen: false }, "usual"],
  ["beside a side that stopped", { drop: 70 }, { drop: 1800, feel: "quit" }, "usual"],
  ["beside a side in doubt", { drop: 120 }, { drop: 20, doubt: "too short" }, "usual"],
  ["it stops", { drop: 1800, feel: "quit" }, { drop: 70 }, "quit"],
])("%s", (_name, made, other, expected) => {
  expect(state(made, other)).toBe(expected);
});

test("without a greatest drop on file nothing is claimed of a drop, and a missing one is a fault all the same", () => {
  const limits = { resolutionRpm: 10 };
  expect(state({ drop: 300 }, { drop: 70 }, limits)).toBe("no limit");
  expect(state({ drop: 0 }, { drop: 70 }, limits)).toBe("none");
});

test("the judge of typed numbers says what the classification says, for any numbers", () => {
  const rpm = fc.integer({ min: 0, max: 1900 });
  const grade = {
    usual: "within limits",
    uneven: "within limits",
    over: "stop",
    none: "stop",
    "too small": "ask",
    quit: "stop",
  };
  fc.assert(
    fc.property(rpm, rpm, (right, left) => {
      const { judgements } = judgeMagnetos({
        baseRpm: 1800,
        right: { rpm: right },
        left: { rpm: left },
        profile: { ...LIMITS, tachometerMaxRpm: 3000, source },
      });
      for (const [side, one, other] of [
        ["right", right, left],
        ["left", left, right],
      ] as const) {
        const of = (value: number): Dropped => ({
          drop: 1800 - value,
          ...(value === 0 && { feel: "quit" as const }),
        });
        const made = state(of(one), of(other)) as keyof typeof grade;
        expect(judgements.find((j) => j.id === `magneto.${side}`)?.grade).toBe(grade[made]);
      }
      // One cause per side, and the difference is never a cause of its own.
      const causes = new Set(judgements.map((j) => j.cause));
      expect([...causes].every((cause) => cause === "magneto.right" || cause === "magneto.left")).toBe(true);
    }),
  );
});

test("a rough engine is asked about though no limit is on file", () => {
  const { judgements } = judgeMagnetos({
    baseRpm: 1800,
    right: { rpm: 1720, feel: "rough" },
    profile: { resolutionRpm: 10, tachometerMaxRpm: 3000, source },
  });
  expect(judgements).toEqual([expect.objectContaining({ grade: "ask", cause: "magneto.right" })]);
});
