import { traceOf } from "@cravix/core/run-up";
import { guessColumns, readTraceCsv, traceCsv, unitsFor } from "./trace";

const lines = (head: string, row: (i: number) => string, n = 60) =>
  `${head}\n${Array.from({ length: n }, (_, i) => row(i)).join("\n")}\n`;

describe("an engine monitor's file", () => {
  it("of our own columns comes back as it went out", () => {
    const trace = traceOf(
      Array.from({ length: 40 }, (_, i) => ({
        t: i / 10,
        rpm: 1800 + i,
        map: 18.25,
        oilTemperature: 160.5,
        egt: [1200, 1210],
        cht: [300, 310],
      })),
    );
    const { trace: back, faults, columns } = readTraceCsv(traceCsv(trace));
    expect(faults).toEqual([]);
    expect(columns.every((column) => column.field && column.unit)).toBe(true);
    expect(back).toEqual(trace);
  });

  it("with foreign headers, other units, lines above and a semicolon is understood", () => {
    const text = lines(
      "Some monitor;serial 12\nLcl Time;E1 RPM;E1 MAP [hPa];E1 FFlow [l/h];E1 OilT [deg C];E1 OilP [bar];Volt1;E1 EGT1 [C];E1 CHT1 [C];Remarks",
      (i) =>
        `23:59:${String(30 + i / 2)
          .padStart(2, "0")
          .replace(".", ",")};1800;609,6;22,5;71,5;4,8;28,1;650;140;x`,
      50,
    );
    const { trace, faults } = readTraceCsv(text);
    expect(faults).toEqual([]);
    expect(trace.channels.map?.[0]).toBeCloseTo(18, 1);
    // 22.5 L/h by NIST SP 811: one US gallon is 3.785411784 L.
    expect(trace.channels.fuelFlow?.[0]).toBeCloseTo(22.5 / 3.785411784, 6);
    expect(trace.channels.oilTemperature?.[0]).toBeCloseTo(160.7, 1);
    expect(trace.channels.oilPressure?.[0]).toBeCloseTo(69.6, 1);
    expect(trace.channels.egt1?.[0]).toBeCloseTo(1202, 6);
  });

  it("goes on over midnight", () => {
    const { trace } = readTraceCsv("time,rpm\n23:59:58,1000\n23:59:59,1001\n00:00:00,1002\n00:00:01,1003\n");
    expect(Array.from(trace.t)).toEqual([0, 1, 2, 3]);
  });

  it("with an unknown unit in a header is reported, and the rest is used", () => {
    const { faults, trace, columns } = readTraceCsv(lines("time,rpm,map (furlongs)", (i) => `${i},1800,18`));
    expect(faults).toEqual([
      { row: 1, column: "map (furlongs)", expected: expect.stringContaining('"furlongs" is unknown') },
    ]);
    expect(trace.channels.map).toBeUndefined();
    expect(trace.channels.rpm?.length).toBe(60);
    // Once its unit is chosen by hand, it is used.
    const told = columns.map(({ unknownUnit: _, ...column }) =>
      column.field === "map" ? { ...column, unit: "kPa" } : column,
    );
    expect(
      readTraceCsv(
        lines("time,rpm,map (furlongs)", (i) => `${i},1800,61`),
        told,
      ).trace.channels.map?.[0],
    ).toBeCloseTo(18, 0);
  });

  it("with cells that are no numbers keeps the good ones, and says which line was the first", () => {
    const { faults, trace } = readTraceCsv(
      lines("time,rpm", (i) => (i === 5 || i === 9 ? `${i},---` : `${i},1800`), 20),
    );
    expect(faults).toEqual([{ row: 7, column: "rpm", expected: "a number; on 2 lines" }]);
    expect(trace.channels.rpm?.[5]).toBeNaN();
    expect(trace.t).toHaveLength(20);
  });

  it("without rpm, and without any header, says so", () => {
    expect(readTraceCsv(lines("time,volts", (i) => `${i},28`)).faults[0]?.column).toBe("rpm");
    expect(readTraceCsv("hello\nworld\n").faults[0]?.expected).toContain("column names");
    expect(readTraceCsv("").faults).toHaveLength(1);
  });

  it("that goes on for hours is left after the first hour of running", () => {
    const { stoppedAfterS, lines: read } = readTraceCsv(
      lines("time,rpm", (i) => `${i},${i > 100 ? 1000 : 0}`, 9000),
    );
    expect(stoppedAfterS).toBeCloseTo(3702, 0);
    expect(read).toBeLessThan(3720);
  });

  it("takes the first of two columns for one thing; the other can be chosen", () => {
    const columns = guessColumns(["time", "rpm", "engine speed", "egt 1", "EGT2 (°C)", "cht_3 (F)"]);
    expect(columns.map((column) => column.field)).toEqual(["time", "rpm", undefined, "egt1", "egt2", "cht3"]);
    expect(columns[4]?.unit).toBe("°C");
    expect(unitsFor("map")[0]).toBe("inHg");
  });
});
