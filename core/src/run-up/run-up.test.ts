import fc from "fast-check";
import psychrolib from "psychrolib";
import { diagnosisReport, limitToProbes, type Observation, observe } from "../diagnosis/index";
import { CASE_ENGINES, canHave, runUpCase, workCase } from "../testing/run-up-cases";
import {
  densityAltitudeFt,
  findLevelChange,
  judgeBaseline,
  type Mark,
  type PastRunUp,
  readRunUp,
  stationPressureHpa,
  traceOf,
} from "./index";

const { profile } = CASE_ENGINES[0] as (typeof CASE_ENGINES)[number];

psychrolib.SetUnitSystem(psychrolib.SI);

interface Piece {
  rpm: number;
  seconds: number;
  egt?: number[];
}

/** A drawn trace: levels with an engine's lag between them and deterministic noise. */
function drawn(pieces: Piece[], { hz = 10, withEgt = true } = {}) {
  const lines: { t: number; rpm: number; egt?: number[]; volts: number }[] = [];
  let rpm = pieces[0]?.rpm ?? 0;
  const egt = [1200, 1190, 1210, 1205];
  let i = 0;
  for (const piece of pieces)
    for (let k = 0; k < piece.seconds * hz; k++, i++) {
      rpm += (piece.rpm - rpm) * (1 - Math.exp(-1 / hz / 0.4));
      egt.forEach((value, c) => {
        egt[c] = value + ((piece.egt?.[c] ?? 1200) - value) * (1 - Math.exp(-1 / hz / 1.8));
      });
      lines.push({
        t: i / hz,
        rpm: Math.round(rpm + ((i * 37) % 11) - 5),
        volts: 28.1,
        ...(withEgt && { egt: egt.map((value) => Math.round(value)) }),
      });
    }
  return traceOf(lines);
}

const HOT = [1265, 1255, 1275, 1270];
const BASE = [1200, 1190, 1210, 1205];
const usual: Piece[] = [
  { rpm: 1000, seconds: 10, egt: [1050, 1040, 1060, 1055] },
  { rpm: 1800, seconds: 12, egt: BASE },
  { rpm: 1735, seconds: 7, egt: HOT },
  { rpm: 1800, seconds: 6, egt: BASE },
  { rpm: 1752, seconds: 7, egt: HOT },
  { rpm: 1800, seconds: 6, egt: BASE },
  { rpm: 1710, seconds: 8, egt: [1150, 1140, 1160, 1155] },
  { rpm: 1800, seconds: 6, egt: BASE },
  { rpm: 680, seconds: 7, egt: [1000, 990, 1010, 1005] },
  { rpm: 1000, seconds: 6, egt: [1050, 1040, 1060, 1055] },
];
const at = (index: number) => usual.slice(0, index).reduce((sum, piece) => sum + piece.seconds, 0);

describe("a run-up drawn by hand, read from its levels alone", () => {
  it("has its steps in order, each within half a second, and its drops", () => {
    const reading = readRunUp(drawn(usual), profile);
    expect(reading.steps.map((s) => s.step)).toEqual([
      "ground",
      "run-up",
      "right",
      "both",
      "left",
      "both",
      "heat",
      "cold",
      "idle",
      "ground",
    ]);
    reading.steps.forEach((step, i) => {
      if (i > 0) expect(Math.abs(step.at - at(i))).toBeLessThan(0.5);
    });
    expect(reading.right?.drop).toBeCloseTo(65, -0.5);
    expect(reading.left?.drop).toBeCloseTo(48, -0.5);
    expect(reading.right?.held).toBeCloseTo(7, 0);
    expect(reading.right?.back).toBeCloseTo(1800, -1);
    expect(Object.values(reading.right?.egtChange ?? {}).every((rise) => rise > 45 && rise < 70)).toBe(true);
    expect(reading.heat?.drop).toBeCloseTo(90, -1);
    expect(reading.idle?.floor).toBeCloseTo(680, -1);
    expect(reading.notes).toEqual([]);
  });

  it("is read without any EGT probes, by its order", () => {
    const reading = readRunUp(drawn(usual, { withEgt: false }), profile);
    expect(reading.right?.drop).toBeCloseTo(65, -0.5);
    expect(reading.left?.drop).toBeCloseTo(48, -0.5);
    expect(reading.heat?.drop).toBeCloseTo(90, -1);
  });

  it("is read at one and two lines per second", () => {
    for (const hz of [1, 2]) {
      const reading = readRunUp(drawn(usual, { hz }), profile);
      expect(Math.abs((reading.right?.drop ?? 0) - 65)).toBeLessThan(10);
      expect(Math.abs((reading.left?.drop ?? 0) - 48)).toBeLessThan(10);
    }
  });

  it("reports a missing return to both", () => {
    const straight = usual.filter((_, i) => i !== 3);
    const told = { first: "right" } as const;
    const sentences = readRunUp(drawn(straight), profile, undefined, told).notes.map((n) => n.sentence);
    expect(sentences).toContain("You did not go back to both after right.");
  });

  it("reports a second magneto that was never tried", () => {
    const one = usual.filter((_, i) => i !== 4 && i !== 5);
    const reading = readRunUp(drawn(one), profile);
    expect(reading.left).toBeUndefined();
    expect(reading.notes.map((n) => n.kind)).toContain("second never tried");
  });

  it("takes the last of repeated tries, and says so", () => {
    const twice = [
      ...usual.slice(0, 6),
      { rpm: 1690, seconds: 7, egt: HOT },
      { rpm: 1800, seconds: 6, egt: BASE },
      { rpm: 1750, seconds: 7, egt: HOT },
      { rpm: 1800, seconds: 6, egt: BASE },
    ];
    const reading = readRunUp(drawn(twice), profile);
    expect(reading.tries).toHaveLength(4);
    expect(reading.right?.drop).toBeCloseTo(110, -1);
    expect(reading.notes.filter((n) => n.kind === "repeated")).toHaveLength(2);
  });

  it("finds carburettor heat before the magnetos by the falling EGT", () => {
    const early = [0, 1, 6, 7, 2, 3, 4, 5, 8].map((i) => usual[i] as Piece);
    expect(readRunUp(drawn(early), profile).steps.map((s) => s.step)).toEqual([
      "ground",
      "run-up",
      "heat",
      "cold",
      "right",
      "both",
      "left",
      "both",
      "idle",
    ]);
  });

  it("names the cylinder that falls, and feels the roughness", () => {
    const misfire = usual.map((piece, i) =>
      i === 4 ? { ...piece, rpm: 1590, egt: [1240, 1230, 700, 1245] } : piece,
    );
    const reading = readRunUp(drawn(misfire), profile);
    expect(reading.left?.egtChange[3]).toBeLessThan(-300);
    expect(reading.left?.drop).toBeCloseTo(210, -1);
  });

  it("an EGT that deviates at low power is seen at idle or before the run-up, whichever shows it", () => {
    const lean = (ground: number, idle: number) =>
      usual.map((piece, i) => {
        const hotter = i === 0 ? ground : i === 8 ? idle : 0;
        return { ...piece, egt: piece.egt?.map((value, c) => (c === 1 ? value + hotter : value)) } as Piece;
      });
    const seen = (pieces: Piece[]) =>
      observe(readRunUp(drawn(pieces), profile), profile, { resolutionRpm: 10 }).find(
        ({ feature }) => feature === "idleExhaust",
      );
    expect(seen(usual)).toMatchObject({ state: "alike" });
    expect(seen(lean(0, 60))).toMatchObject({ state: "one apart", cylinder: 2 });
    // Past its peak it rejoins the others at idle: then ground rpm shows it.
    expect(seen(lean(60, 5))).toMatchObject({ state: "one apart", cylinder: 2 });
    expect(seen(lean(60, 5))?.words).toMatch(/hotter at ground rpm/);
    expect(seen(lean(10, -60))?.words).toMatch(/colder at idle/);
    // A trace starting at run-up rpm only has idle.
    expect(seen(lean(60, 5).slice(1))).toMatchObject({ state: "alike" });
  });

  it("names no cylinder without individual probes, and still names the plug's side", () => {
    const misfire = usual.map((piece, i) => (i === 4 ? { ...piece, rpm: 1640 } : piece));
    const reading = readRunUp(drawn(misfire, { withEgt: false }), profile);
    const context = {
      cylinders: 4,
      fuelSystem: profile.fuelSystem,
      propeller: profile.propeller,
      suction: true,
    };
    const rough: Observation = { feature: "feel", state: "rough", side: "left", words: "" };
    const seen = observe(reading, profile, { maxDropRpm: 125, resolutionRpm: 10 }).filter(
      ({ feature, side }) => !(feature === "feel" && side === "left"),
    );
    const named = (of: typeof context) => diagnosisReport([...seen, rough], of).ranked[0]?.name;
    expect(limitToProbes(context, readRunUp(drawn(misfire), profile))).toEqual({
      ...context,
      unprompted: true,
    });
    expect(named(limitToProbes(context, reading))).toBe("fouled plug, left magneto");
  });

  it("does not assess a side with a gap", () => {
    const whole = drawn(usual);
    const keep = Array.from(whole.t.keys()).filter(
      (i) => (whole.t[i] as number) < 23 || (whole.t[i] as number) > 27,
    );
    const holed = {
      t: Float64Array.from(keep, (i) => whole.t[i] as number),
      channels: Object.fromEntries(
        Object.entries(whole.channels).map(([name, v]) => [
          name,
          Float64Array.from(keep, (i) => v?.[i] as number),
        ]),
      ),
    };
    const reading = readRunUp(holed, profile);
    expect(reading.problems.map((p) => p.kind)).toContain("gap");
    expect(reading.right?.doubt ?? "not read").toMatch(/Data missing|not read/);
  });

  it("reads nothing without rpm, and says why", () => {
    const trace = drawn(usual);
    delete trace.channels.rpm;
    const reading = readRunUp(trace, profile);
    expect(reading.steps).toEqual([]);
    expect(reading.problems[0]?.kind).toBe("no rpm");
  });
});

describe("with the coach's prompts", () => {
  const marks: Mark[] = (
    ["ground", "run-up", "right", "both", "left", "both", "heat", "cold", "idle"] as const
  ).map((step, i) => ({
    step,
    t: Math.max(0, at(i) - 0.8),
  }));

  it("every step is found after its prompt", () => {
    const reading = readRunUp(drawn(usual), profile, marks);
    for (const [i, step] of reading.steps.entries())
      if (i > 0) expect(Math.abs(step.at - at(i))).toBeLessThan(0.5);
  });

  it("heat applied while the propeller is still recovering is not assessed, and reported", () => {
    const constantSpeed = (CASE_ENGINES[1] as (typeof CASE_ENGINES)[number]).profile;
    const hurried = (climb: number): Piece[] => [
      ...usual.slice(0, 6),
      { rpm: 1350, seconds: 4, egt: BASE },
      ...Array.from({ length: 10 }, (_, i) => ({ rpm: 1700 + i * climb, seconds: 1, egt: BASE })),
      { rpm: 1690 + 10 * climb, seconds: 6, egt: BASE },
      { rpm: 1800, seconds: 6, egt: BASE },
    ];
    const called: Mark[] = [...marks.slice(0, 6), { t: at(6) - 0.8, step: "propeller" }];
    const heatAt = at(6) + 14;
    const read = (climb: number) =>
      readRunUp(drawn(hurried(climb)), { ...constantSpeed, rpm: 1800 }, [
        ...called,
        { t: heatAt - 0.8, step: "heat" },
        { t: heatAt + 5.2, step: "cold" },
      ]);
    const doubtful = read(9);
    expect(doubtful.heat?.doubt).toMatch(/still recovering/);
    expect(doubtful.notes.find(({ kind }) => kind === "heat in doubt")?.sentence).toMatch(
      /^Alternate air: .* repeat it\.$/,
    );
    expect(
      observe(doubtful, constantSpeed, { resolutionRpm: 10 }).some(({ feature }) => feature === "heat"),
    ).toBe(false);
    const calm = read(0);
    expect(calm.heat).toBeDefined();
    expect(calm.heat?.doubt).toBeUndefined();
    expect(calm.notes.map(({ kind }) => kind)).not.toContain("heat in doubt");
  });

  it("a side that was called and did not change is no drop, and reported", () => {
    const none = usual.map((piece, i) => (i === 2 ? { ...piece, rpm: 1800, egt: BASE } : piece));
    const reading = readRunUp(drawn(none), profile, marks);
    expect(reading.right?.seen).toBe(false);
    expect(Math.abs(reading.right?.drop ?? 99)).toBeLessThan(4);
    expect(reading.notes.map((n) => n.sentence)).toContain("No rpm change when right was called.");
  });

  it("an engine that stops on one side has quit there", () => {
    const stops = [...usual.slice(0, 4), { rpm: 0, seconds: 8, egt: [400, 400, 400, 400] }];
    const reading = readRunUp(drawn(stops), profile, marks.slice(0, 5));
    expect(reading.left?.feel).toBe("quit");
  });
});

describe("simulated run-ups of every kind", () => {
  it("steps within half a second and drops within ten rpm, engine by engine (figures on many more in the benchmark)", () => {
    let steps = 0;
    let missed = 0;
    let drops = 0;
    let off = 0;
    for (const engine of CASE_ENGINES)
      for (const kind of ["none", "fouled plug", "timing off", "hot magneto"] as const)
        for (let n = 0; n < 2; n++) {
          if (!canHave(kind, engine)) continue;
          const worked = workCase(runUpCase(kind, n, engine));
          steps += worked.steps.length;
          missed += worked.steps.filter(({ offS = 9 }) => offS > 0.5).length;
          drops += worked.drops.length;
          off += worked.drops.filter(
            ({ truth, read = 9999 }) => Math.abs(truth - read) > 10 * Math.max(1, engine.profile.rpm / 1800),
          ).length;
        }
    expect(steps).toBeGreaterThan(150);
    expect(missed / steps).toBeLessThanOrEqual(0.01);
    expect(off / drops).toBeLessThanOrEqual(0.02);
  });
});

describe("a change of level", () => {
  it("is found in time and size under noise", () => {
    const t = Array.from({ length: 120 }, (_, i) => i / 10);
    const y = t.map(
      (s, i) => 1800 - (s > 6.3 ? 55 * (1 - Math.exp(-(s - 6.3) / 0.5)) : 0) + ((i * 37) % 9) - 4,
    );
    const change = findLevelChange(t, y);
    expect(change?.at).toBeCloseTo(6.3, 0);
    expect((change?.before ?? 0) - (change?.after ?? 0)).toBeCloseTo(55, -0.7);
    expect(findLevelChange([0, 1], [1, 2])).toBeUndefined();
  });
});

describe("density altitude", () => {
  it("is the altitude itself in the standard atmosphere (published: ICAO Doc 7488; NWS formula)", () => {
    // 5,000 ft: 24.90 inHg and 5.1 °C; 10,000 ft: 20.58 inHg and −4.8 °C.
    expect(Math.abs(densityAltitudeFt(24.9 * 33.8639, 5.1) - 5000)).toBeLessThan(40);
    expect(Math.abs(densityAltitudeFt(20.58 * 33.8639, -4.8) - 10_000)).toBeLessThan(60);
    expect(Math.abs(densityAltitudeFt(1013.25, 15))).toBeLessThan(20);
  });

  it("rises about 120 ft for a degree above standard (common practice)", () => {
    expect(densityAltitudeFt(1013.25, 25) / 10).toBeGreaterThan(110);
    expect(densityAltitudeFt(1013.25, 25) / 10).toBeLessThan(130);
  });

  it("takes the pressure of the standard atmosphere (library: psychrolib)", () => {
    for (const metres of [0, 500, 1000, 2000, 3000])
      expect(stationPressureHpa(1013.25, metres / 0.3048)).toBeCloseTo(
        psychrolib.GetStandardAtmPressure(metres) / 100,
        0,
      );
    // Published: 1,000 m 898.75 hPa, 3,000 m 701.09 hPa.
    expect(stationPressureHpa(1013.25, 1000 / 0.3048)).toBeCloseTo(898.75, 0);
    expect(stationPressureHpa(1013.25, 3000 / 0.3048)).toBeCloseTo(701.09, 0);
  });

  it("rejects impossible pressures", () => {
    expect(() => densityAltitudeFt(2000, 15)).toThrow("pressure");
    expect(() => densityAltitudeFt(1000, 90)).toThrow("temperature");
    expect(() => stationPressureHpa(29.92, 0)).toThrow("altimeter setting");
    expect(() => stationPressureHpa(1013, 90_000)).toThrow("elevation");
  });
});

describe("this engine's own baseline", () => {
  const past = (drops: number[], more: Partial<PastRunUp> = {}): PastRunUp[] =>
    drops.map((rightDrop, i) => ({
      at: `2026-0${1 + Math.floor(i / 20)}-${10 + (i % 20)}`,
      baseRpm: 1800,
      rightDrop,
      ...more,
    }));
  const judge = (
    value: number,
    rows: PastRunUp[],
    more: { baseRpm?: number; densityAltitudeFt?: number } = {},
  ) => judgeBaseline("rightDrop", { value, baseRpm: 1800, ...more }, rows, 10);

  it("does not exist with fewer than five run-ups", () => {
    expect(judge(90, past([50, 52, 48, 51]))).toBeUndefined();
  });

  it("as usual is within limits; three times its scatter is watched although within the limit", () => {
    const rows = past([50, 52, 48, 51, 49, 50, 53]);
    expect(judge(55, rows)?.grade).toBe("within limits");
    const far = judge(80, rows);
    expect(far?.grade).toBe("watch");
    expect(far?.sentence).toContain("80 rpm is well above the usual 50 ± 5 rpm");
  });

  it("reports growth over five run-ups", () => {
    const grows = judge(71, past([50, 51, 49, 50, 52, 48, 50, 53, 58, 62, 66]));
    expect(grows?.grade).toBe("watch");
    expect(grows?.sentence).toContain("increasing over the last 5 run-ups");
    expect(judge(60, past([50, 51, 49, 50, 66, 48, 62, 53, 58, 62, 59]))?.sentence).not.toContain("rowing");
  });

  it("a drop that gets smaller is watched too", () => {
    expect(judge(20, past([50, 52, 48, 51, 49, 50, 53]))?.action).toContain("losing its ground");
  });

  it("scales with the base rpm", () => {
    expect(judge(45, past([50, 50, 50, 50, 50, 50]), { baseRpm: 1620 })?.limit).toBe("usually 45 ± 5 rpm");
  });

  it("is corrected for density altitude with enough data", () => {
    const rows: PastRunUp[] = Array.from({ length: 12 }, (_, i) => ({
      at: `2026-02-${10 + i}`,
      baseRpm: 1800,
      rightDrop: 50 + i * 3 + (i % 2),
      densityAltitudeFt: i * 500,
    }));
    const high = judge(86, rows, { densityAltitudeFt: 6000 });
    expect(high?.grade).toBe("within limits");
    expect(high?.source?.text).toContain("today's density altitude");
    expect(judge(86, rows, { densityAltitudeFt: 0 })?.grade).toBe("watch");
  });
});

test("for any monitor data, steps run forward and a drop is a number", () => {
  const part = fc.record({
    dt: fc.constantFrom(0, 0.1, 0.25, 1, 1, 30, -2),
    rpm: fc.oneof(
      fc.constantFrom(0, 400, 1000, 1800, 1725, 1550, 2700, Number.NaN),
      fc.double({ min: -10, max: 9000 }),
    ),
    egt: fc.array(fc.double({ min: -100, max: 3000 }), { maxLength: 4 }),
    lines: fc.integer({ min: 1, max: 25 }),
  });
  fc.assert(
    fc.property(fc.array(part, { minLength: 1, maxLength: 25 }), (parts) => {
      let t = 0;
      const lines = parts.flatMap(({ dt, rpm, egt, lines: count }) =>
        Array.from({ length: count }, () => {
          t += dt;
          return { t, rpm, egt };
        }),
      );
      const { steps, tries } = readRunUp(traceOf(lines), profile);
      for (const { at, until } of steps) expect(until).toBeGreaterThanOrEqual(at);
      for (const { drop } of tries) expect(Number.isFinite(drop)).toBe(true);
    }),
    { numRuns: 200 },
  );
});
