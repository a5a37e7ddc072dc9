import fc from "fast-check";
import type { Source } from "../../judgement/judgement";
import { type AircraftRecord, recordFaults } from "../aircraft-record";
import { airworthinessSnapshot, judgeAirworthiness, type RequestedFlight } from "../airworthiness-snapshot";
import { addDays } from "../calendar/local-date";
import { dueItemsOf } from "../due-items-of";
import type { DueItem, DueLimit, WorkDone } from "./due-item";
import { dueJudgement } from "./due-judgement";
import { type NextDue, nextDue } from "./next-due";

/** How works relate: common practice of maintenance programmes; 14 CFR 91.409 for the annual and the 100-hour (from memory). */
const source: Source = { kind: "rule", text: "example", example: true };
const item = (id: string, limits: DueLimit[], more: Partial<DueItem> = {}): DueItem => ({
  id,
  name: id,
  kind: "inspection",
  limits,
  miss: "stop",
  source,
  ...more,
});
const hours = (every: number, more: object = {}): DueLimit => ({
  by: "meter",
  meter: "hours",
  every,
  ...more,
});
const months = (n: number, more: object = {}): DueLimit => ({
  by: "months",
  months: n,
  to: "same day",
  ...more,
});
const work = (id: string, date: string, at: number, more: Partial<WorkDone> = {}): WorkDone => ({
  item: id,
  date,
  totals: { hours: at, tach: at },
  ...more,
});
const record = (items: DueItem[], more: Partial<AircraftRecord> = {}): AircraftRecord => ({
  format: "cravix.airworthiness/1",
  registration: "QX-TST",
  meters: [
    { id: "hours", name: "Hour meter", kind: "hour meter", decimals: 1 },
    { id: "tach", name: "Tachometer", kind: "tachometer time", decimals: 1, runs: { perHour: 0.8 } },
  ],
  start: { at: "2024-05-03T12:00:00.000Z", totals: { hours: 1000, tach: 800 } },
  components: [],
  fittings: [],
  items,
  works: [],
  ...more,
});
const dueOf = (id: string, of: AircraftRecord, released: WorkDone[] = []): NextDue =>
  dueItemsOf(of, released).find((one) => one.item.id === id)?.due as NextDue;
const FLIGHT: RequestedFlight = { at: "2026-06-01T10:00:00Z", minutes: 60, conditions: [] };
const judged = (
  of: AircraftRecord,
  asked: Partial<RequestedFlight> = {},
  totals = { hours: 1000, tach: 800 },
) =>
  Object.fromEntries(
    judgeAirworthiness(airworthinessSnapshot(of, { totals }), { ...FLIGHT, ...asked }).map(
      ({ item: { id }, verdict }) => [id, verdict],
    ),
  );

const ANNUAL = item("annual", [{ by: "months", months: 12, to: "month end" }], { does: ["hundred"] });
const HUNDRED = item("hundred", [hours(100)]);

describe("works that include others", () => {
  const both = record([ANNUAL, HUNDRED]);

  it("an annual does the 100-hour, and says so", () => {
    const due = dueOf("hundred", both, [
      work("hundred", "2026-01-10", 1000),
      work("annual", "2026-03-03", 1040),
    ]);
    expect(due.points).toMatchObject([{ at: 1140 }]);
    expect(due.last).toMatchObject({ date: "2026-03-03", through: "annual" });
    // Not the other way round.
    expect(dueOf("annual", both, [work("hundred", "2026-01-10", 1000)]).unknown).toBe(true);
  });

  it("also through several items, and a circle ends", () => {
    const chain = record([
      item("a", [hours(500)], { does: ["b"] }),
      item("b", [hours(100)], { does: ["c"] }),
      item("c", [hours(50)], { does: ["a"] }),
    ]);
    expect(dueOf("c", chain, [work("a", "2026-01-10", 1000)]).points).toMatchObject([{ at: 1050 }]);
    expect(dueOf("a", chain, [work("c", "2026-01-10", 1000)]).points).toMatchObject([{ at: 1500 }]);
  });

  it("a new printed date belongs to the item it was entered for", () => {
    const dated = record([
      item("policy", [{ by: "date", date: "2026-01-01" }], { does: ["other"] }),
      item("other", [{ by: "date", date: "2026-02-01" }]),
    ]);
    const renewed = [
      work("policy", "2026-01-01", 1000, { sets: { date: "2027-01-01", source: "policy 7" } }),
    ];
    expect(dueOf("policy", dated, renewed).points).toMatchObject([{ date: "2027-01-01" }]);
    expect(dueOf("other", dated, renewed).points).toMatchObject([{ date: "2026-02-01" }]);
  });

  it("the order of entry does not matter, and done twice is done once", () => {
    const works = fc.array(
      fc.record({
        id: fc.constantFrom("annual", "hundred"),
        day: fc.integer({ min: 0, max: 900 }),
      }),
      { minLength: 1, maxLength: 8 },
    );
    const made = (rows: { id: string; day: number }[]) =>
      rows.map(({ id, day }) => work(id, addDays("2024-06-01", day), 1000 + day));
    fc.assert(
      fc.property(works, fc.boolean(), fc.constantFrom(0, 20), (rows, keepsRhythm, rhythmWithin) => {
        const of = record([
          ANNUAL,
          item("hundred", [hours(100, { keepsRhythm, rhythmWithin }), months(4, { keepsRhythm })]),
        ]);
        const once = dueItemsOf(of, made(rows)).map(({ due }) => due.points);
        expect(dueItemsOf(of, made([...rows].reverse())).map(({ due }) => due.points)).toEqual(once);
        expect(dueItemsOf(of, made([...rows, ...rows])).map(({ due }) => due.points)).toEqual(once);
      }),
    );
  });
});

describe("items that end", () => {
  const directive = item("directive", [hours(25)], { endedBy: ["modification"] });
  const modification = item("modification", [hours(10_000)], { once: true });
  const of = record([directive, modification]);

  it("a recurring directive ends when the aircraft is modified", () => {
    const before = [work("directive", "2026-01-10", 1000)];
    expect(dueOf("directive", of, before).points).toMatchObject([{ at: 1025 }]);
    const after = dueOf("directive", of, [...before, work("modification", "2026-02-01", 1010)]);
    expect(after).toMatchObject({
      points: [],
      unknown: false,
      ended: { item: "modification", date: "2026-02-01" },
    });
    const verdict = judged({ ...of, works: [work("modification", "2026-02-01", 1000)] }).directive;
    expect(verdict?.state).toBe("in date");
  });
});

describe("first interval and rhythm", () => {
  it("a first interval differs from the following ones", () => {
    const magneto = item("magneto", [hours(100, { first: 1500 })]);
    expect(nextDue(magneto, []).points).toMatchObject([{ at: 1500 }]);
    expect(nextDue(magneto, [work("magneto", "2026-01-10", 1490)]).points).toMatchObject([{ at: 1590 }]);
    const hose = item("hose", [months(12, { first: 60 })]);
    const due = dueOf("hose", record([hose]));
    expect(due.points).toMatchObject([{ date: "2029-05-03" }]);
    expect(due.question).toContain("3 May 2024");
  });

  it("a rhythm keeps its day over short months: 31 January, 28 February, 31 March", () => {
    const monthly = item("monthly", [months(1, { keepsRhythm: true })]);
    const at = (...dates: string[]) =>
      nextDue(
        monthly,
        dates.map((date, i) => work("monthly", date, 1000 + i)),
      ).points[0];
    expect(at("2025-12-31")).toMatchObject({ date: "2026-01-31" });
    expect(at("2025-12-31", "2026-01-29")).toMatchObject({ date: "2026-02-28" });
    expect(at("2025-12-31", "2026-01-29", "2026-02-27")).toMatchObject({ date: "2026-03-31" });
    // Late: the rhythm stays, and a point in the past is not due again.
    expect(at("2025-12-31", "2026-02-10")).toMatchObject({ date: "2026-02-28" });
    expect(at("2025-12-31", "2026-04-02")).toMatchObject({ date: "2026-04-30" });
  });

  it("a late entry moves what came after it", () => {
    const tolerated = item("it", [
      hours(100, { tolerances: [{ most: 10, for: "any flight", takenOff: true, source }] }),
    ]);
    const [first, between, last] = [
      work("it", "2026-01-10", 1000),
      work("it", "2026-02-10", 1108),
      work("it", "2026-03-10", 1207),
    ];
    expect(nextDue(tolerated, [first, last]).points).toMatchObject([{ at: 1200 }]);
    expect(nextDue(tolerated, [first, last, between]).points).toMatchObject([{ at: 1300 }]);
    const rhythm = item("rhythm", [months(12, { keepsRhythm: true })]);
    const [march, late] = [work("rhythm", "2025-03-31", 900), work("rhythm", "2026-05-20", 950)];
    expect(nextDue(rhythm, [late]).points).toMatchObject([{ date: "2027-05-20" }]);
    expect(nextDue(rhythm, [late, march]).points).toMatchObject([{ date: "2027-03-31" }]);
  });

  it("an overrun comes off the next interval where the tolerance says so", () => {
    const tolerated = item("it", [
      hours(100, { tolerances: [{ most: 10, for: "any flight", takenOff: true, source }] }),
    ]);
    expect(
      nextDue(tolerated, [work("it", "2026-01-10", 1000), work("it", "2026-03-10", 1106)]).points,
    ).toMatchObject([{ at: 1200 }]);
  });
});

describe("tolerances", () => {
  const done = [work("it", "2025-05-31", 900)];
  const of = (limit: DueLimit) => record([item("it", [limit])], { works: done });

  it("for any flight, in months for a calendar limit; used up is used up", () => {
    const calendar = of({
      by: "months",
      months: 12,
      to: "month end",
      tolerances: [{ most: 1, unit: "months", for: "any flight", takenOff: true, source }],
    });
    expect(judged(calendar, { at: "2026-06-20T10:00:00Z" }).it?.state).toBe("under a tolerance");
    expect(judged(calendar, { at: "2026-07-01T10:00:00Z" }).it?.state).toBe("overdue");
    const metered = of(hours(100, { tolerances: [{ most: 10, for: "any flight", takenOff: true, source }] }));
    expect(judged(metered, {}, { hours: 1008.9, tach: 800 }).it?.state).toBe("under a tolerance");
    expect(judged(metered, { minutes: 90 }, { hours: 1008.9, tach: 800 }).it?.state).toBe("overdue");
  });
});

describe("kinds of flight", () => {
  const hire = record([item("hundred", [hours(100)], { for: ["hire", "instruction"] })], {
    works: [work("hundred", "2024-01-10", 800)],
  });

  it("what was not told is not known, never 'not for this flight'", () => {
    const verdict = judged(hire).hundred;
    expect(verdict).toMatchObject({ state: "not known", untold: ["hire", "instruction"] });
    const judgement = dueJudgement(hire.items[0] as DueItem, verdict as never, {
      hours: { kind: "hour meter", name: "Hour meter" },
    });
    expect(judgement).toMatchObject({ grade: "ask", action: "Say what this flight is for." });
    expect(judgement.sentence).toContain("hire and instruction");
    expect(judged(hire, { use: "private" }).hundred?.state).toBe("not for this flight");
    expect(judged(hire, { use: "hire" }).hundred?.state).toBe("overdue");
    expect(judged(hire, { conditions: ["solo student"] }).hundred?.state).toBe("overdue");
  });

  it("an item in date for every kind needs no answer", () => {
    expect(judged({ ...hire, works: [work("hundred", "2024-01-10", 950)] }).hundred?.state).toBe("in date");
  });

  it("airspace, seats and day into night can be told", () => {
    const transponder = (kinds: DueItem["for"]) =>
      record([item("it", [{ by: "date", date: "2026-01-01" }], { ...(kinds && { for: kinds }) })]);
    expect(judged(transponder(["transponder airspace"])).it?.state).toBe("not known");
    expect(
      judged(transponder(["transponder airspace"]), { airspace: { "transponder airspace": false } }).it
        ?.state,
    ).toBe("not for this flight");
    expect(
      judged(transponder(["transponder airspace"]), { airspace: { "transponder airspace": true } }).it?.state,
    ).toBe("overdue");
    expect(judged(transponder(["every seat occupied"]), { fullSeats: false }).it?.state).toBe(
      "not for this flight",
    );
    const byDay = (dayAndNight?: boolean) =>
      judged(transponder(["day"]), {
        conditions: ["night"],
        ...(dayAndNight !== undefined && { dayAndNight }),
      }).it?.state;
    expect(byDay()).toBe("not known");
    expect(byDay(false)).toBe("not for this flight");
    expect(byDay(true)).toBe("overdue");
  });

  it("on Monday, Friday's flight", () => {
    const card = record([item("it", [{ by: "date", date: "2026-06-03" }])]);
    expect(judged(card, { at: "2026-06-01T10:00:00Z" }).it?.state).toBe("in date");
    expect(judged(card, { at: "2026-06-05T10:00:00Z" }).it?.state).toBe("overdue");
  });
});

describe("meters", () => {
  it("an hour meter and a tachometer each take their own time of a flight", () => {
    const of = record([item("h", [hours(2)]), item("t", [{ by: "meter", meter: "tach", every: 2 }])], {
      works: [
        work("h", "2026-05-01", 1000),
        { ...work("t", "2026-05-01", 0), totals: { hours: 1000, tach: 800 } },
      ],
    });
    const verdicts = judged(of, { minutes: 120 });
    expect(verdicts.h?.first?.leftAfter).toBe(0);
    expect(verdicts.t?.first?.leftAfter).toBe(0.4);
  });

  it("a total can be the sum of two meters", () => {
    const of = record([item("airframe", [{ by: "meter", meter: "airframe", every: 50 }])], {
      meters: [
        { id: "winch", name: "Winch launches", kind: "winch launches", decimals: 0 },
        { id: "tow", name: "Aerotows", kind: "aerotows", decimals: 0 },
        { id: "airframe", name: "All launches", kind: "releases", decimals: 0, sumOf: ["winch", "tow"] },
      ],
      start: { at: "2024-05-03T12:00:00.000Z", totals: { winch: 700, tow: 300 } },
      works: [{ item: "airframe", date: "2026-01-01", totals: { winch: 700, tow: 260 } }],
    });
    expect(recordFaults(of)).toEqual([]);
    const verdict = judgeAirworthiness(airworthinessSnapshot(of, { totals: { winch: 700, tow: 300 } }), {
      ...FLIGHT,
      launch: "aerotow",
      landings: 2,
    })[0]?.verdict;
    expect(verdict?.first).toMatchObject({ left: 10, leftAfter: 8 });
  });

  it("a component without a fitting date ages from the beginning of the record, and is asked about", () => {
    const life = item("parachute life", [{ by: "months", months: 24, to: "same day" }], {
      kind: "life",
      of: "parachute",
    });
    const of = record([life], {
      components: [{ id: "parachute", name: "Parachute", kind: "parachute", sinceNew: {} }],
    });
    expect(judged(of, { at: "2026-05-01T10:00:00Z" })["parachute life"]).toMatchObject({
      state: "not known",
    });
    expect(judged(of, { at: "2026-05-04T10:00:00Z" })["parachute life"]).toMatchObject({ state: "overdue" });
    const fitted = {
      ...of,
      fittings: [
        {
          component: "parachute",
          registration: "QX-TST",
          on: { at: "2025-05-03T12:00:00.000Z", totals: {} },
        },
      ],
    };
    expect(judged(fitted, { at: "2026-05-04T10:00:00Z" })["parachute life"]).toMatchObject({
      state: "in date",
    });
  });

  it("a file is refused where an item counts what its owner does not", () => {
    const engine = { id: "engine", name: "Engine", kind: "engine", sinceNew: { tach: 100 } };
    const paths = (more: Partial<AircraftRecord>, items: DueItem[] = []) =>
      recordFaults(record(items, more)).map(({ path }) => path);
    expect(paths({ components: [engine] }, [item("x", [hours(100)], { of: "engine" })])).toEqual([
      "items[0].limits[0].meter",
    ]);
    expect(paths({}, [item("x", [hours(100)], { does: ["nothing"], endedBy: ["x"] })])).toEqual([
      "items[0].does",
      "items[0].endedBy",
    ]);
    expect(
      paths({ components: [engine] }, [
        HUNDRED,
        item("x", [hours(9)], { does: ["y"] }),
        item("y", [], { of: "engine" }),
      ]),
    ).toEqual(["items[1].does"]);
    const meters = record([]).meters;
    expect(
      paths({
        meters: [
          ...meters,
          {
            id: "sum",
            name: "Sum",
            kind: "hour meter",
            decimals: 1,
            sumOf: ["hours", "lost"],
            reading: "hours",
          },
        ],
      }),
    ).toEqual(["meters[2].sumOf", "meters[2]"]);
    expect(
      paths({}, [
        item("x", [
          hours(9, { tolerances: [{ most: 1, unit: "months", for: "planning", takenOff: false, source }] }),
        ]),
      ]),
    ).toEqual(["items[0].limits[0].tolerances[0].unit"]);
  });
});

describe("bad input", () => {
  const of = record([item("it", [hours(100)])], { works: [work("it", "2026-01-01", 950)] });

  it.each([
    Number.NaN,
    -5,
    Number.POSITIVE_INFINITY,
  ])("a flight of %d minutes is refused with the reason", (minutes) => {
    expect(() => judged(of, { minutes })).toThrow("Enter the planned flight time");
    expect(() => judged(of, { landings: minutes })).toThrow("Enter the planned landings");
  });

  it("two components with one serial number are refused", () => {
    const magneto = (id: string, serial: string) => ({ id, name: id, kind: "magneto", serial, sinceNew: {} });
    const paths = (...serials: string[]) =>
      recordFaults(record([], { components: serials.map((serial, i) => magneto(`m${i}`, serial)) })).map(
        ({ path }) => path,
      );
    expect(paths("A1", "A2")).toEqual([]);
    expect(paths("A1", "A1")).toEqual(["components[1].serial"]);
  });

  it("a record that holds what cannot be calculated still opens: that item says so, and no other", () => {
    const odd = record([item("it", [hours(100)]), item("other", [hours(50)])], {
      works: [{ item: "it", date: "2026-01-01", totals: {} }, work("other", "2026-01-01", 990)],
    });
    const verdicts = judged(odd);
    expect(verdicts.it).toMatchObject({ state: "not known", problem: expect.stringContaining("hours") });
    expect(verdicts.other?.state).toBe("in date");
  });
});

test("a shift of the time zone moves only local days", () => {
  const zones = ["Pacific/Auckland", "UTC", "America/Los_Angeles"];
  const due = zones.map((timeZone) => {
    const of = record([item("date", [{ by: "date", date: "2026-06-01" }]), item("it", [hours(100)])], {
      timeZone,
      works: [work("it", "2026-01-01", 950)],
    });
    const verdicts = judged(of, { at: "2026-06-01T13:00:00Z" });
    return [verdicts.date?.state, verdicts.it?.first?.leftAfter];
  });
  expect(due).toEqual([
    ["overdue", 49],
    ["in date", 49],
    ["in date", 49],
  ]);
});
