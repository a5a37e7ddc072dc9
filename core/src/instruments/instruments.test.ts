import type { Source } from "../judgement/judgement";
import { settingForHpa, stationPressureHpa } from "../run-up/density-altitude";
import { judgeAltimeter } from "./judge-altimeter";

// Published: FAA Aeronautical Information Manual, 7-2-3: within 75 ft (from memory). Field 23 ft: −52 to 98.
const tolerance = { feet: 75, source: { kind: "rule", text: "AIM 7-2-3", example: true } satisfies Source };
const judge = (indicatedFt: number) => judgeAltimeter({ indicatedFt, fieldElevationFt: 23, tolerance });

test.each([
  [-53, "ask"],
  [-52, "within limits"],
  [23, "within limits"],
  [98, "within limits"],
  [99, "ask"],
])("%d ft at a field of 23 ft is %s", (indicated, grade) => {
  expect(judge(indicated).grade).toBe(grade);
});

test("limit, margin and source are reported", () => {
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

// FAA Pilot's Handbook of Aeronautical Knowledge, altimeter chapter, from memory: one inch of mercury is about 1,000 ft near sea
// level, so 0.10 inHg is about 100 ft.
test("an altimeter that is out by a slip of the knob says on which setting it would be right", () => {
  const slipped = judgeAltimeter({
    indicatedFt: 123,
    fieldElevationFt: 23,
    settingHpa: 1016.6,
    tolerance,
  });
  expect(slipped.grade).toBe("ask");
  expect(slipped.sentence).toBe(
    "Reads 100 ft high, 25 ft outside tolerance. It is set to 1,017 hPa; at 1,013 hPa it would read correctly.",
  );
  expect(settingForHpa(stationPressureHpa(1016.6, 123), 23)).toBeCloseTo(1016.6 - 0.1 * 33.8639, 0);
  // An error of thousands of feet is not a misset knob.
  expect(
    judgeAltimeter({ indicatedFt: 5023, fieldElevationFt: 23, settingHpa: 1013, tolerance }).sentence,
  ).not.toContain("would be right");
});

test("setting and pressure are each other's inverse, and nonsense is rejected", () => {
  for (const feet of [-900, 0, 23, 5431, 12_000])
    expect(settingForHpa(stationPressureHpa(998, feet), feet)).toBeCloseTo(998, 6);
  expect(() => settingForHpa(20, 0)).toThrow("300 to 1,100 hPa");
  expect(() => settingForHpa(1000, 30_000)).toThrow("20,000 ft");
});
