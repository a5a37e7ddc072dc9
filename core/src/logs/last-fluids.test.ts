import fc from "fast-check";
import type { AircraftType } from "../aircraft/aircraft-type";
import type { FluidRow } from "./fluid-rows";
import { lastFluids } from "./last-fluids";

const source = { kind: "handbook", text: "servicing", example: true } as const;
const tank = (id: string) => ({ id, name: id, capacityL: 100, unusableL: 5 });
const type = {
  fuel: { tanks: [tank("left"), tank("right")], grades: ["100LL"] },
  oil: { minimumQt: 6, maximumQt: 8, source },
} as unknown as Pick<AircraftType, "fuel" | "oil" | "engines">;

const row = (more: Partial<FluidRow>): FluidRow => ({
  registration: "QX-TAR",
  fluid: "fuel",
  entry: "measured",
  amount: 40,
  unit: "L",
  at: "2026-05-01T09:00:00.000Z",
  ...more,
});
const ROWS: FluidRow[] = [
  row({ part: "left", amount: 50, at: "2026-05-02T09:00:00.000Z" }),
  row({ part: "left", amount: 30 }),
  row({ part: "right", amount: 41, at: "2026-05-02T09:01:00.000Z" }),
  row({ entry: "uplift", part: "left", amount: 99, at: "2026-05-01T12:00:00.000Z" }),
  row({ entry: "uplift", part: "right", amount: 20, at: "2026-05-02T15:00:00.000Z" }),
  row({ entry: "burn", amount: 25, at: "2026-05-02T14:00:00.000Z" }),
  row({ fluid: "oil", entry: "level", amount: 6.5, unit: "US qt" }),
  row({ fluid: "oil", entry: "level", amount: 6, unit: "L", at: "2026-05-02T09:00:00.000Z" }),
  row({ fluid: "oil", entry: "added", amount: 1, unit: "US qt", at: "2026-05-01T10:00:00.000Z" }),
];

test("the newest of each tank and engine counts, and what was added after it", () => {
  const { fuel, oil } = lastFluids(type, ROWS);
  expect(fuel).toEqual({
    litres: 91,
    at: "2026-05-02T09:00:00.000Z",
    measured: 2,
    tanks: 2,
    putInL: 20,
  });
  // 1 US quart is 0.946352946 L: NIST Handbook 44, appendix C (from memory).
  expect(oil).toHaveLength(1);
  expect(oil[0]?.qt).toBeCloseTo(6 / 0.946352946, 9);
  expect(oil[0]).toMatchObject({ at: "2026-05-02T09:00:00.000Z", minimumQt: 6 });
  expect(oil[0]?.putInQt).toBeUndefined();
});

test("the order of the lines changes nothing", () => {
  const told = lastFluids(type, ROWS);
  fc.assert(
    fc.property(fc.shuffledSubarray(ROWS, { minLength: ROWS.length }), (rows) => {
      expect(lastFluids(type, rows)).toEqual(told);
    }),
  );
});

test("a tank that was not measured is not counted as empty, and a line that is no amount counts for nothing", () => {
  const { fuel, oil } = lastFluids(type, [
    row({ part: "left", amount: 12 }),
    row({ part: "right", amount: Number.NaN }),
    row({ part: "tip", entry: "dip", unit: "cm" }),
  ]);
  expect(fuel).toMatchObject({ litres: 12, measured: 1, tanks: 2 });
  expect(oil).toEqual([]);
});

test("a glider has neither", () => {
  expect(lastFluids({}, ROWS)).toEqual({ oil: [] });
});
