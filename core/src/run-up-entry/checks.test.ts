import { simulateRunUp, usualPlan } from "../engine-model/index";
import { type MagnetoSideOrder, readRunUp, traceOf } from "../run-up/index";
import { CASE_ENGINES, runUpCase } from "../testing/run-up-cases";
import {
  checksOf,
  dropText,
  manualValuesFromTrace,
  type RunUpEngine,
  unreadSides,
  valuesOutsideLimits,
} from "./index";

const [one] = CASE_ENGINES;
if (!one) throw new Error("no engine");
const engine = {
  profile: one.profile,
  limits: { maxDropRpm: 125, maxDifferenceRpm: 50, resolutionRpm: 10 },
} as RunUpEngine;

test("a drop is read off with one sign, whichever way the rpm went", () => {
  expect(dropText(62.6)).toBe("−63");
  expect(dropText(-30.2)).toBe("+30");
  expect(dropText(0)).toBe("−0");
  expect(dropText(1234)).toBe("−1,234");
});

// The example type's own limits: 125 drop and 50 difference, inclusive.
test.each([
  [1800, 1740, 1735, []],
  [1800, 1675, 1725, []],
  [1800, 1674, 1724, ["right"]],
  [1800, 1700, 1760, ["apart"]],
  [1800, 1660, 1790, ["right", "apart"]],
  [1800, 1795, 1760, ["right"]],
  [1800, 0, 1740, ["right"]],
] as const)("typed %s, %s and %s are out by their names: %j", (base, right, left, out) => {
  expect(valuesOutsideLimits({ base, right, left }, engine)).toEqual(out);
});

test("a side that was not typed is not out", () => {
  expect(valuesOutsideLimits({ base: 1800, right: 1740 }, engine)).toEqual([]);
});

describe("what a file without prompts leaves to be typed", () => {
  const read = (fault: "none" | "hot magneto", sides?: MagnetoSideOrder) => {
    const options = { ...runUpCase("none", 2, one).options, fault: { kind: fault, side: "left" } as const };
    const { samples } = simulateRunUp(options, usualPlan(options));
    return readRunUp(traceOf(samples), one.profile, undefined, sides);
  };
  const words = { right: "right", left: "left" };

  test("nothing where it was told which side came first: in the order of the page, whatever the order of the trace", () => {
    const reading = read("none", { first: "left" });
    const [base, first, back, other, backAgain] = manualValuesFromTrace(reading, "right");
    expect(base).toBe(Math.round(reading.right?.base ?? 0));
    // The page asks for the right side first; it was second in the trace.
    expect((base ?? 0) - (first ?? 0)).toBeCloseTo(reading.tries[1]?.drop ?? 0, -0.5);
    expect((base ?? 0) - (other ?? 0)).toBeCloseTo(reading.tries[0]?.drop ?? 0, -0.5);
    for (const rpm of [back, backAgain]) expect(Math.abs((rpm ?? 0) - (base ?? 0))).toBeLessThan(15);
    expect(unreadSides(reading, words)).toBeUndefined();
  });

  test("both sides where no one said which is which, and the one that does not show", () => {
    expect(manualValuesFromTrace(read("none"), "right").slice(1)).toEqual([
      undefined,
      undefined,
      undefined,
      undefined,
    ]);
    const hot = read("hot magneto", { first: "left" });
    const [base, first, , other] = manualValuesFromTrace(hot, "right");
    expect(first).toBeUndefined();
    expect((base ?? 0) - (other ?? 0)).toBeGreaterThan(20);
    expect(unreadSides(hot, words)).toBe("right");
    expect(unreadSides({ prompted: false, tries: [] }, words)).toBe("the magnetos");
    // An idle check asks for neither side; one side alone tells nothing about the other.
    expect(unreadSides({ prompted: true, tries: [] }, words)).toBeUndefined();
    expect(unreadSides({ ...hot, prompted: true }, words)).toBe("right");
  });
});

test("a side in doubt is not out of its limit, and is laid beside no other: it is done again", () => {
  const options = { ...runUpCase("none", 2, one).options, fault: { kind: "none" } as const };
  const reading = readRunUp(
    traceOf(simulateRunUp(options, usualPlan(options)).samples),
    one.profile,
    undefined,
    {
      first: "right",
    },
  );
  const far = { ...reading.right, drop: 300 } as NonNullable<typeof reading.right>;
  const ids = (right: typeof far) =>
    checksOf({ ...reading, right }, engine).flatMap(({ id, bad }) => (bad ? [id] : []));
  expect(ids(far)).toEqual(["right", "apart"]);
  expect(ids({ ...far, doubt: "It hardly dropped." })).toEqual([]);
});
