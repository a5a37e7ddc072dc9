import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import fc from "fast-check";
import { fluidCsv, readFluidCsv, readReceiptCsv, receiptCsv } from "./index";
import { longestRise } from "./longest-rise";
import { toCsv } from "./to-csv";

const NOW = new Date("2026-05-01T12:00:00.000Z");
const source = { kind: "handbook", text: "card", example: true } as const;
const tank = (id: string) => ({
  id,
  name: `${id} tank`,
  capacityL: 98,
  unusableL: 5,
  calibration: {
    source,
    points: [
      { dipCm: 0, litres: 2 },
      { dipCm: 25, litres: 98 },
    ],
  },
});
const single: Pick<AircraftType, "fuel" | "engines"> = {
  fuel: { taxiL: 4, tanks: [tank("left"), tank("right")] },
};
const known = (registration: string) =>
  registration === "QX-TAR"
    ? single
    : registration === "QX-DOV"
      ? { ...single, engines: ["left", "right"] }
      : undefined;
const fuel = (...lines: string[]) =>
  readFluidCsv(
    "fuel",
    ["time,registration,entry,tank,amount,unit,hours,grade,receipt", ...lines].join("\n"),
    known,
    NOW,
  );
const oil = (...lines: string[]) =>
  readFluidCsv(
    "oil",
    ["time,registration,entry,engine,amount,unit,hours,heat,grade", ...lines].join("\n"),
    known,
    NOW,
  );

describe("a fuel log from a table", () => {
  test("is read line by line, in any unit that says which it is", () => {
    const { rows, faults } = fuel(
      "2026-04-01,QX-TAR,dip,left,16.2,cm,4210.3,,",
      "2026-04-01T09:30:00Z,qx-tar,uplift,right,10,US gal,4210.3,100LL,0042",
      "2026-04-02,QX-TAR,burn,,41.5,ltr,4211.5,,",
      "2026-04-03,QX-TAR,measured,left,60,lb,4211.5,100LL,",
    );
    expect(faults).toEqual([]);
    expect(rows).toEqual([
      {
        registration: "QX-TAR",
        fluid: "fuel",
        entry: "dip",
        part: "left",
        amount: 16.2,
        unit: "cm",
        hours: 4210.3,
        at: "2026-04-01T00:00:00.000Z",
      },
      {
        registration: "QX-TAR",
        fluid: "fuel",
        entry: "uplift",
        part: "right",
        amount: 10,
        unit: "US gal",
        hours: 4210.3,
        grade: "100LL",
        receipt: "0042",
        at: "2026-04-01T09:30:00.000Z",
      },
      {
        registration: "QX-TAR",
        fluid: "fuel",
        entry: "burn",
        amount: 41.5,
        unit: "L",
        hours: 4211.5,
        at: "2026-04-02T00:00:00.000Z",
      },
      {
        registration: "QX-TAR",
        fluid: "fuel",
        entry: "measured",
        part: "left",
        amount: 60,
        unit: "lb",
        hours: 4211.5,
        grade: "100LL",
        at: "2026-04-03T00:00:00.000Z",
      },
    ]);
  });

  test.each([
    ["2026-04-01,QX-NON,uplift,left,10,L,,,", "registration"],
    ["1 April,QX-TAR,uplift,left,10,L,,,", "time"],
    ["2026-06-01,QX-TAR,uplift,left,10,L,,,", "time"],
    ["2026-04-01,QX-TAR,poured,left,10,L,,,", "entry"],
    ["2026-04-01,QX-TAR,uplift,tip,10,L,,,", "tank"],
    ["2026-04-01,QX-TAR,dip,,10,cm,,,", "tank"],
    ["2026-04-01,QX-TAR,burn,,-10,L,,,", "amount"],
    ["2026-04-01,QX-TAR,uplift,left,ten,L,,,", "amount"],
    ["2026-04-01,QX-TAR,uplift,left,10,gal,,,", "unit"],
    ["2026-04-01,QX-TAR,uplift,left,10,barrel,,,", "unit"],
    ["2026-04-01,QX-TAR,dip,left,25.1,cm,,,", "amount"],
    ["2026-04-01,QX-TAR,dip,left,16,L,,,", "unit"],
    ["2026-04-01,QX-TAR,uplift,left,99,L,,,", "amount"],
    ["2026-04-01,QX-TAR,uplift,left,30,kg,,,", "grade"],
    ["2026-04-01,QX-TAR,uplift,left,30,L,,rum,", "grade"],
    ["2026-04-01,QX-TAR,uplift,left,30,L,-4,,", "hours"],
  ])("%s is rejected at its column", (line, column) => {
    const { rows, faults } = fuel("2026-04-01,QX-TAR,uplift,left,10,L,,,", line);
    expect(rows).toHaveLength(1);
    expect(faults).toEqual([{ row: 3, column, expected: expect.any(String) }]);
  });

  test("a meter that goes back is named at its line, whatever the order of the lines", () => {
    const { rows, faults } = fuel(
      "2026-04-03,QX-TAR,uplift,left,10,L,4209,,",
      "2026-04-02,QX-TAR,uplift,left,10,L,4210,,",
      "2026-04-04,QX-TAR,uplift,left,10,L,4211,,",
    );
    expect(faults).toEqual([
      { row: 2, column: "hours", expected: "4210 to 4211: the hour meter cannot go backwards" },
    ]);
    expect(rows.map((row) => row.hours)).toEqual([4210, 4211]);
  });

  test("one reading typed too high loses its own line, not all later ones", () => {
    const { rows, faults } = fuel(
      ...[4201, 42020, 4203, 4204, 4205].map(
        (hours, i) => `2026-04-0${i + 1},QX-TAR,uplift,left,10,L,${hours},,`,
      ),
    );
    expect(faults).toEqual([
      { row: 3, column: "hours", expected: "4201 to 4203: the hour meter cannot go backwards" },
    ]);
    expect(rows.map((row) => row.hours)).toEqual([4201, 4203, 4204, 4205]);
  });

  test("as few lines as possible are rejected", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: 10 }), (hours) => {
        const kept = longestRise(hours);
        expect(
          kept.every((at, i) => i === 0 || (hours[at] as number) >= (hours[kept[i - 1] as number] as number)),
        ).toBe(true);
        // Every other choice of lines, tried one by one.
        let most = 0;
        for (let set = 0; set < 1 << hours.length; set++) {
          const chosen = hours.filter((_, i) => set & (1 << i));
          if (chosen.every((one, i) => i === 0 || one >= (chosen[i - 1] as number)))
            most = Math.max(most, chosen.length);
        }
        expect(kept).toHaveLength(most);
      }),
      { numRuns: 60 },
    );
  });

  test("a missing column is shown once, and a line that is cut off keeps the others", () => {
    expect(
      readFluidCsv("fuel", "time,tank\n2026-04-01,left", known, NOW).faults.map((f) => [f.row, f.column]),
    ).toEqual([
      [1, "registration"],
      [1, "entry"],
      [1, "amount"],
      [1, "unit"],
    ]);
    const { rows, faults } = fuel("2026-04-01,QX-TAR", "2026-04-01,QX-TAR,uplift,left,10,L,,,");
    expect([rows.length, faults[0]?.row]).toEqual([1, 2]);
    expect(readFluidCsv("fuel", "", known, NOW).faults.length).toBeGreaterThan(0);
  });
});

describe("an oil log from a table", () => {
  test("is read with its engine, hot or cold", () => {
    expect(oil("2026-04-01,QX-DOV,level,left,7.1,qt,2870.1,hot,").rows[0]).toMatchObject({
      part: "left",
      unit: "US qt",
      heat: "hot",
    });
    expect(oil("2026-04-01,QX-TAR,added,,1,L,4210,,W100").rows[0]).toMatchObject({
      entry: "added",
      unit: "L",
      grade: "W100",
    });
  });
  test.each([
    ["2026-04-01,QX-DOV,level,,7.1,qt,2870.1,,", "engine"],
    ["2026-04-01,QX-TAR,level,left,7.1,qt,2870.1,,", "engine"],
    ["2026-04-01,QX-TAR,level,,7.1,gal,2870.1,,", "unit"],
    ["2026-04-01,QX-TAR,level,,71,qt,2870.1,,", "amount"],
    ["2026-04-01,QX-TAR,level,,7.1,qt,2870.1,warm,", "heat"],
  ])("%s is rejected at its column", (line, column) => {
    expect(oil(line).faults).toEqual([{ row: 2, column, expected: expect.any(String) }]);
  });
});

test("what is written out is read in again, line for line; a formula is defused", () => {
  const row: fc.Arbitrary<FluidRow> = fc.record({
    registration: fc.constant("QX-TAR"),
    fluid: fc.constant("fuel" as const),
    entry: fc.constantFrom("uplift" as const, "measured" as const),
    part: fc.constantFrom("left", "right"),
    amount: fc.integer({ min: 0, max: 980 }).map((tenths) => tenths / 10),
    unit: fc.constant("L" as const),
    receipt: fc.stringMatching(/^[A-Za-z0-9 ,"-]{1,12}$/).filter((s) => s.trim() === s && !/^[-=+@]/.test(s)),
    at: fc.integer({ min: 0, max: 1e9 }).map((s) => new Date(Date.UTC(2025, 0, 1) + s * 10).toISOString()),
  });
  fc.assert(
    fc.property(fc.array(row, { maxLength: 20 }), (rows) => {
      expect(readFluidCsv("fuel", fluidCsv("fuel", rows), known, NOW)).toEqual({ rows, faults: [] });
    }),
  );
  expect(fluidCsv("oil", [])).toBe("time,registration,entry,engine,amount,unit,hours,heat,grade\n");
  const formula = {
    registration: "QX-TAR",
    fluid: "fuel",
    entry: "uplift",
    amount: 1,
    unit: "L",
    receipt: "=2+3",
    at: "2026-04-01T00:00:00.000Z",
  } as const;
  expect(fluidCsv("fuel", [formula])).toContain("'=2+3");
  expect(fluidCsv("fuel", [{ ...formula, receipt: "4201\n=2+3" }])).toContain("4201\n'=2+3");
  expect(toCsv(["text", "number"], [["-2+3\r\n@now", -2]])).toBe(`text,number\n"'-2+3\r\n'@now",-2\n`);
});

describe("a pump's receipt", () => {
  const receipt = {
    receipt: "4201",
    at: "2026-05-01T09:00:00.000Z",
    registration: "QX-TAR",
    tankId: "left",
    amount: 13.2,
    unit: "US gal",
    grade: "100LL",
  } as const;
  test("comes back as it was printed", () => {
    expect(readReceiptCsv(receiptCsv(receipt))).toEqual({ receipts: [receipt], faults: [] });
  });
  test.each([
    ["amount,unit\n12,gal", "unit"],
    ["amount,unit\n12,stone", "unit"],
    ["amount,unit\nmuch,L", "amount"],
    ["amount,unit\n0,L", "amount"],
    ["amount,unit,grade\n5,L,rum", "grade"],
    ["litres\n5", "amount"],
  ])("%j is rejected at its column, not guessed", (text, column) => {
    const { receipts, faults } = readReceiptCsv(text);
    expect(receipts).toEqual([]);
    expect(faults[0]?.column).toBe(column);
  });
});
