import fc from "fast-check";
import type { Source } from "../../judgement/judgement";
import { addDays, dateOfDay, dayNumber } from "../calendar/local-date";
import type { DueItem, DueLimit, Tolerance, WorkDone } from "./due-item";
import { dueJudgement, isSoon } from "./due-judgement";
import { judgeDue, type MeterKinds, type PlannedFlight } from "./judge-due";
import { nextDue } from "./next-due";

const source: Source = { kind: "rule", text: "example", example: true };
const meters: MeterKinds = {
  hours: { kind: "hour meter", name: "Hour meter" },
  landings: { kind: "landings", name: "Landings" },
};
/** 14 CFR 91.409(b), from memory: at most 10 h to reach the place of the inspection, and they come off the next 100. */
const ferry: Tolerance = { most: 10, for: "to the place of the work", takenOff: true, source };
const item = (limits: DueLimit[], more: Partial<DueItem> = {}): DueItem => ({
  id: "it",
  name: "It",
  kind: "inspection",
  limits,
  miss: "stop",
  source,
  ...more,
});
const done = (date: string, hours: number, more: Partial<WorkDone> = {}): WorkDone => ({
  item: "it",
  date,
  totals: { hours, landings: 0 },
  ...more,
});
const flight = (uses: Record<string, number>, more: Partial<PlannedFlight> = {}): PlannedFlight => ({
  ends: "2026-06-01",
  uses,
  kinds: ["day"],
  ...more,
});
const now = (hours: number, date = "2026-06-01") => ({ date, totals: { hours, landings: 900 } });
const judge = (it: DueItem, works: WorkDone[], hours: number, planned: PlannedFlight, date?: string) =>
  judgeDue(it, nextDue(it, works), now(hours, date), planned, meters);

describe("what is due next", () => {
  it("annual: 12 calendar months end with the month (14 CFR 91.409(a), from memory)", () => {
    const annual = item([{ by: "months", months: 12, to: "month end" }]);
    expect(nextDue(annual, [done("2026-03-03", 4000)]).points).toMatchObject([{ date: "2027-03-31" }]);
    // A leap day, and a shorter month.
    expect(nextDue(annual, [done("2028-02-29", 4000)]).points).toMatchObject([{ date: "2029-02-28" }]);
    expect(nextDue(annual, [done("2027-02-10", 4000)]).points).toMatchObject([{ date: "2028-02-29" }]);
  });

  it("to the same day, where the item counts exactly", () => {
    const exact = item([{ by: "months", months: 4, to: "same day" }]);
    expect(nextDue(exact, [done("2026-10-31", 4000)]).points).toMatchObject([{ date: "2027-02-28" }]);
    const vor = item([{ by: "days", days: 30 }]);
    expect(nextDue(vor, [done("2026-01-31", 4000)]).points).toMatchObject([{ date: "2026-03-02" }]);
  });

  it("100 h: done at 4,180.0, due at 4,280.0; flown to 4,286.5 on a permitted ferry, next at 4,380.0", () => {
    const hundred = item([{ by: "meter", meter: "hours", every: 100, tolerances: [ferry] }]);
    expect(nextDue(hundred, [done("2026-01-10", 4180)]).points).toMatchObject([{ at: 4280 }]);
    const after = [
      done("2026-01-10", 4180),
      done("2026-05-02", 4286.5, { under: "to the place of the work" }),
    ];
    expect(nextDue(hundred, after).points).toMatchObject([{ at: 4380 }]);
    // Purpose not recorded: the shorter interval is the safe one.
    expect(
      nextDue(hundred, [after[0], { ...after[1], under: undefined }] as WorkDone[]).points,
    ).toMatchObject([{ at: 4380 }]);
  });

  it("early work restarts the interval there, unless it is within the rhythm", () => {
    const plain = item([{ by: "meter", meter: "hours", every: 50 }]);
    const works = [done("2026-01-10", 1000), done("2026-02-10", 1046)];
    expect(nextDue(plain, works).points).toMatchObject([{ at: 1096 }]);
    const rhythm = item([{ by: "meter", meter: "hours", every: 50, rhythmWithin: 5 }]);
    expect(nextDue(rhythm, works).points).toMatchObject([{ at: 1100 }]);
    expect(nextDue(rhythm, [done("2026-01-10", 1000), done("2026-02-10", 1030)]).points).toMatchObject([
      { at: 1080 },
    ]);
  });

  it("a limit exceeded without a deducted tolerance restarts at the work", () => {
    const plain = item([{ by: "meter", meter: "hours", every: 100 }]);
    expect(nextDue(plain, [done("2026-01-10", 1000), done("2026-04-10", 1103)]).points).toMatchObject([
      { at: 1203 },
    ]);
    const planning: Tolerance = { most: 5, for: "planning", takenOff: false, source };
    const lenient = item([{ by: "meter", meter: "hours", every: 100, tolerances: [planning] }]);
    expect(
      nextDue(lenient, [done("2026-01-10", 1000), done("2026-04-10", 1103, { under: "planning" })]).points,
    ).toMatchObject([{ at: 1203 }]);
  });

  it("a printed date stays until a release sets another; one-time work is done once", () => {
    const battery = item([{ by: "date", date: "2028-06-30" }]);
    expect(nextDue(battery, []).points).toMatchObject([{ date: "2028-06-30" }]);
    expect(
      nextDue(battery, [done("2026-01-10", 1000, { sets: { date: "2032-06-30" } })]).points,
    ).toMatchObject([{ date: "2032-06-30" }]);
    const leak = item([{ by: "reading", meter: "hours", at: 1005 }], { once: true });
    expect(nextDue(leak, []).points).toMatchObject([{ at: 1005 }]);
    expect(nextDue(leak, [done("2026-01-10", 1004)])).toMatchObject({ points: [], unknown: false });
  });

  it("without work on record nothing is guessed", () => {
    const annual = item([{ by: "months", months: 12, to: "month end" }]);
    expect(nextDue(annual, []).unknown).toBe(true);
    expect(judge(annual, [], 1000, flight({ hours: 1 })).state).toBe("not known");
    expect(() =>
      nextDue(item([{ by: "meter", meter: "cycles", every: 10 }]), [done("2026-01-10", 1000)]),
    ).toThrow(/has no cycles reading/);
  });
});

describe("in date to the end of this flight", () => {
  const hundred = item([{ by: "meter", meter: "hours", every: 100, tolerances: [ferry] }]);
  const works = [done("2026-01-10", 4180)];

  it("2.1 h remaining: no for 2.6 planned, yes for 2.1", () => {
    const no = judge(hundred, works, 4277.9, flight({ hours: 2.6 }));
    expect(no).toMatchObject({
      state: "due within the flight",
      first: { left: 2.1, leftAfter: -0.5, unit: "h" },
    });
    expect(dueJudgement(hundred, no, meters)).toMatchObject({
      grade: "stop",
      sentence: "2.1 h left until 4,280.0 h; this flight needs 2.6 h.",
      action: "Plan no more than 2.1 h, or have the work done first.",
    });
    expect(judge(hundred, works, 4277.9, flight({ hours: 2.1 })).state).toBe("in date");
  });

  it("a ferry within the tolerance, with its cost; not beyond it, and not for anything else", () => {
    const to = { purpose: "to the place of the work" } as const;
    const over = judge(hundred, works, 4281, flight({ hours: 2 }, to));
    expect(over).toMatchObject({ state: "under a tolerance", first: { under: { excess: 3 } } });
    expect(dueJudgement(hundred, over, meters)).toMatchObject({
      grade: "note",
      sentence:
        "Due at 4,280.0 h. This flight exceeds it by 3.0 h; a tolerance of 10.0 h is allowed to fly to the workshop, and 3.0 h is taken off the next interval.",
    });
    expect(judge(hundred, works, 4281, flight({ hours: 10 }, to)).state).toBe("overdue");
    expect(judge(hundred, works, 4281, flight({ hours: 2 })).state).toBe("overdue");
    expect(judge(hundred, works, 4279, flight({ hours: 2 }, { purpose: "planning" })).state).toBe(
      "due within the flight",
    );
  });

  it("a date is valid to the end of its day; a flight past midnight is another day", () => {
    const annual = item([{ by: "months", months: 12, to: "month end" }]);
    const done2025 = [done("2025-05-03", 4000)];
    const onThe31st = (ends: string, date: string) =>
      judge(annual, done2025, 4100, flight({}, { ends }), date).state;
    expect(onThe31st("2026-05-31", "2026-05-31")).toBe("in date");
    expect(onThe31st("2026-06-01", "2026-05-31")).toBe("due within the flight");
    expect(onThe31st("2026-06-01", "2026-06-01")).toBe("overdue");
  });

  it("landings and launches count with this flight's own", () => {
    const tyre = item([{ by: "meter", meter: "landings", every: 300 }]);
    const fitted = [{ item: "it", date: "2026-01-10", totals: { landings: 610 } }];
    expect(judge(tyre, fitted, 1, flight({ landings: 10 })).state).toBe("in date");
    const no = judge(tyre, fitted, 1, flight({ landings: 11 }));
    expect(no.state).toBe("due within the flight");
    expect(dueJudgement(tyre, no, meters).sentence).toBe(
      "10 landings left until 910 landings; this flight needs 11 landings.",
    );
  });

  it("whichever comes first, each with the rest in its own unit", () => {
    const oil = item([
      { by: "meter", meter: "hours", every: 50 },
      { by: "months", months: 4, to: "same day" },
    ]);
    const changed = [done("2026-02-10", 1000)];
    const byDate = judge(oil, changed, 1010, flight({ hours: 1 }, { ends: "2026-06-11" }), "2026-06-11");
    expect(byDate).toMatchObject({ state: "overdue", first: { point: { date: "2026-06-10" }, left: -1 } });
    expect(byDate.limits.map(({ left, unit }) => [left, unit])).toEqual([
      [40, "h"],
      [-1, "days"],
    ]);
    const byHours = judge(oil, changed, 1049.5, flight({ hours: 1 }, { ends: "2026-03-01" }), "2026-03-01");
    expect(byHours.first?.point).toMatchObject({ at: 1050 });
  });

  it("only for flights of its kind", () => {
    const vor = item([{ by: "days", days: 30 }], { for: ["instrument"], miss: "stop" });
    const checked = [done("2026-01-10", 4000)];
    expect(judge(vor, checked, 4100, flight({})).state).toBe("not for this flight");
    expect(judge(vor, checked, 4100, flight({}, { kinds: ["instrument"] })).state).toBe("overdue");
  });

  it("warns that it will soon be due", () => {
    expect(isSoon(judge(hundred, works, 4272, flight({ hours: 1 })))).toBe(true);
    expect(isSoon(judge(hundred, works, 4200, flight({ hours: 1 })))).toBe(false);
  });

  it("reports a meter without a total as unknown", () => {
    expect(() =>
      judgeDue(
        hundred,
        nextDue(hundred, works),
        { date: "2026-06-01", totals: {} },
        flight({ hours: 1 }),
        meters,
      ),
    ).toThrow(/is not known/);
  });
});

describe("for any flying and any work", () => {
  const limit: fc.Arbitrary<DueLimit> = fc.oneof(
    fc.record({
      by: fc.constant("months" as const),
      months: fc.integer({ min: 1, max: 36 }),
      to: fc.constantFrom("month end" as const, "same day" as const),
    }),
    fc.record({ by: fc.constant("days" as const), days: fc.integer({ min: 1, max: 400 }) }),
    fc.record({
      by: fc.constant("meter" as const),
      meter: fc.constant("hours"),
      every: fc.integer({ min: 5, max: 500 }),
      tolerances: fc.constantFrom<Tolerance[]>([], [ferry]),
    }),
  );
  const works = fc
    .array(fc.record({ days: fc.integer({ min: 1, max: 300 }), hours: fc.integer({ min: 0, max: 1500 }) }), {
      minLength: 1,
      maxLength: 5,
    })
    .map((steps) => {
      let [day, hours] = [dayNumber("2024-01-01"), 1000];
      return steps.map((step) => {
        day += step.days;
        hours += step.hours / 10;
        return done(dateOfDay(day), hours);
      });
    });

  it("more flying never makes anything due later", () => {
    fc.assert(
      fc.property(
        fc.array(limit, { minLength: 1, maxLength: 3 }),
        works,
        fc.integer({ min: 0, max: 300 }),
        fc.integer({ min: 0, max: 200 }),
        (limits, history, more, uses) => {
          const it = item(limits);
          const due = nextDue(it, history);
          const last = history.at(-1) as WorkDone;
          const at = (hours: number) =>
            judgeDue(
              it,
              due,
              { date: last.date, totals: { hours } },
              flight({ hours: uses / 10 }, { ends: last.date }),
              meters,
            );
          const here = at(last.totals.hours as number);
          const later = at((last.totals.hours as number) + more / 10);
          const rank = ["in date", "due within the flight", "overdue"];
          expect(rank.indexOf(later.state)).toBeGreaterThanOrEqual(rank.indexOf(here.state));
          for (const [i, one] of later.limits.entries())
            expect(one.left).toBeLessThanOrEqual((here.limits[i] as typeof one).left + 1e-9);
        },
      ),
    );
  });

  it("whichever comes first is never better than any of its parts", () => {
    fc.assert(
      fc.property(
        fc.array(limit, { minLength: 1, maxLength: 4 }),
        works,
        fc.integer({ min: 0, max: 3000 }),
        fc.integer({ min: 0, max: 900 }),
        (limits, history, flown, days) => {
          const last = history.at(-1) as WorkDone;
          const date = addDays(last.date, days);
          const hours = (last.totals.hours as number) + flown / 10;
          const state = (it: DueItem) =>
            judgeDue(
              it,
              nextDue(it, history),
              { date, totals: { hours } },
              flight({ hours: 1 }, { ends: date }),
              meters,
            ).state;
          const rank = ["in date", "under a tolerance", "not known", "due within the flight", "overdue"];
          const whole = rank.indexOf(state(item(limits)));
          for (const one of limits) expect(whole).toBeGreaterThanOrEqual(rank.indexOf(state(item([one]))));
        },
      ),
    );
  });

  it("the recording order of work does not matter, and releasing one item never changes another", () => {
    fc.assert(
      fc.property(limit, works, fc.integer(), (one, history, seed) => {
        const it = item([one]);
        const mixed = [...history].sort(
          (a, b) => Math.sin(seed + dayNumber(a.date)) - Math.sin(seed + dayNumber(b.date)),
        );
        expect(nextDue(it, mixed)).toEqual(nextDue(it, history));
        const others = history.map((work) => ({ ...work, item: "another" }));
        expect(nextDue(it, [...history, ...others])).toEqual(nextDue(it, history));
      }),
    );
  });

  it("an interval never exceeds what its item allows: early work in rhythm, late work deducted", () => {
    fc.assert(
      fc.property(
        works,
        fc.integer({ min: 5, max: 500 }),
        fc.integer({ min: 0, max: 20 }),
        (history, every, rhythmWithin) => {
          const it = item([{ by: "meter", meter: "hours", every, rhythmWithin, tolerances: [ferry] }]);
          const last = history.at(-1) as WorkDone;
          const [point] = nextDue(it, history).points;
          const at = point && "at" in point ? point.at : Number.NaN;
          expect(at - (last.totals.hours as number)).toBeLessThanOrEqual(every + rhythmWithin + 1e-9);
        },
      ),
    );
  });
});
