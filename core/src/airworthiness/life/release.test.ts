import type { Meter } from "../meters/meter";
import { missingReading, releaseFaults, type WorkRelease } from "./release";

const hours: Meter = { id: "hours", name: "Hour meter", kind: "hour meter", decimals: 1 };
const left: Meter = { ...hours, id: "left", name: "Left wing hours" };
const sum: Meter = { ...hours, id: "sum", name: "Airframe", sumOf: ["hours", "left"] };

const release: WorkRelease = {
  registration: "QX-TST",
  date: "2026-05-01",
  done: "Oil and filter changed.",
  readings: { hours: 1000.4 },
  works: [{ item: "oil", date: "2026-05-01", totals: {} }],
  closes: [],
  leaves: [],
  certificate: { kind: "airframe", number: "7" },
};
const faults = (more: Partial<WorkRelease>, late = false) =>
  releaseFaults(
    { ...release, ...more },
    {
      meters: [hours],
      totals: { hours: 1000.1 },
      works: [{ item: "oil", date: "2026-04-20", totals: {} }],
      today: "2026-05-01",
      signedAt: "2026-05-01T10:00:00Z",
      late,
      built: 2016,
    },
  );

describe("a release to service", () => {
  it.each<[string, Partial<WorkRelease>, string[]]>([
    ["complete", {}, []],
    ["without a date", { date: "" }, ["date"]],
    ["in the future", { date: "2031-05-01" }, ["date"]],
    ["before the aircraft was built", { date: "1999-05-01" }, ["date"]],
    ["nothing done", { done: "  " }, ["done"]],
    ["covering nothing", { works: [] }, ["works"]],
    ["unreadable reading", { readings: { hours: Number.NaN } }, ["readings.hours"]],
    ["more digits than the meter has", { readings: { hours: 1000.45 } }, ["readings.hours"]],
    ["a meter that went back", { readings: { hours: 999.9 } }, ["readings.hours"]],
    ["a digit too many", { readings: { hours: 10004 } }, ["readings.hours"]],
    ["entered late, behind the log", { date: "2026-04-25", readings: { hours: 999.9 } }, []],
    ["no certificate number", { certificate: { kind: "airframe", number: "" } }, ["certificate"]],
  ])("%s", (_, more, at) => expect(faults(more).map((fault) => fault.at)).toEqual(at));

  it("before other work on the same item is asked, with the date in words, and accepted once confirmed", () => {
    expect(faults({ date: "2026-04-01" })).toEqual([
      {
        at: "date",
        words: "A later entry for this item exists, dated 20 April 2026. Check the date.",
        confirm: "late entry",
      },
    ]);
    expect(faults({ date: "2026-04-01" }, true)).toEqual([]);
  });
});

describe("the reading that the next due point needs", () => {
  const by = (meter: string) => ({ limits: [{ by: "meter" as const, meter, every: 50 }] });

  it.each([
    ["entered", by("hours"), { hours: 1000 }, undefined],
    ["missing", by("hours"), {}, "hours"],
    ["a sum with all its parts", by("sum"), { hours: 1000, left: 20 }, undefined],
    ["a sum with one part", by("sum"), { hours: 1000 }, "left"],
    ["a meter that is not there", by("gone"), {}, "gone"],
    [
      "counted by months",
      { limits: [{ by: "months" as const, months: 12, to: "month end" as const }] },
      {},
      undefined,
    ],
  ])("%s", (_, item, readings, id) =>
    expect(missingReading(item, readings, [hours, left, sum])?.id).toBe(id));
});
