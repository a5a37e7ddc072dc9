import { orderByAnswer, type Trace } from "@cravix/core/run-up";
import { judged } from "@cravix/core/testing/run-unseen-case";
import { UNSEEN_CASE_PROBLEMS, type UnseenCase, unseenCase } from "@cravix/core/testing/unseen-cases";
import fc from "fast-check";
import { readTraceCsv } from "./trace";

/**
 * The diagnosis does not depend on a monitor's column names, units, or where it writes them. Units by NIST SP 811: °C = (°F − 32)
 * / 1.8; 1 psi = 6.894757 kPa; 1 inHg = 3.386389 kPa; 1 US gal = 3.785411784 L.
 */
interface Kind {
  names: readonly string[];
  units: readonly (readonly [string, (value: number) => number])[];
}
const same = (value: number) => value;
const celsius = (value: number) => (value - 32) / 1.8;
const KINDS = {
  rpm: {
    names: ["RPM", "Engine Speed", "E1 RPM"],
    units: [
      ["rpm", same],
      ["1/min", same],
    ],
  },
  map: {
    names: ["MAP", "Manifold Pressure", "man press"],
    units: [
      ["inHg", same],
      ["kPa", (v) => v * 3.386389],
      ["hPa", (v) => v * 33.86389],
    ],
  },
  fuelFlow: {
    names: ["Fuel Flow", "FFlow", "FF"],
    units: [
      ["gph", same],
      ["L/h", (v) => v * 3.785411784],
    ],
  },
  oilPressure: {
    names: ["Oil Press", "OilP", "oil pressure"],
    units: [
      ["psi", same],
      ["bar", (v) => v * 0.06894757],
      ["kPa", (v) => v * 6.894757],
    ],
  },
  oilTemperature: {
    names: ["Oil Temp", "OilT"],
    units: [
      ["°F", same],
      ["deg C", celsius],
    ],
  },
  volts: { names: ["Volts", "Bus 1"], units: [["V", same]] },
  amps: { names: ["Amps", "ammeter"], units: [["A", same]] },
  egt: {
    names: ["EGT", "Exhaust", "E1 EGT"],
    units: [
      ["°F", same],
      ["C", celsius],
      ["degC", celsius],
    ],
  },
  cht: {
    names: ["CHT", "Cylinder Head"],
    units: [
      ["F", same],
      ["°C", celsius],
    ],
  },
} satisfies Record<string, Kind>;
type KindName = keyof typeof KINDS;

/** A monitor's style: names and units, location of the units, separator. */
interface Manner {
  name: Record<string, number>;
  unit: Record<string, number>;
  place: "brackets" | "row below" | "row above";
  semicolons: boolean;
}
const manner: fc.Arbitrary<Manner> = fc.record({
  name: fc.record(Object.fromEntries(Object.keys(KINDS).map((kind) => [kind, fc.nat(5)]))),
  unit: fc.record(Object.fromEntries(Object.keys(KINDS).map((kind) => [kind, fc.nat(5)]))),
  place: fc.constantFrom("brackets", "row below", "row above"),
  semicolons: fc.boolean(),
});

const of = <T>(row: readonly T[], at: number | undefined): T => row[(at ?? 0) % row.length] as T;

function written({ lines, engine }: UnseenCase, { name, unit, place, semicolons }: Manner): string {
  const columns: { kind: KindName; cylinder?: number }[] = [
    { kind: "rpm" },
    ...(lines[0]?.map === undefined ? [] : [{ kind: "map" as const }]),
    ...(["fuelFlow", "oilPressure", "oilTemperature", "volts", "amps"] as const).map((kind) => ({ kind })),
    ...(["egt", "cht"] as const).flatMap((kind) =>
      Array.from({ length: engine.shape.cylinders }, (_, i) => ({ kind, cylinder: i + 1 })),
    ),
  ];
  const head = columns.map(
    ({ kind, cylinder = "" }) => `${of<string>(KINDS[kind].names, name[kind])}${cylinder}`,
  );
  const units = columns.map(({ kind }) => of<readonly [string, unknown]>(KINDS[kind].units, unit[kind])[0]);
  const rows = lines.map((line) => [
    line.t,
    ...columns.map(({ kind, cylinder }) => {
      const value = kind === "egt" || kind === "cht" ? line[kind][(cylinder ?? 1) - 1] : line[kind];
      const [, to] = of<readonly [string, (v: number) => number]>(KINDS[kind].units, unit[kind]);
      return Number(to(value ?? Number.NaN).toFixed(7));
    }),
  ]);
  const names = ["Time", ...(place === "brackets" ? head.map((text, i) => `${text} (${units[i]})`) : head)];
  const heads =
    place === "brackets"
      ? [names]
      : place === "row below"
        ? [names, ["s", ...units]]
        : [["s", ...units], names];
  const cell = semicolons ? ";" : ",";
  return `${[...heads, ...rows].map((row) => row.join(cell)).join("\n")}\n`;
}

const PLAIN: Manner = { name: {}, unit: {}, place: "brackets", semicolons: false };

function likeliest(one: UnseenCase, trace: Trace): { what: string; chance: number } {
  const sides = { first: one.engine.profile.firstSide } as const;
  const { reading, diagnosis } = judged(one, trace, sides, []);
  expect(orderByAnswer(one.engine.profile, reading.prompted, sides).firstSide).toBe(sides.first);
  const [best] = diagnosis.ranked;
  return {
    what: [best?.fault?.id, best?.side, best?.cylinder].join(),
    chance: best?.probability ?? Number.NaN,
  };
}

test("renaming the columns and changing the units changes nothing of what is shown of a run-up", () => {
  const cases = UNSEEN_CASE_PROBLEMS.map((trouble, i) => {
    const one = unseenCase(trouble, 610 + i);
    const { trace, faults, questions } = readTraceCsv(written(one, PLAIN));
    expect([faults, questions]).toEqual([[], []]);
    return { one, said: likeliest(one, trace) };
  });
  fc.assert(
    fc.property(fc.constantFrom(...cases), manner, ({ one, said }, how) => {
      const { trace, faults, questions } = readTraceCsv(written(one, how));
      expect([faults, questions]).toEqual([[], []]);
      const now = likeliest(one, trace);
      expect(now.what).toBe(said.what);
      expect(now.chance).toBeCloseTo(said.chance, 4);
    }),
    { numRuns: 30 },
  );
});
