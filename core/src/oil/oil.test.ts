import fc from "fast-check";
import { judgeOil, type OilProfile } from "./judge-oil";

const profile: OilProfile = {
  minimumQt: 6,
  longFlightMinimumQt: 7,
  maximumQt: 8,
  containerQt: 1,
  source: { kind: "handbook", text: "servicing", example: true },
};
const judge = (levelQt: number, longFlight = false, given: OilProfile | undefined = profile) =>
  judgeOil({ levelQt, profile: given, longFlight });

// Common practice: a container is added only if it fits whole below the maximum.
test.each([
  [5.2, "stop", 1],
  [4.9, "stop", 2],
  [6, "within limits", 0],
  [6.9, "within limits", 0],
  [8, "within limits", 0],
  [8.1, "ask", 0],
])("%d quarts of 6 to 8 is %s, add %d", (level, grade, add) => {
  const { judgement, addContainers } = judge(level);
  expect(judgement.grade).toBe(grade);
  expect(addContainers).toBe(add);
});

test("the amount that would fit is shown, and that none is needed", () => {
  expect(judge(6.9).judgement.action).toContain("1 container of 1.0 US qt would fit");
  expect(judge(7.1).judgement.action).toContain("Add no oil");
  expect(judge(7).judgement.action).toContain("1 container");
});

test("a long flight has its higher minimum", () => {
  expect(judge(6.5).judgement.grade).toBe("within limits");
  expect(judge(6.5, true)).toMatchObject({
    addContainers: 1,
    judgement: { grade: "stop", limit: "7.0 to 8.0 US qt, long flight" },
  });
});

test("below the minimum without room for a whole container, it asks", () => {
  const narrow = { ...profile, minimumQt: 7.5, maximumQt: 8 };
  expect(judge(7.2, false, narrow)).toMatchObject({
    addContainers: 0,
    judgement: { grade: "stop", action: expect.stringContaining("Ask a mechanic") },
  });
});

test("no limit on file, no judgement", () => {
  const { minimumQt: _none, ...without } = profile;
  expect(judge(6, false, without).judgement.grade).toBe("unjudged");
  expect(judgeOil({ levelQt: 6, profile: undefined, longFlight: false }).judgement.grade).toBe("unjudged");
});

test("a level below zero, or not a number, is rejected", () => {
  expect(() => judge(-0.1)).toThrow("negative");
  expect(() => judge(Number.NaN)).toThrow("not a number");
  expect(() => judge(6, false, { ...profile, containerQt: 0 })).toThrow("container");
});

test("additions never exceed the maximum and always reach the minimum", () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 12, noNaN: true }),
      fc.constantFrom(0.5, 0.946, 1),
      (level, containerQt) => {
        const { addContainers } = judge(level, false, { ...profile, containerQt });
        const after = level + addContainers * containerQt;
        if (addContainers > 0) {
          expect(after).toBeLessThanOrEqual(8 + 1e-6);
          expect(after).toBeGreaterThanOrEqual(6 - 1e-6);
        }
      },
    ),
  );
});
