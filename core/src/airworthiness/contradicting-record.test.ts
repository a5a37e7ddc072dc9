import { airworthinessStatus } from "../verdict/aircraft-status";
import type { AircraftRecord } from "./aircraft-record";
import { airworthinessSnapshot, judgeAirworthiness } from "./airworthiness-snapshot";
import type { DueItem, WorkDone } from "./due/due-item";
import { dueJudgement } from "./due/due-judgement";
import { meterKinds } from "./due-items-of";
import { judgePerson } from "./people/person-due";
import { usualOf, whenDue } from "./plan/when-due";

const source = { kind: "rule", text: "example", example: true } as const;
const item = (id: string, limits: DueItem["limits"], more: Partial<DueItem> = {}): DueItem => ({
  id,
  name: id,
  kind: "inspection",
  limits,
  miss: "stop",
  source,
  ...more,
});
const RECORD: AircraftRecord = {
  format: "cravix.airworthiness/1",
  registration: "QX-TAR",
  meters: [{ id: "hours", name: "Hour meter", kind: "hour meter", decimals: 1 }],
  start: { at: "2020-01-01T00:00:00.000Z", totals: { hours: 4000 } },
  components: [{ id: "prop", name: "Propeller", kind: "propeller", sinceNew: { hours: 10 } }],
  fittings: [],
  items: [
    item("hundred", [{ by: "meter", meter: "hours", every: 100 }]),
    item("annual", [{ by: "months", months: 12, to: "month end" }]),
    item("overhaul", [{ by: "meter", meter: "hours", every: 2000 }], { of: "prop" }),
  ],
  works: [
    { item: "hundred", date: "2026-04-01", totals: { hours: 4180 } },
    { item: "annual", date: "2026-04-01", totals: {} },
    { item: "overhaul", date: "2026-04-01", totals: { hours: 10 } },
  ],
};
const asked = { at: "2026-05-01T10:00:00.000Z", minutes: 60, conditions: [] };

function judged(record: AircraftRecord, released: WorkDone[] = [], left: DueItem[] = [], hours = 4230.1) {
  const papers = airworthinessSnapshot(record, { released, left, totals: { hours } });
  expect(() => airworthinessStatus(papers, asked.at)).not.toThrow();
  return Object.fromEntries(
    judgeAirworthiness(papers, asked).map((one) => [
      one.item.id,
      dueJudgement(one.item, one.verdict, meterKinds(record)),
    ]),
  );
}

describe("a contradiction on record affects only its own item", () => {
  it("a release without a meter reading", () => {
    const now = judged(RECORD, [{ item: "hundred", date: "2026-04-20", totals: {} }]);
    expect(now.hundred).toMatchObject({
      grade: "ask",
      sentence: "Cannot be calculated. The work of 2026-04-20 has no hours reading.",
      action: "Correct the entry in the airworthiness record, or ask the mechanic.",
    });
    expect(now.annual?.grade).toBe("within limits");
  });

  it("work dated so far ahead that the next due day is beyond the calendar", () => {
    const now = judged(RECORD, [{ item: "annual", date: "2199-12-01", totals: {} }]);
    expect(now.annual?.sentence).toMatch(/^Cannot be calculated/);
    expect(now.hundred?.grade).toBe("within limits");
  });

  it.each([
    "bananas",
    "constructor",
    "__proto__",
    "",
  ])("a condition counted by a meter called “%s”", (meter) => {
    const now = judged(RECORD, [], [item("leak", [{ by: "reading", meter, at: 4240 }], { once: true })]);
    expect(now.leak).toMatchObject({ grade: "ask" });
    expect(now.leak?.sentence).toBe(`Cannot be calculated. The total of ${meter} is not known.`);
    expect(now.hundred?.grade).toBe("within limits");
  });

  it("a component fitted at more hours than the aircraft has", () => {
    const fitted = (totals: Record<string, number>): AircraftRecord => ({
      ...RECORD,
      fittings: [
        { component: "prop", registration: "QX-TAR", on: { at: "2026-04-02T10:00:00.000Z", totals } },
      ],
    });
    const now = judged(fitted({ hours: 4320.1 }));
    expect(now.overhaul?.sentence).toBe(
      "Cannot be calculated. Propeller was fitted at 4,320.1, but the aircraft has only 4,230.1. Check the fitting and the technical log.",
    );
    expect(now.hundred?.grade).toBe("within limits");
    expect(judged(fitted({})).overhaul?.grade).toBe("within limits");
    const unused = { ...fitted({}), components: [{ ...RECORD.components[0], sinceNew: {} }] };
    expect(judged(unused as AircraftRecord).overhaul?.sentence).toMatch(/^Cannot be calculated/);
  });

  it("days beyond the calendar are left out of the forecast", () => {
    const days = [
      { date: "9999-12-31", uses: { hours: 1 } },
      { date: "2206-01-01", uses: { hours: 1 } },
    ];
    for (let week = 0; week < 20; week++)
      days.push({ date: `2026-0${1 + Math.floor(week / 5)}-${10 + (week % 5) * 4}`, uses: { hours: 2 } });
    const usual = usualOf(days, RECORD.meters, "2026-05-01");
    expect(usual.get("hours")?.perDay).toBeGreaterThan(0);
    expect(whenDue([], usual, "2026-05-01")).toBeUndefined();
  });

  it("a person's medical entered for an impossible day", () => {
    const medical = {
      id: "medical",
      kind: "medical" as const,
      name: "Medical",
      limits: [{ by: "months" as const, months: 12, to: "month end" as const }],
      miss: "stop" as const,
      source,
    };
    const people = judgePerson(
      {
        items: [medical, { ...medical, id: "review", name: "Flight review" }],
        works: [
          { item: "medical", date: "2199-06-01" },
          { item: "review", date: "2026-04-01" },
        ],
        flown: [],
      },
      { today: "2026-05-01", ends: "2026-05-01", kinds: ["day"] },
    );
    expect(people.map(({ item: { id }, verdict: { state } }) => [id, state])).toEqual([
      ["medical", "not known"],
      ["review", "in date"],
    ]);
  });

  it("many meter replacements are pinned with the same totals", () => {
    const changes = Array.from({ length: 30 }, (_, i) => ({
      at: new Date(Date.UTC(2021, 0, 1 + i)).toISOString(),
      oldReading: 10,
      newReading: 0,
    }));
    const meters = [{ ...RECORD.meters[0], reading: "hours", changes }] as AircraftRecord["meters"];
    const papers = airworthinessSnapshot({ ...RECORD, meters }, { totals: { hours: 4230.1 } });
    expect(papers.meters[0]?.changes).toHaveLength(5);
    const [first] = judgeAirworthiness(papers, { ...asked, read: { hours: 3935 } });
    const [same] = judgeAirworthiness({ ...papers, meters }, { ...asked, read: { hours: 3935 } });
    expect(first).toEqual(same);
  });
});
