import type { AircraftRecord } from "./aircraft-record";
import { recordFaults } from "./aircraft-record";
import { airworthinessSnapshot, judgeAirworthiness } from "./airworthiness-snapshot";
import { applyComponentMove, componentAsItIs, fittingError, isFitted } from "./component-moves";
import type { DueItem } from "./due/due-item";
import { componentTotals } from "./meters/component";

const source = { kind: "handbook" as const, text: "example", example: true };
const OVERHAUL: DueItem = {
  id: "magneto",
  name: "Magneto inspection",
  kind: "inspection",
  of: "mag",
  limits: [{ by: "meter", meter: "hours", every: 500 }],
  miss: "stop",
  source,
};

const record = (registration: string, hours: number, more: Partial<AircraftRecord> = {}): AircraftRecord => ({
  format: "cravix.airworthiness/1",
  registration,
  meters: [{ id: "hours", name: "Hour meter", kind: "hour meter", decimals: 1 }],
  start: { at: "2026-01-01T00:00:00.000Z", totals: { hours } },
  components: [],
  fittings: [],
  items: [],
  works: [],
  ...more,
});

/** Fitted at 1,000 h of the aircraft with 120 h since new; last inspected at 100 h since new. */
const FIRST = record("QX-AAA", 1000, {
  components: [
    {
      id: "mag",
      name: "Left magneto",
      kind: "magneto",
      sinceNew: { hours: 120 },
      sinceOverhaul: { hours: 20 },
    },
  ],
  fittings: [
    {
      component: "mag",
      registration: "QX-AAA",
      position: "left",
      on: { at: "2026-01-01T00:00:00.000Z", totals: { hours: 1000 } },
    },
  ],
  items: [OVERHAUL],
  works: [{ item: "magneto", date: "2025-06-01", totals: { hours: 100 } }],
});
const left = (of: AircraftRecord, hours: number) =>
  judgeAirworthiness(airworthinessSnapshot(of, { totals: { hours } }), {
    at: "2026-06-01T08:00:00.000Z",
    minutes: 60,
    conditions: [],
  }).map(({ item, verdict }) => [item.id, verdict.first?.left]);

test("by hand: 120 h, 50 more on the first aircraft, then 30 on the second; 500 h with 100 h used leave 400", () => {
  // On the first aircraft: 120 + 50 = 170 h since new; due at 600, 430 left.
  expect(left(FIRST, 1050)).toEqual([["magneto", 430]]);
  const off = componentAsItIs(FIRST, "mag", { hours: 1050 });
  expect(off?.component).toMatchObject({ sinceNew: { hours: 170 }, sinceOverhaul: { hours: 70 } });
  expect(off?.works).toHaveLength(1);
  const first = applyComponentMove(FIRST, {
    at: "2026-05-01T10:00:00.000Z",
    component: "mag",
    totals: { hours: 1050 },
  });
  // Removed: nothing of it is due here, and it accumulates nothing however far this aircraft flies.
  expect(isFitted(first, "mag")).toBe(false);
  expect(left(first, 9999)).toEqual([]);
  const [mag] = first.components;
  expect(mag && componentTotals(mag, first.fittings, { hours: 9999 })).toEqual({ hours: 170 });

  const second = applyComponentMove(record("QX-BBB", 4000), {
    at: "2026-05-02T10:00:00.000Z",
    fitted: off as NonNullable<typeof off>,
    position: "left",
    totals: { hours: 4000 },
  });
  expect(recordFaults(second)).toEqual([]);
  expect(left(second, 4000)).toEqual([["magneto", 430]]);
  expect(left(second, 4030)).toEqual([["magneto", 400]]);
});

test("back on the first aircraft its times continue, and earlier flights are counted once", () => {
  const off = componentAsItIs(FIRST, "mag", { hours: 1050 });
  const gone = applyComponentMove(FIRST, {
    at: "2026-05-01T10:00:00.000Z",
    component: "mag",
    totals: { hours: 1050 },
  });
  const back = applyComponentMove(gone, {
    at: "2026-06-01T10:00:00.000Z",
    fitted: off as NonNullable<typeof off>,
    totals: { hours: 1100 },
  });
  const mag = back.components.find(({ id }) => id === "QX-AAA.mag");
  expect(mag && componentTotals(mag, back.fittings, { hours: 1110 })).toEqual({ hours: 180 });
  expect(left(back, 1110)).toEqual([["magneto", 420]]);
  // Reported twice, fitted once.
  const twice = applyComponentMove(back, {
    at: "2026-06-01T10:00:00.000Z",
    fitted: off as NonNullable<typeof off>,
    totals: { hours: 1100 },
  });
  expect(twice).toEqual(back);
});

test("its due items keep their names beside others of the same name", () => {
  const off = componentAsItIs(FIRST, "mag", { hours: 1050 });
  const other = record("QX-BBB", 4000, {
    items: [{ ...OVERHAUL, of: undefined as never, limits: [{ by: "meter", meter: "hours", every: 50 }] }],
    works: [{ item: "magneto", date: "2026-01-01", totals: { hours: 3990 } }],
  });
  const both = applyComponentMove(other, {
    at: "2026-05-02T10:00:00.000Z",
    fitted: off as NonNullable<typeof off>,
    totals: { hours: 4000 },
  });
  expect(both.items.map(({ id }) => id)).toEqual(["magneto", "QX-AAA.mag.magneto"]);
  expect(left(both, 4010)).toEqual([
    ["magneto", 30],
    ["QX-AAA.mag.magneto", 420],
  ]);
});

test("two aircraft may use the same engine name: in storage each gets its own", () => {
  const name = (of: AircraftRecord) => componentAsItIs(of, "mag", { hours: 5000 })?.component.id;
  expect(name(FIRST)).toBe("QX-AAA.mag");
  expect(name({ ...FIRST, registration: "QX-CCC" })).toBe("QX-CCC.mag");
  const off = componentAsItIs(FIRST, "mag", { hours: 1050 }) as NonNullable<
    ReturnType<typeof componentAsItIs>
  >;
  const on = applyComponentMove(record("QX-BBB", 4000), {
    at: "2026-05-02T10:00:00.000Z",
    fitted: off,
    totals: { hours: 4000 },
  });
  expect(componentAsItIs(on, "QX-AAA.mag", { hours: 4010 })?.component).toMatchObject({
    id: "QX-AAA.mag",
    sinceNew: { hours: 180 },
  });
});

test("it is not fitted where its life cannot be counted, or where something is fitted already", () => {
  const off = componentAsItIs(FIRST, "mag", { hours: 1050 }) as NonNullable<
    ReturnType<typeof componentAsItIs>
  >;
  const on = applyComponentMove(record("QX-BBB", 4000), {
    at: "2026-05-02T10:00:00.000Z",
    fitted: off,
    totals: { hours: 4000 },
  });
  expect(fittingError(on, off, undefined)).toContain("already fitted to QX-BBB");
  const counted = {
    ...record("QX-GLI", 0),
    meters: [{ id: "landings", name: "Landings", kind: "landings" as const, decimals: 0 }],
  };
  expect(fittingError(counted, off, undefined)).toContain("tracked by hours");
  const other = { ...off, component: { ...off.component, id: "mag-2" } };
  expect(fittingError(FIRST, other, "left")).toBe(
    "Left magneto is already fitted at this position. Remove it first.",
  );
  expect(fittingError(FIRST, other, "right")).toBeUndefined();
  expect(componentAsItIs(FIRST, "none", { hours: 1 })).toBeUndefined();
});

test("an item whose id is taken gets one that every file accepts, however long both are, and keeps its works", () => {
  const id = "i".repeat(120);
  const item = { ...OVERHAUL, id, of: "c".repeat(120) };
  const component = { id: "c".repeat(120), name: "Propeller", kind: "propeller", sinceNew: { hours: 10 } };
  const works = [{ item: id, date: "2025-06-01", totals: { hours: 5 } }];
  const { of: _, ...taken } = item;
  const fitted = applyComponentMove(record("QX-AAA", 1000, { items: [taken] }), {
    at: "2026-05-01T10:00:00.000Z",
    fitted: { component, items: [item], works },
    totals: { hours: 1000 },
  });
  const [, moved] = fitted.items;
  expect(moved?.id).toBe(`${"i".repeat(112)}.2`);
  expect(fitted.works).toEqual([{ ...works[0], item: moved?.id }]);
  // Short ids stay readable.
  const short = applyComponentMove(record("QX-AAA", 1000, { items: [{ ...taken, id: "overhaul" }] }), {
    at: "2026-05-01T10:00:00.000Z",
    fitted: {
      component: { ...component, id: "propeller" },
      items: [{ ...item, id: "overhaul" }],
      works: [],
    },
    totals: { hours: 1000 },
  });
  expect(short.items[1]?.id).toBe("propeller.overhaul");
});
