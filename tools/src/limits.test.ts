import { excesses, type LimitException, limitFaults } from "./limits";

const report = (category: string, message: string, path = "core/src/a.ts") => ({
  category,
  message,
  location: { path },
});
const FOUND = excesses([
  report("lint/complexity/noExcessiveCognitiveComplexity", "Excessive complexity of 36 detected (max: 20)."),
  report(
    "lint/complexity/noExcessiveLinesPerFunction",
    "This function has too many lines (107). Maximum allowed is 80.",
  ),
  report("suppressions/unused", "Suppression comment has no effect."),
]);
const exception = (more: Partial<LimitException> = {}): LimitException => ({
  file: "core/src/a.ts",
  limit: "complexity",
  times: 1,
  most: 36,
  why: "an example",
  ...more,
});
const LONG = exception({ limit: "lines of a function", most: 107 });

test("reads the figures of the linter's report", () => {
  expect(FOUND.map(({ limit, figure }) => [limit, figure])).toEqual([
    ["complexity", 36],
    ["lines of a function", 107],
  ]);
  expect(() => excesses([report("lint/nursery/noExcessiveLinesPerFile", "Too long.")])).toThrow("No figure");
});

test("what exceeds a limit needs an exception, and an exception only shrinks", () => {
  expect(limitFaults(FOUND, [exception(), LONG])).toEqual([]);
  expect(limitFaults(FOUND, [exception()])).toEqual([
    "core/src/a.ts: lines of a function 107 exceeds the limit. Split it.",
  ]);
  expect(limitFaults(FOUND, [exception({ most: 30 }), LONG])[0]).toContain("grown");
  expect(limitFaults(FOUND, [exception({ most: 40 }), LONG])[0]).toContain("Lower its exception");
  expect(limitFaults(FOUND, [exception({ times: 2 }), LONG])[0]).toContain("Lower its exception");
  expect(limitFaults(FOUND, [exception(), LONG, exception({ file: "b.ts" })])).toEqual([
    "b.ts: complexity is within the limit. Remove its exception.",
  ]);
});
