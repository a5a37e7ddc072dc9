import type { EngineFeel } from "./classify-drop";
import { judgeCarburettorHeat } from "./judge-carburettor-heat";
import { judgeMagnetos, type MagnetoProfile } from "./judge-magnetos";

// Common practice: a maximum drop of 125 and difference of 50 are typical; no drop at all is a stop.
const profile: MagnetoProfile = {
  maxDropRpm: 125,
  maxDifferenceRpm: 50,
  resolutionRpm: 10,
  tachometerMaxRpm: 3500,
  source: { kind: "handbook", text: "run-up", example: true },
};
const check = (
  right: number,
  left: number,
  feel: { right?: EngineFeel; left?: EngineFeel } = {},
  given = profile,
) =>
  judgeMagnetos({
    baseRpm: 1800,
    right: { rpm: right, ...(feel.right && { feel: feel.right }) },
    left: { rpm: left, ...(feel.left && { feel: feel.left }) },
    profile: given,
  });
const grades = (...args: Parameters<typeof check>) =>
  Object.fromEntries(check(...args).judgements.map((j) => [j.id, j.grade]));

test("two small drops close together are within limits, with their margins", () => {
  const result = check(1738, 1720);
  expect(result).toMatchObject({ rightDropRpm: 62, leftDropRpm: 80, differenceRpm: 18 });
  expect(result.judgements.map((j) => [j.grade, j.margin?.value])).toEqual([
    ["within limits", 63],
    ["within limits", 45],
    ["within limits", 32],
  ]);
});

test("exactly the limit is inside, one more is not", () => {
  expect(grades(1675, 1700)).toMatchObject({ "magneto.right": "within limits" });
  expect(grades(1674, 1700)).toMatchObject({ "magneto.right": "stop" });
  expect(grades(1750, 1700)).toMatchObject({ "magneto.difference": "within limits" });
  expect(grades(1751, 1700)).toMatchObject({ "magneto.difference": "stop" });
});

test("both drops may be legal and the difference not", () => {
  expect(grades(1780, 1700)).toEqual({
    "magneto.right": "within limits",
    "magneto.left": "within limits",
    "magneto.difference": "stop",
  });
});

test("a magneto without any drop is a stop, and keeps people off the propeller", () => {
  const [right] = check(1800, 1740).judgements;
  expect(right).toMatchObject({ grade: "stop", caution: expect.stringContaining("propeller") });
  expect(grades(1810, 1740)["magneto.right"]).toBe("stop");
});

test("no drop is a stop even without a limit on file", () => {
  const { maxDropRpm: _a, maxDifferenceRpm: _b, ...bare } = profile;
  expect(grades(1800, 1740, {}, bare)).toEqual({
    "magneto.right": "stop",
    "magneto.left": "unjudged",
    "magneto.difference": "unjudged",
  });
});

test("a drop that the tachometer cannot show is not taken for a drop", () => {
  expect(grades(1795, 1740)["magneto.right"]).toBe("ask");
  expect(grades(1790, 1750)["magneto.right"]).toBe("within limits");
});

test("an engine that quits on one has a dead magneto: throttle to idle before switching back", () => {
  const result = check(1730, 0, { left: "quit" });
  expect(result.judgements.find((j) => j.id === "magneto.left")).toMatchObject({
    grade: "stop",
    action: expect.stringContaining("Throttle to idle"),
  });
  expect(result.differenceRpm).toBeUndefined();
});

test("big and rough is a plug, big and smooth is timing or mixture", () => {
  expect(check(1600, 1730, { right: "rough" }).judgements[0]?.sentence).toContain("fouled plug");
  expect(check(1600, 1730, { right: "smooth" }).judgements[0]?.sentence).toContain("timing or mixture");
  // If EGT has identified the plug, no cause is guessed from the drop.
  const known = judgeMagnetos({
    baseRpm: 1800,
    right: { rpm: 1600, feel: "smooth" },
    profile,
    explained: true,
  });
  expect(known.judgements[0]?.sentence).toBe("200 rpm drop, 75 over the limit.");
  expect(grades(1730, 1730, { right: "rough" })["magneto.right"]).toBe("ask");
});

test("one side alone is judged alone", () => {
  const result = judgeMagnetos({ baseRpm: 1800, right: { rpm: 1730 }, profile });
  expect(result.judgements).toHaveLength(1);
  expect(result.differenceRpm).toBeUndefined();
});

test.each([
  [9000, 1700, "above the tachometer's 3,500"],
  [1700, -5, "negative"],
  [Number.NaN, 1700, "not a number"],
])("%d and %d are not readings", (right, left, reason) => {
  expect(() => check(right, left)).toThrow(reason);
});

// Common practice: the drop must be seen; a rise above the starting rpm afterwards means there was ice.
test.each([
  [1800, 1700, undefined, "within limits"],
  [1800, 1800, undefined, "ask"],
  [1800, 1820, undefined, "ask"],
  [1800, 1700, 1840, "note"],
  [1800, 1700, 1800, "within limits"],
])("carburettor heat from %d to %d and back to %s is %s", (base, hot, again, grade) => {
  expect(judgeCarburettorHeat(base, hot, again).grade).toBe(grade);
});
