import { judgeAltimeter, type Source } from "../index";

// Published: FAA Aeronautical Information Manual, 7-2-3: within 75 ft (from memory). Field 23 ft: −52 to 98.
const tolerance = { feet: 75, source: { kind: "rule", text: "AIM 7-2-3", example: true } satisfies Source };
const judge = (indicatedFt: number) => judgeAltimeter({ indicatedFt, fieldElevationFt: 23, tolerance });

test.each([
  [-53, "ask"],
  [-52, "sound"],
  [23, "sound"],
  [98, "sound"],
  [99, "ask"],
])("%d ft at a field of 23 ft is %s", (indicated, grade) => {
  expect(judge(indicated).grade).toBe(grade);
});

test("limit, margin and source are told", () => {
  expect(judge(60)).toMatchObject({
    limit: "−52 to 98 ft",
    margin: { value: 38, unit: "ft" },
    source: tolerance.source,
  });
});

test("an unknown elevation or tolerance is not guessed", () => {
  expect(judgeAltimeter({ indicatedFt: 30, fieldElevationFt: undefined, tolerance }).grade).toBe("unjudged");
  expect(judgeAltimeter({ indicatedFt: 30, fieldElevationFt: 23, tolerance: undefined }).grade).toBe(
    "unjudged",
  );
  expect(() => judge(Number.POSITIVE_INFINITY)).toThrow("not a number");
});
