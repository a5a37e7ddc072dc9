import fc from "fast-check";
import { guessColumns, isUnitsRow, readTraceCsv, withUnitsRow } from "./trace";

const NAMES = "Time,RPM,EGT1,EGT2,CHT1,OilT,OilP,MAP,FFlow";
/** A run-up written in °C, bar, hPa and litres: ground, then run-up. */
const metric = (i: number) => {
  const up = i > 20;
  return `${i},${up ? 1800 : 1000},${up ? 705 : 590},${up ? 698 : 600},${up ? 146 : 120},71,${up ? 4.6 : 3.9},${up ? 560 : 420},${up ? 26 : 11}`;
};
const american = (i: number) => {
  const up = i > 20;
  return `${i},${up ? 1800 : 1000},${up ? 1301 : 1094},${up ? 1288 : 1112},${up ? 295 : 248},160,${up ? 67 : 57},${up ? 16.5 : 12.4},${up ? 6.9 : 2.9}`;
};
const file = (head: readonly string[], row: (i: number) => string, n = 60) =>
  `${[...head, ...Array.from({ length: n }, (_, i) => row(i))].join("\n")}\n`;

describe("a monitor's units", () => {
  it.each([
    ["below the names", [NAMES, "s,rpm,°C,°C,°C,°C,bar,hPa,L/h"]],
    [
      "below the names, some left empty, in brackets",
      [NAMES, ",,(deg C),(deg C),(deg C),(deg C),[bar],[mbar],[l/h]"],
    ],
    ["above the names", ["Monitor,serial 7", "sec,1/min,C,C,C,C,bar,hPa,lph", NAMES]],
    [
      "in the names without brackets",
      ["Time,RPM,EGT1 C,EGT_2_degC,CHT1 deg C,OilT °C,OilP bar,MAP hPa,FFlow l/h"],
    ],
  ])("that stand %s are taken", (_, head) => {
    const { trace, faults, questions, lines } = readTraceCsv(file(head, metric));
    expect(faults).toEqual([]);
    expect(questions).toEqual([]);
    expect(lines).toBe(60);
    // By NIST SP 811: °F = °C · 1.8 + 32; 1 bar = 14.5038 psi; 1 inHg = 33.8639 hPa; 1 US gal = 3.785411784 L.
    expect(trace.channels.egt1?.[59]).toBeCloseTo(705 * 1.8 + 32, 6);
    expect(trace.channels.egt2?.[59]).toBeCloseTo(698 * 1.8 + 32, 6);
    expect(trace.channels.cht1?.[59]).toBeCloseTo(146 * 1.8 + 32, 6);
    expect(trace.channels.oilTemperature?.[59]).toBeCloseTo(71 * 1.8 + 32, 6);
    expect(trace.channels.oilPressure?.[59]).toBeCloseTo(4.6 * 14.5038, 2);
    expect(trace.channels.map?.[59]).toBeCloseTo(560 / 33.8639, 6);
    expect(trace.channels.fuelFlow?.[59]).toBeCloseTo(26 / 3.785411784, 6);
  });

  it("that stand nowhere are taken by the numbers where those fit one unit only", () => {
    const { trace, columns, questions } = readTraceCsv(file([NAMES], metric));
    expect(columns.find((c) => c.field === "egt1")).toMatchObject({ unit: "°C", assumed: true });
    expect(trace.channels.egt1?.[59]).toBeCloseTo(1301, 0);
    expect(trace.channels.oilPressure?.[59]).toBeCloseTo(66.7, 1);
    expect(trace.channels.map?.[59]).toBeCloseTo(16.5, 1);
    // EGT is in °C, so CHT and oil temperature of the same monitor are too.
    expect(trace.channels.cht1?.[59]).toBeCloseTo(294.8, 1);
    expect(trace.channels.oilTemperature?.[59]).toBeCloseTo(159.8, 1);
    expect(questions).toEqual([]);
    const { trace: own, questions: none } = readTraceCsv(file([NAMES], american));
    expect(own.channels.egt1?.[59]).toBe(1301);
    expect(own.channels.map?.[59]).toBe(16.5);
    expect(none).toEqual([]);
  });

  it("that stand nowhere and may be two are asked about once", () => {
    const { questions, trace } = readTraceCsv(
      file(["time,rpm,cht 1,cht 2,oil temperature"], (i) => `${i},${i > 20 ? 1800 : 1000},220,231,110`),
    );
    expect(questions).toEqual([
      { kind: "cht", headers: ["cht 1", "cht 2"], why: "no unit", taken: "°F", could: ["°F", "°C"] },
      {
        kind: "oilTemperature",
        headers: ["oil temperature"],
        why: "no unit",
        taken: "°F",
        could: ["°F", "°C"],
      },
    ]);
    expect(trace.channels.cht1?.[0]).toBe(220);
  });

  it("that cannot be what the numbers are in are asked about, and not again once told", () => {
    const text = file(["time,rpm,egt 1 (F),egt 2 (F)"], (i) => `${i},${i > 20 ? 1800 : 1000},700,705`);
    const { questions, columns } = readTraceCsv(text);
    expect(questions).toEqual([
      { kind: "egt", headers: ["egt 1 (F)", "egt 2 (F)"], why: "does not fit", taken: "°F", could: ["°C"] },
    ]);
    const told = columns.map((column) =>
      column.field?.startsWith("egt") ? { ...column, unit: "°C", told: true as const } : column,
    );
    const again = readTraceCsv(text, told);
    expect(again.questions).toEqual([]);
    expect(again.trace.channels.egt1?.[0]).toBeCloseTo(1292, 6);
  });

  it("that stand in the file are not doubted because the run-up is a small part of a long file, nor because there is none", () => {
    const long = file(
      ["time (s),rpm (rpm),egt 1 (°F),cht 1 (°F),oil pressure (psi)"],
      (i) => (i < 300 ? `${i},1800,1310,300,70` : `${i},900,880,190,40`),
      40_000,
    );
    expect(readTraceCsv(long).questions).toEqual([]);
    const idle = file(["time (s),rpm (rpm),egt 1 (°F)"], (i) => `${i},900,900`);
    expect(readTraceCsv(idle).questions).toEqual([]);
    // Without a unit such an EGT may be an idle or a lean run-up, so the user is asked.
    const bare = readTraceCsv(file(["time,rpm,egt 1"], (i) => `${i},900,900`));
    expect(bare.questions).toMatchObject([{ kind: "egt", why: "no unit", could: ["°F", "°C"] }]);
  });

  it("are not moved by one dead probe or a few spikes", () => {
    const { trace, questions } = readTraceCsv(
      file(
        ["time,rpm,egt 1,egt 2,egt 3"],
        (i) => `${i},${i > 20 ? 1800 : 1000},${i === 30 ? 1900 : 690},0,702`,
        120,
      ),
    );
    expect(questions).toEqual([]);
    expect(trace.channels.egt3?.[50]).toBeCloseTo(702 * 1.8 + 32, 6);
  });

  it("of a line that is not known leave their column unused until it is reported", () => {
    const { faults, trace } = readTraceCsv(
      file(["time,rpm,map,volts", "s,rpm,furlongs,V"], (i) => `${i},1800,18,28`),
    );
    expect(faults).toEqual([
      { row: 1, column: "map", expected: expect.stringContaining('"furlongs" is unknown') },
    ]);
    expect(trace.channels.map).toBeUndefined();
    expect(trace.channels.volts?.[0]).toBe(28);
  });

  it("and names in any order, cells of any kind, never throw, and a mapping that came out goes in again", () => {
    const cell = fc.oneof(
      fc.constantFrom(
        "time",
        "rpm",
        "EGT1",
        "egt 2 (C)",
        "CHT1 F",
        "OilP",
        "s",
        "°C",
        "bar",
        "1/min",
        "12:00:01",
        "-",
        '"',
        ";",
        "",
      ),
      fc.double().map(String),
      fc.string({ maxLength: 6 }),
    );
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 1, maxLength: 9 }), { maxLength: 40 }), (rows) => {
        const text = rows.map((row) => row.join(",")).join("\n");
        const { columns, trace, lines } = readTraceCsv(text);
        expect(trace.t).toHaveLength(lines);
        expect(readTraceCsv(text, columns).lines).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 300 },
    );
  });

  it("are no units where readings stand", () => {
    expect(isUnitsRow(["0", "1800", "1200"])).toBe(false);
    expect(isUnitsRow(["C", "1800", "F"])).toBe(false);
    expect(isUnitsRow(["remarks", "pilot"])).toBe(false);
    const columns = guessColumns(["time", "rpm", "map (inHg)"]);
    expect(withUnitsRow(columns, ["s", "rpm", "hPa"])[2]).toMatchObject({ unit: "inHg" });
  });
});
