import fc from "fast-check";
import { expectedFuel, type FuelEntry, fuelByLog } from "./log/fuel-log";
import { estimateFuel, type FuelSource } from "./log/fuel-sources";
import { likelyCauses } from "./log/likely-causes";
import { dipCorrectedForTilt } from "./tanks/dip-corrected-for-tilt";
import { litresByReading, type Tank } from "./tanks/tank";

const says = (kind: FuelSource["kind"], value: number, sigma: number): FuelSource => ({
  kind,
  litres: { value, sigma },
});

describe("dipstick, gauge and log together", () => {
  // Worked example, by hand: weights 1/σ² are 0.25, 0.25 and 0.01; mean (25 + 26 + 1.3) / 0.51 = 102.549; σ = 1/√0.51 = 1.4003;
  // 95 %: ± 1.96 · 1.4003 = 2.7446. Inverse-variance weighting; JCGM 100:2008.
  test("are weighted by their uncertainty", () => {
    const heard = estimateFuel(
      [says("dip", 100, 2), says("log", 104, 2), says("gauge", 130, 10)].map((w) =>
        w.kind === "gauge" ? says("gauge", 120, 10) : w,
      ),
    );
    // With the gauge at 120: (25 + 26 + 1.2) / 0.51 = 102.353.
    expect(heard.litres.value).toBeCloseTo(102.353, 3);
    expect(heard.litres.sigma).toBeCloseTo(1.4003, 4);
    expect([heard.lowL, heard.highL]).toEqual([expect.closeTo(99.608, 2), expect.closeTo(105.098, 2)]);
    expect(heard).toMatchObject({ agree: true, used: ["dip", "log", "gauge"] });
    // Dipstick against the others: rest = (26 + 1.2) / 0.26 = 104.615, σ = 1/√0.26 = 1.961; (100 − 104.615) / √(4 + 3.846) =
    // −1.648.
    expect(heard.residuals.dip).toBeCloseTo(-1.648, 3);
  });

  test("name and leave out the one that disagrees with the two others", () => {
    const heard = estimateFuel([says("dip", 100, 2), says("log", 60, 4), says("gauge", 96, 8)]);
    expect(heard).toMatchObject({ agree: false, odd: "log", used: ["dip", "gauge"] });
    expect(heard.litres.value).toBeGreaterThan(95);
  });

  test("two that disagree: the lower counts", () => {
    const heard = estimateFuel([says("dip", 100, 2), says("log", 60, 4)]);
    expect(heard.odd).toBeUndefined();
    expect(heard).toMatchObject({ agree: false, litres: { value: 60 }, used: ["log"] });
    expect(heard.highL).toBeGreaterThan(100);
  });

  test("three that all disagree: the lowest counts", () => {
    expect(estimateFuel([says("dip", 100, 2), says("log", 60, 2), says("gauge", 20, 2)])).toMatchObject({
      agree: false,
      litres: { value: 20 },
    });
  });

  test("never give more than the highest or less than the lowest source used", () => {
    const sigma = fc.double({ min: 0.5, max: 12, noNaN: true });
    const value = fc.double({ min: 0, max: 100, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(value, sigma), { minLength: 1, maxLength: 3 }), (all) => {
        const kinds = ["dip", "gauge", "log"] as const;
        const sources = all.map(([litres, s], i) => says(kinds[i] ?? "dip", litres, s));
        const heard = estimateFuel(sources);
        const used = sources.filter((w) => heard.used.includes(w.kind)).map((w) => w.litres);
        expect(heard.litres.value).toBeGreaterThanOrEqual(Math.min(...used.map((u) => u.value)) - 1e-9);
        expect(heard.litres.value).toBeLessThanOrEqual(Math.max(...used.map((u) => u.value)) + 1e-9);
        expect(heard.litres.sigma).toBeLessThanOrEqual(Math.min(...used.map((u) => u.sigma)) + 1e-9);
        expect(heard.lowL).toBeLessThanOrEqual(heard.highL);
      }),
    );
  });

  test("without a source, or with zero uncertainty, are rejected", () => {
    expect(() => estimateFuel([])).toThrow("No fuel quantity");
    expect(() => estimateFuel([says("dip", 10, 0)])).toThrow("needs an uncertainty above zero");
  });
});

const source = { kind: "handbook", text: "card", example: true } as const;
const tank: Tank = {
  id: "left",
  name: "left tank",
  capacityL: 100,
  unusableL: 4,
  calibration: { source, points: [0, 5, 10, 20].map((dipCm) => ({ dipCm, litres: dipCm * 5 })) },
  marks: [{ name: "tab", litres: 60 }],
  sight: {
    unit: "%",
    points: [
      { at: 0, litres: 0 },
      { at: 100, litres: 100 },
    ],
    source,
  },
  gauge: {
    unit: "US gal",
    points: [
      { at: 0, litres: 2 },
      { at: 26, litres: 100 },
    ],
    source,
  },
  geometry: { spanCm: 100, chordCm: 50, depthCm: 20, holeRightCm: -40, holeForwardCm: 0 },
};
const read = (
  by: "dip" | "mark" | "sight" | "gauge",
  value: number,
  tilt?: { rightDownDeg: number; noseUpDeg: number },
) => litresByReading(tank, { tankId: "left", by, value }, tilt);

describe("one measurement of one tank", () => {
  test("converts dipstick, tab, sight glass and gauge to litres, each with its uncertainty", () => {
    expect(read("dip", 10).value).toBeCloseTo(50, 6);
    expect(read("mark", 60).value).toBe(60);
    expect(read("sight", 40).value).toBeCloseTo(40, 6);
    expect(read("gauge", 26).value).toBe(100);
    expect(read("dip", 10).sigma).toBeLessThan(read("mark", 60).sigma);
    expect(read("mark", 60).sigma).toBeLessThan(read("gauge", 13).sigma);
    // Common practice: a gauge is only trusted at empty.
    expect(read("gauge", 0).sigma).toBeLessThan(read("gauge", 13).sigma / 3);
  });

  test.each([
    ["dip", 20.1, "dipstick ends at 20 cm"],
    ["mark", 61, "no mark at 61"],
    ["gauge", 30, "from 0 to 26 US gal"],
    ["sight", 101, "from 0 to 100 %"],
  ] as const)("a %s of %d is refused", (by, value, reason) => {
    expect(() => read(by, value)).toThrow(reason);
  });

  test("without a calibration no number is invented", () => {
    const { calibration: _c, gauge: _g, geometry: _s, ...bare } = tank;
    expect(() => litresByReading(bare, { tankId: "left", by: "dip", value: 3 })).toThrow(
      "No dipstick calibration",
    );
    expect(() => litresByReading(bare, { tankId: "left", by: "gauge", value: 3 })).toThrow("it is not used");
    expect(() =>
      litresByReading(
        { ...bare, ...(tank.calibration && { calibration: tank.calibration }) },
        { tankId: "left", by: "dip", value: 3 },
        { rightDownDeg: 2, noseUpDeg: 0 },
      ),
    ).toThrow("shape of the left tank is not on file");
  });
});

describe("a dip on a slope", () => {
  const geometry = tank.geometry as NonNullable<Tank["geometry"]>;
  /** Volume under a level surface in a tilted box, summed column by column: independent of the formula. */
  const volume = (dipCm: number, rightDownDeg: number, noseUpDeg: number) => {
    const side = Math.tan((rightDownDeg * Math.PI) / 180);
    const along = Math.tan((noseUpDeg * Math.PI) / 180);
    let litres = 0;
    const n = 200;
    for (let i = 0; i < n; i++)
      for (let k = 0; k < n; k++) {
        const right = ((i + 0.5) / n - 0.5) * geometry.spanCm;
        const forward = ((k + 0.5) / n - 0.5) * geometry.chordCm;
        const depth =
          dipCm + (right - geometry.holeRightCm) * side - (forward - geometry.holeForwardCm) * along;
        litres += Math.min(Math.max(depth, 0), geometry.depthCm);
      }
    return (litres / n ** 2) * geometry.spanCm * geometry.chordCm;
  };

  test.each([
    [8, 3, 0],
    [9, -2, 3],
    [12, 1.5, -2],
  ])("of %d cm, right wing %d° down, nose %d° up, is the depth that holds the same volume", (dip, right, nose) => {
    const level = dipCorrectedForTilt(dip, { rightDownDeg: right, noseUpDeg: nose }, geometry);
    expect(level * geometry.spanCm * geometry.chordCm).toBeCloseTo(volume(dip, right, nose), 3);
  });

  test("is unchanged on level ground, and corrected on a slope", () => {
    expect(dipCorrectedForTilt(8, { rightDownDeg: 0, noseUpDeg: 0 }, geometry)).toBe(8);
    // The dip hole is at the left end: with the right wing down the dipstick reads too little.
    expect(read("dip", 8, { rightDownDeg: 3, noseUpDeg: 0 }).value).toBeGreaterThan(read("dip", 8).value);
  });

  test("is rejected where fuel would run out of the filler, and beyond six degrees", () => {
    expect(() =>
      dipCorrectedForTilt(1, { rightDownDeg: 4, noseUpDeg: 0 }, { ...geometry, holeRightCm: 0 }),
    ).toThrow("On this slope");
    expect(() =>
      dipCorrectedForTilt(19, { rightDownDeg: 4, noseUpDeg: 0 }, { ...geometry, holeRightCm: 0 }),
    ).toThrow("touches the top of the tank");
    expect(() => dipCorrectedForTilt(8, { rightDownDeg: 7, noseUpDeg: 0 }, geometry)).toThrow(
      "too large to correct",
    );
  });
});

describe("the log", () => {
  const tanks = [
    { id: "left", capacityL: 100 },
    { id: "right", capacityL: 100 },
  ];
  const entry = (
    at: string,
    kind: FuelEntry["entry"],
    litres: number,
    more: Partial<FuelEntry> = {},
  ): FuelEntry => ({
    at: `2026-05-${at}T09:00:00.000Z`,
    entry: kind,
    litres,
    amount: litres,
    unit: "L",
    ...more,
  });
  const log = [
    entry("02", "measured", 60, { tankId: "right", hours: 100 }),
    entry("02", "measured", 50, { tankId: "left", hours: 100 }),
    entry("01", "measured", 90, { tankId: "left", hours: 98 }),
  ];

  test("is the last measurement with everything added and used since", () => {
    const expected = expectedFuel(tanks, [...log, entry("03", "uplift", 20, { tankId: "left" })]);
    expect(expected).toMatchObject({
      hours: 100,
      tanks: { left: { value: 70 }, right: { value: 60 } },
      burntL: 0,
    });
    expect(expected?.uplifts).toHaveLength(1);
    const now = expected && fuelByLog(expected, 101.5, 30, 4);
    // 1.5 h at 30 L/h and 4 L for taxi: 49 L, shared evenly.
    expect(now?.total.value).toBeCloseTo(130 - 49, 9);
    expect(now?.tanks.left?.value).toBeCloseTo(70 - 24.5, 9);
    // The sum is more certain than the shares: uneven use between tanks does not affect it.
    expect(now?.total.sigma).toBeLessThan((now?.tanks.left?.sigma ?? 0) + (now?.tanks.right?.sigma ?? 0));
  });

  test("prefers a logged burn to the hour meter", () => {
    const expected = expectedFuel(tanks, [...log, entry("03", "burn", 30)]);
    const now = expected && fuelByLog(expected, 200, 30, 4);
    expect(now?.total.value).toBeCloseTo(80, 9);
  });

  test("does not count for a tank that was never measured, or without hours", () => {
    expect(expectedFuel(tanks, [entry("01", "measured", 5, { tankId: "left" })])).toBeUndefined();
    const expected = expectedFuel(tanks, log);
    expect(expected && fuelByLog(expected, undefined, 30, 4)).toBeUndefined();
  });

  test("a negative burn and a meter that went back are reported", () => {
    expect(() => expectedFuel(tanks, [...log, entry("03", "burn", -3)])).toThrow("A burn cannot be negative");
    const expected = expectedFuel(tanks, log);
    expect(() => expected && fuelByLog(expected, 99, 30, 4)).toThrow("but read 100");
  });
});

describe("why they disagree", () => {
  const kgPerL = 0.719;
  test("an uplift logged in gallons that was litres comes first", () => {
    const uplift: FuelEntry = {
      at: "2026-05-03T09:00:00.000Z",
      entry: "uplift",
      litres: 378.5,
      amount: 100,
      unit: "US gal",
    };
    const [first] = likelyCauses({
      odd: "log",
      measuredLessLogL: -278,
      beforeUplifts: { value: 40, sigma: 3 },
      measured: { value: 140, sigma: 3 },
      uplifts: [uplift],
      kgPerL,
    });
    expect(first).toContain("100 L would fit, not US gal");
  });
  test("less than the log: a flight, a leak, a cap; more: an unlogged uplift", () => {
    expect(likelyCauses({ odd: "log", measuredLessLogL: -30, kgPerL }).join()).toMatch(/flight.*leak.*cap/);
    expect(likelyCauses({ odd: "log", measuredLessLogL: 30, kgPerL })[0]).toContain(
      "uplift that was not logged",
    );
    expect(likelyCauses({ odd: "gauge", measuredLessLogL: 3, kgPerL })).toEqual([
      expect.stringContaining("have the gauge checked"),
    ]);
    expect(likelyCauses({ odd: "dip", measuredLessLogL: -30, kgPerL })[0]).toContain("another aircraft");
  });
});
