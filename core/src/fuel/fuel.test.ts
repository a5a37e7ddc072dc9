import fc from "fast-check";
import type { Source } from "../judgement/judgement";
import { type RuleSet, reserveFor } from "../rules/rule-set";
import { type FuelProfile, judgeFuel } from "./judge-fuel";
import { enduranceMin, usableFuelL } from "./margin/endurance";
import { type DipCalibration, volumeFromDip } from "./tanks/volume-from-dip";

const source: Source = { kind: "handbook", text: "tank card", example: true };
const calibration: DipCalibration = {
  source,
  points: [
    [0, 2],
    [3, 12],
    [6, 26],
    [10, 45],
    [14, 64],
    [18, 80],
    [22, 92],
    [25, 98],
  ].map(([dipCm = 0, litres = 0]) => ({ dipCm, litres })),
};

describe("litres from a dip", () => {
  test("equal the calibration at each of its points", () => {
    for (const { dipCm, litres } of calibration.points)
      expect(volumeFromDip(calibration, dipCm)).toBeCloseTo(litres, 9);
  });

  // Published: Fritsch & Carlson, SIAM J. Numer. Anal. 17 (1980): never outside two neighbouring points, so never falling.
  test("stay between neighbouring points and never fall, for any rising calibration", () => {
    const rising = fc
      .array(
        fc.record({
          dip: fc.double({ min: 0.1, max: 8, noNaN: true }),
          volume: fc.double({ min: 0, max: 60, noNaN: true }),
        }),
        { minLength: 2, maxLength: 9 },
      )
      .map((steps) => {
        const points = [{ dipCm: 0, litres: 0 }];
        for (const { dip, volume } of steps) {
          const before = points.at(-1) ?? { dipCm: 0, litres: 0 };
          points.push({ dipCm: before.dipCm + dip, litres: before.litres + volume });
        }
        return { source, points };
      });
    fc.assert(
      fc.property(
        rising,
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 2, maxLength: 20 }),
        (cal, fractions) => {
          const first = cal.points[0]?.dipCm ?? 0;
          const last = cal.points.at(-1)?.dipCm ?? 0;
          const dips = fractions.map((f) => Math.min(last, first + f * (last - first))).sort((a, b) => a - b);
          const volumes = dips.map((dip) => volumeFromDip(cal, dip));
          volumes.forEach((volume, i) => {
            const dip = dips[i] ?? 0;
            const k = Math.max(
              1,
              cal.points.findIndex((p) => p.dipCm >= dip),
            );
            expect(volume).toBeGreaterThanOrEqual((cal.points[k - 1]?.litres ?? 0) - 1e-6);
            expect(volume).toBeLessThanOrEqual((cal.points[k]?.litres ?? 0) + 1e-6);
            if (i > 0) expect(volume).toBeGreaterThanOrEqual((volumes[i - 1] ?? 0) - 1e-6);
          });
        },
      ),
    );
  });

  test("of a straight calibration are on the line", () => {
    const line = {
      source,
      points: [
        { dipCm: 0, litres: 0 },
        { dipCm: 4, litres: 20 },
        { dipCm: 10, litres: 50 },
      ],
    };
    for (const dip of [0.5, 3.9, 4, 7.2]) expect(volumeFromDip(line, dip)).toBeCloseTo(dip * 5, 9);
  });

  test.each([
    [25.1, "The dipstick ends at 25 cm"],
    [-1, "cannot be negative"],
    [Number.NaN, "not a number"],
  ])("a dip of %d is rejected", (dip, reason) => {
    expect(() => volumeFromDip(calibration, dip)).toThrow(reason);
  });

  test("a dipstick that starts above the bottom cannot read less", () => {
    expect(() =>
      volumeFromDip(
        {
          source,
          points: [
            { dipCm: 4, litres: 10 },
            { dipCm: 8, litres: 20 },
          ],
        },
        3,
      ),
    ).toThrow("Treat the tank as empty");
  });

  test("a calibration that falls or stays level is rejected", () => {
    const bad = (points: DipCalibration["points"]) => () => volumeFromDip({ source, points }, 1);
    expect(bad([{ dipCm: 0, litres: 0 }])).toThrow("at least two");
    expect(
      bad([
        { dipCm: 0, litres: 5 },
        { dipCm: 2, litres: 4 },
      ]),
    ).toThrow("cannot decrease");
    expect(
      bad([
        { dipCm: 2, litres: 0 },
        { dipCm: 2, litres: 4 },
      ]),
    ).toThrow("must increase");
  });
});

describe("endurance", () => {
  test("is usable fuel less taxi, divided by the burn", () => {
    // Arithmetic: (120 − 4) / 34 h = 3.4118 h = 204.7 min.
    expect(enduranceMin({ usableL: 120, taxiL: 4, burnLPerH: 34 })).toBeCloseTo(204.7, 1);
    expect(enduranceMin({ usableL: 3, taxiL: 4, burnLPerH: 34 })).toBe(0);
    expect(usableFuelL(3, 5)).toBe(0);
  });

  test("of an engine without burn, or with negative fuel, is rejected", () => {
    expect(() => enduranceMin({ usableL: 10, taxiL: 0, burnLPerH: 0 })).toThrow("more than zero");
    expect(() => enduranceMin({ usableL: -1, taxiL: 0, burnLPerH: 30 })).toThrow("negative");
  });
});

const profile: FuelProfile = {
  tanks: ["left", "right"].map((id) => ({
    id,
    name: `${id} tank`,
    calibration,
    unusableL: 5,
    capacityL: 98,
  })),
  taxiL: 4,
  burnLPerH: { value: 34, source },
  imbalanceL: { value: 30, source },
};
const rule: Source = { kind: "rule", text: "14 CFR 91.151", example: true };
const dips = (left: number, right: number) => [
  { tankId: "left", by: "dip" as const, value: left },
  { tankId: "right", by: "dip" as const, value: right },
];
const judge = (left: number, right: number, plannedFlightMin: number | undefined = 60, reserveMin = 30) =>
  judgeFuel({
    profile,
    readings: dips(left, right),
    reserve: { minutes: reserveMin, source: rule },
    plannedFlightMin,
  });

describe("fuel for this flight", () => {
  // Published: 14 CFR 91.151: 30 minutes by day, 45 at night; 91.167: 45 minutes under instrument flight rules (from memory).
  const rules: RuleSet = {
    format: "cravix.rule-set/1",
    id: "x",
    name: "x",
    reserves: [
      { when: "day", minutes: 30, source: rule },
      { when: "night", minutes: 45, source: rule },
      { when: "instrument", minutes: 45, source: rule },
    ],
  };
  test("keeps 30 minutes by day and 45 at night or on instruments", () => {
    expect(reserveFor(rules, [])?.minutes).toBe(30);
    expect(reserveFor(rules, ["night"])?.minutes).toBe(45);
    expect(reserveFor(rules, ["instrument", "frost"])?.minutes).toBe(45);
    expect(reserveFor(undefined, [])).toBeUndefined();
  });

  test("is enough with its margin, and says the latest landing time", () => {
    const result = judge(14, 14);
    expect(result.usableL).toBeCloseTo(118, 9);
    expect(result.enduranceMin).toBeCloseTo((114 / 34) * 60, 9);
    expect(result.onGroundWithinMin).toBeCloseTo((114 / 34) * 60 - 30, 9);
    const endurance = result.judgements.find((j) => j.id === "fuel.endurance");
    expect(endurance).toMatchObject({
      grade: "within limits",
      source: rule,
      limit: "1 h 00 min flight + 30 min reserve",
    });
    expect(endurance?.margin?.value).toBeCloseTo((114 / 34) * 60 - 90, 9);
  });

  test("one minute short is a stop that says how much to add", () => {
    const { enduranceMin: whole = 0 } = judge(14, 14);
    const exact = judge(14, 14, whole - 30);
    expect(exact.judgements.at(-1)?.grade).toBe("within limits");
    const short = judge(14, 14, whole - 29).judgements.at(-1);
    expect(short).toMatchObject({ grade: "stop", action: expect.stringContaining("at least 1 L") });
    expect(short?.caution).toBeDefined();
  });

  test("at night includes the longer reserve", () => {
    expect(
      (judge(14, 14).onGroundWithinMin ?? 0) - (judge(14, 14, 60, 45).onGroundWithinMin ?? 0),
    ).toBeCloseTo(15, 9);
  });

  test("an imbalance above the type's limit is asked about", () => {
    expect(judge(22, 10).judgements.find((j) => j.id === "fuel.imbalance")).toMatchObject({
      grade: "ask",
      margin: { value: 30 - 47 },
    });
    expect(judge(14, 12).judgements.find((j) => j.id === "fuel.imbalance")?.grade).toBe("within limits");
  });

  test("one tank not dipped: no endurance is invented", () => {
    const result = judgeFuel({
      profile,
      readings: dips(14, 14).slice(0, 1),
      reserve: { minutes: 30, source: rule },
      plannedFlightMin: 60,
    });
    expect(result.volumesL).toEqual({ left: 64 });
    expect(result.enduranceMin).toBeUndefined();
    expect(result.judgements).toEqual([]);
  });

  test.each([
    [
      "calibration",
      { ...profile, tanks: profile.tanks.map(({ calibration: _gone, ...tank }) => tank) },
      "No dipstick calibration on file",
    ],
    ["burn", { ...profile, burnLPerH: undefined } as unknown as FuelProfile, "No fuel consumption on file"],
  ])("a missing %s is shown, not guessed", (_what, given, sentence) => {
    const result = judgeFuel({
      profile: given,
      readings: dips(14, 14),
      reserve: { minutes: 30, source: rule },
      plannedFlightMin: 60,
    });
    const last = result.judgements.at(-1);
    expect(last).toMatchObject({ grade: "unjudged", sentence: expect.stringContaining(sentence) });
    expect(result.onGroundWithinMin).toBeUndefined();
  });

  test("without a planned time or a reserve rule it is not assessed", () => {
    expect(
      judgeFuel({ profile, readings: dips(14, 14), reserve: undefined, plannedFlightMin: 60 }).judgements.at(
        -1,
      )?.grade,
    ).toBe("unjudged");
    expect(
      judgeFuel({
        profile,
        readings: dips(14, 14),
        reserve: { minutes: 30, source: rule },
        plannedFlightMin: undefined,
      }).judgements.at(-1)?.grade,
    ).toBe("unjudged");
  });

  test("a dip above the dipstick is reported at its tank", () => {
    expect(judge(14, 40).judgements[0]).toMatchObject({
      id: "fuel.right",
      grade: "unjudged",
      sentence: expect.stringContaining("The dipstick ends"),
    });
  });
});
