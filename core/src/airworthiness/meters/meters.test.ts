import { type Component, componentTotals, type Fitting, fittingFaults, sinceOverhaul } from "./component";
import { type Meter, offsetAt, readingFault, readingFor, totalOf } from "./meter";

const hours: Meter = { id: "hours", name: "Hour meter", kind: "hour meter", decimals: 1 };
const replaced: Meter = {
  ...hours,
  changes: [
    { at: "2026-01-10T12:00:00Z", oldReading: 4211.3, newReading: 0 },
    { at: "2026-04-10T12:00:00Z", oldReading: 60.5, newReading: 100 },
  ],
};

describe("a meter", () => {
  it("that is replaced twice continues where the old one ended", () => {
    expect(totalOf(replaced, 4211.3, "2026-01-10T11:00:00Z")).toBe(4211.3);
    expect(totalOf(replaced, 0.9, "2026-01-11T11:00:00Z")).toBe(4212.2);
    expect(totalOf(replaced, 100.4, "2026-04-11T11:00:00Z")).toBe(4272.2);
    expect(readingFor(replaced, 4272.2, "2026-04-11T11:00:00Z")).toBe(100.4);
    // The exact moment still belongs to the old meter.
    expect(offsetAt(replaced, "2026-01-10T12:00:00Z")).toBe(0);
  });

  it("fitted later has the total from before", () => {
    expect(totalOf({ ...hours, offset: 1200 }, 10.1, "2026-01-01T00:00:00Z")).toBe(1210.1);
  });

  it("reports what is wrong with a reading on its own", () => {
    expect(readingFault(hours, 4211.3)).toBeUndefined();
    expect(readingFault(hours, 4211.34)).toContain("too many digits");
    expect(readingFault({ ...hours, decimals: 0, kind: "landings", name: "Landings" }, 3.5)).toContain(
      "whole",
    );
    expect(readingFault(hours, -1)).toContain("enter 0 or a higher number");
    expect(readingFault(hours, Number.NaN)).toContain("enter 0 or a higher number");
    expect(readingFault(hours, 2e6)).toContain("is too high");
    expect(() => totalOf(hours, -1, "2026-01-01T00:00:00Z")).toThrow();
  });
});

describe("a component", () => {
  const engine: Component = {
    id: "engine-1",
    name: "Engine",
    kind: "engine",
    sinceNew: { hours: 1500 },
    sinceOverhaul: { hours: 300 },
  };
  const fitting = (
    registration: string,
    on: [string, number],
    off?: [string, number],
    position = "engine",
  ): Fitting => ({
    component: "engine-1",
    registration,
    position,
    on: { at: on[0], totals: { hours: on[1] } },
    ...(off && { off: { at: off[0], totals: { hours: off[1] } } }),
  });

  it("keeps its times when it moves to another aircraft", () => {
    const moved = [
      fitting("QX-TAR", ["2025-01-01", 4000], ["2025-06-01", 4120.5]),
      fitting("QX-COR", ["2025-07-01", 900]),
    ];
    expect(componentTotals(engine, moved, { hours: 930.2 })).toEqual({ hours: 1650.7 });
    expect(sinceOverhaul(engine, { hours: 1650.7 })).toEqual({ hours: 450.7 });
    expect(
      sinceOverhaul(engine, { hours: 1650.7 }, [{ at: "2025-06-20", sinceNew: { hours: 1620.5 } }]),
    ).toEqual({
      hours: 30.2,
    });
  });

  it("on two aircraft at once, two in one position, removed before fitted: reported", () => {
    expect(
      fittingFaults([fitting("QX-TAR", ["2025-01-01", 1]), fitting("QX-COR", ["2025-02-01", 1])])[0],
    ).toContain("at the same time");
    const other = { ...fitting("QX-TAR", ["2025-02-01", 1]), component: "engine-2" };
    expect(fittingFaults([fitting("QX-TAR", ["2025-01-01", 1]), other])[0]).toContain(
      "are both fitted as engine",
    );
    expect(fittingFaults([fitting("QX-TAR", ["2025-03-01", 1], ["2025-02-01", 1])])[0]).toContain(
      "before it was fitted",
    );
    expect(
      fittingFaults([
        fitting("QX-TAR", ["2025-01-01", 1], ["2025-02-01", 9]),
        fitting("QX-COR", ["2025-02-01", 1]),
      ]),
    ).toEqual([]);
  });

  it("cannot be removed with less time than it was fitted with", () => {
    const removed = [fitting("QX-TAR", ["2025-01-01", 100], ["2025-02-01", 90])];
    expect(() => componentTotals(engine, removed, { hours: 120 })).toThrow(/lower than at fitting/);
    expect(() => componentTotals(engine, [fitting("QX-TAR", ["2025-01-01", 100])], { hours: 90 })).toThrow(
      "fitted at 100.0, but the aircraft has only 90.0",
    );
  });
});
