import type { EventData, EventType, PreflightEvent, StreamKind } from "../checklist/stream/events";
import { type AirworthinessOnFile, applyAirworthinessEvents } from "./apply-airworthiness-events";

const papers: AirworthinessOnFile = {
  record: {
    format: "cravix.airworthiness/1",
    registration: "QX-TST",
    timeZone: "Pacific/Kiritimati",
    meters: [
      { id: "hours", name: "Hour meter", kind: "hour meter", decimals: 1, reading: "hours" },
      { id: "landings", name: "Landings", kind: "landings", decimals: 0 },
    ],
    start: { at: "2025-01-01T00:00:00.000Z", totals: { hours: 100, landings: 10 } },
    components: [],
    fittings: [],
    items: [],
    works: [],
  },
  released: [],
  left: [],
  totals: { hours: 120, landings: 40 },
  lastLine: null,
  recent: ["known"],
  days: [],
  daily: null,
};
let n = 0;
const event = <T extends EventType>(
  type: T,
  data: EventData[T],
  id = `e${n++}`,
  stream: StreamKind = "aircraft",
) =>
  ({
    id,
    type,
    stream,
    streamId: id,
    deviceId: "d",
    crewId: "kofi",
    at: "2026-05-01T12:00:00.000Z",
    data,
  }) as PreflightEvent;
const flight: EventData["flight.logged"] = {
  registration: "QX-TST",
  from: "here",
  to: "there",
  off: "2026-05-01T10:30:00.000Z",
  on: "2026-05-01T11:30:00.000Z",
  pilot: "ines",
  meters: { hours: { out: 120, in: 121 } },
  counts: { landings: 3 },
};
const release: EventData["work.released"] = {
  registration: "QX-TST",
  date: "2026-05-01",
  done: "oil",
  readings: { hours: 121 },
  works: [{ item: "oil", date: "2026-05-01", totals: {} }],
  closes: [],
  leaves: [],
  certificate: { kind: "k", number: "n" },
};

describe("airworthiness data with what happened on this device", () => {
  it("a flight goes onto the totals once, though the server may know it already, and on the day of its place", () => {
    const now = applyAirworthinessEvents(papers, [event("flight.logged", flight, "new", "flight")]);
    expect(now.totals).toEqual({ hours: 121, landings: 43 });
    expect(now.lastLine?.id).toBe("new");
    // West of the date line it was still the day before.
    expect(now.days).toEqual([{ date: "2026-05-02", uses: { hours: 1, landings: 3 } }]);
    expect(
      applyAirworthinessEvents(papers, [event("flight.logged", flight, "known", "flight")]).totals,
    ).toEqual(papers.totals);
    expect(applyAirworthinessEvents(now, [event("flight.logged", flight, "new", "flight")])).toEqual(now);
  });

  it("a release struck out counts no more, whoever knew of it", () => {
    const one = event("work.released", release, "r1");
    const struck = event("release.withdrawn", { registration: "QX-TST", of: "r1", why: "wrong reading" });
    expect(applyAirworthinessEvents(papers, [one, struck])).toEqual(papers);
    // In any order: a device with a slow clock may have struck it out.
    expect(applyAirworthinessEvents(papers, [struck, one])).toEqual(papers);
    const known = applyAirworthinessEvents(papers, [one]);
    expect(applyAirworthinessEvents(known, [struck]).released).toEqual([]);
  });

  it("a release counts by what its meters read, and once", () => {
    const one = event("work.released", release, "r1");
    const now = applyAirworthinessEvents(papers, [one]);
    expect(now.released).toEqual([
      { item: "oil", date: "2026-05-01", totals: { hours: 121 }, release: "r1" },
    ]);
    expect(applyAirworthinessEvents(now, [one])).toEqual(now);
  });

  it("a meter that was replaced goes on, a daily inspection is the last one, and another aircraft's is not this one's", () => {
    const now = applyAirworthinessEvents(papers, [
      event("meter.replaced", { registration: "QX-TST", meter: "hours", oldReading: 120, newReading: 0 }),
      event("daily.signed", { registration: "QX-TST", date: "2026-05-01" }),
      event("daily.signed", { registration: "QX-OTH", date: "2026-05-09" }),
      event("work.released", { ...release, registration: "QX-OTH" }),
    ]);
    expect(now.record.meters[0]?.changes).toHaveLength(1);
    expect(now.daily).toMatchObject({ date: "2026-05-01", crewId: "kofi" });
    expect(now.released).toEqual([]);
    const later = { ...flight, on: "2026-05-02T11:30:00.000Z", meters: { hours: { out: 0, in: 1.5 } } };
    expect(applyAirworthinessEvents(now, [event("flight.logged", later, "x", "flight")]).totals.hours).toBe(
      121.5,
    );
  });
});

test("the last line corrected or struck out counts at once: what it had put there is undone", () => {
  const slip = event("flight.logged", { ...flight, counts: { landings: 30 } }, "slip", "flight");
  const logged = applyAirworthinessEvents(papers, [slip]);
  expect(logged.totals).toEqual({ hours: 121, landings: 70 });
  const right = event(
    "flight.corrected",
    {
      registration: "QX-TST",
      of: "slip",
      line: { ...flight, meters: { hours: { out: 120, in: 120.8 } } },
      why: "x",
    },
    "c1",
    "flight",
  );
  const corrected = applyAirworthinessEvents(papers, [slip, right]);
  expect(corrected.totals).toEqual({ hours: 120.8, landings: 43 });
  expect(corrected.lastLine?.counts.landings).toBe(3);
  expect(corrected.days).toHaveLength(1);
  // Repeats change nothing.
  expect(applyAirworthinessEvents(corrected, [right])).toEqual(corrected);
  const struck = event("flight.corrected", { registration: "QX-TST", of: "slip", why: "x" }, "c2", "flight");
  expect(applyAirworthinessEvents(papers, [slip, right, struck])).toMatchObject({
    totals: { hours: 120, landings: 40 },
    lastLine: null,
    days: [],
  });
  // Only the server can correct an older entry.
  const older = event("flight.corrected", { registration: "QX-TST", of: "known", why: "x" }, "c3", "flight");
  expect(applyAirworthinessEvents(papers, [older])).toEqual(papers);
});

test("a component that comes off takes what is due on it along", () => {
  const source = { kind: "handbook" as const, text: "example", example: true };
  const fitted: AirworthinessOnFile = {
    ...papers,
    record: {
      ...papers.record,
      components: [{ id: "mag", name: "Magneto", kind: "magneto", sinceNew: { hours: 10 } }],
      items: [
        {
          id: "mag",
          name: "Magneto",
          kind: "inspection",
          of: "mag",
          limits: [{ by: "meter", meter: "hours", every: 500 }],
          miss: "stop",
          source,
        },
      ],
      works: [{ item: "mag", date: "2026-01-01", totals: { hours: 5 } }],
    },
  };
  const off = event("component.removed", {
    registration: "QX-TST",
    component: "mag",
    totals: { hours: 120 },
  });
  // It was never recorded as fitted, so it cannot be removed.
  expect(applyAirworthinessEvents(fitted, [off]).record.fittings).toEqual([]);
  const on = event("component.fitted", {
    registration: "QX-TST",
    component: { id: "QX-OLD.mag", name: "Magneto", kind: "magneto", sinceNew: { hours: 77 } },
    items: [],
    works: [],
    position: "left",
    totals: { hours: 120, landings: 40 },
  });
  expect(applyAirworthinessEvents(fitted, [on]).record.fittings).toMatchObject([
    { component: "QX-OLD.mag", position: "left" },
  ]);
});
