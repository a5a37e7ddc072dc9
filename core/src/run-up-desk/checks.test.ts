import { CASE_ENGINES } from "../testing/run-up-cases";
import { dropText, typedOut, type WalkEngine } from "./index";

const [one] = CASE_ENGINES;
if (!one) throw new Error("no engine");
const engine = {
  profile: one.profile,
  limits: { maxDropRpm: 125, maxDifferenceRpm: 50, resolutionRpm: 10 },
} as WalkEngine;

test("a drop is read off with one sign, whichever way the rpm went", () => {
  expect(dropText(62.6)).toBe("−63");
  expect(dropText(-30.2)).toBe("+30");
  expect(dropText(0)).toBe("−0");
  expect(dropText(1234)).toBe("−1,234");
});

// The example type's own limits: 125 down and 50 apart, ends inside.
test.each([
  [1800, 1740, 1735, []],
  [1800, 1675, 1725, []],
  [1800, 1674, 1724, ["right"]],
  [1800, 1700, 1760, ["apart"]],
  [1800, 1660, 1790, ["right", "apart"]],
  [1800, 1795, 1760, ["right"]],
  [1800, 0, 1740, ["right"]],
] as const)("typed %s, %s and %s are out by their names: %j", (base, right, left, out) => {
  expect(typedOut({ base, right, left }, engine)).toEqual(out);
});

test("a side that was not typed is not out", () => {
  expect(typedOut({ base: 1800, right: 1740 }, engine)).toEqual([]);
});
