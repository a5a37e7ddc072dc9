import type { AircraftRecord } from "@cravix/core/airworthiness/aircraft-record";
import {
  airworthinessSnapshot,
  type JudgedDue,
  judgeAirworthiness,
} from "@cravix/core/airworthiness/airworthiness-snapshot";
import type { DueItem } from "@cravix/core/airworthiness/due/due-item";
import type { Airworthiness } from "../due";
import {
  includedIn,
  metersToEnter,
  missingEntries,
  newRelease,
  purposesOf,
  type ReleaseDraft,
  releaseOf,
} from "./release-draft";

const source = { kind: "rule" as const, text: "example", example: true };
const item = (id: string, limits: DueItem["limits"], more: Partial<DueItem> = {}): DueItem => ({
  id,
  name: id,
  kind: "inspection",
  limits,
  miss: "stop",
  source,
  ...more,
});
const record: AircraftRecord = {
  format: "cravix.airworthiness/1",
  registration: "QX-TST",
  meters: [
    { id: "hours", name: "Hour meter", kind: "hour meter", decimals: 1 },
    { id: "landings", name: "Landings", kind: "landings", decimals: 0 },
    { id: "cycles", name: "Cycles", kind: "cycles", decimals: 0 },
  ],
  start: { at: "2024-01-01T00:00:00.000Z", totals: { hours: 1000, landings: 900, cycles: 10 } },
  components: [],
  fittings: [],
  items: [
    item("annual", [{ by: "months", months: 12, to: "month end" }], { does: ["hundred", "tyres"] }),
    item("hundred", [
      {
        by: "meter",
        meter: "hours",
        every: 100,
        tolerances: [{ most: 10, for: "to the place of the work", takenOff: true, source }],
      },
    ]),
    item("tyres", [{ by: "meter", meter: "landings", every: 300 }]),
    item("battery", [{ by: "date", date: "2026-01-31" }]),
    item("permit", [{ by: "reading", meter: "hours", at: 1100 }]),
  ],
  works: [{ item: "hundred", date: "2024-01-01", totals: { hours: 895 } }],
};
const totals = { hours: 1000, landings: 905, cycles: 10 };
const papers = {
  onFile: { record, totals, released: [], left: [], lastLine: null, recent: [], days: [] },
  pinned: airworthinessSnapshot(record, { totals }),
  today: "2026-05-01",
} as unknown as Airworthiness;
const draft = (more: Partial<ReleaseDraft>): ReleaseDraft => ({
  ...newRelease(papers),
  done: "done",
  readings: { hours: "1000", landings: "905", cycles: "10" },
  ...more,
});
const release = (more: Partial<ReleaseDraft>, unique = "a") =>
  releaseOf(draft(more), papers, { at: "2026-05-01T10:00:00Z", preventive: false, unique });

test("an annual names what it includes, and asks for the meters of all of it", () => {
  expect(includedIn(record.items, ["annual"]).map(({ id }) => id)).toEqual(["hundred", "tyres"]);
  expect(metersToEnter(papers, ["annual"]).map(({ id }) => id)).toEqual(["hours", "landings"]);
  expect(metersToEnter(papers, ["hundred"]).map(({ id }) => id)).toEqual(["hours"]);
  expect(newRelease(papers).readings).toMatchObject({ landings: "905" });
  expect(release({ works: ["annual"] }).readings).toEqual({ hours: 1000, landings: 905 });
});

test("a printed date or reading is asked for, and goes into the release with its source", () => {
  expect(missingEntries(draft({ works: ["battery", "permit"] }), papers).map(({ at }) => at)).toEqual([
    "sets.battery",
    "sets.permit",
  ]);
  const sets = {
    battery: { date: "2028-01-31", source: "label" },
    permit: { reading: "1150,5" },
  };
  expect(missingEntries(draft({ works: ["battery", "permit"], sets }), papers)).toEqual([]);
  expect(release({ works: ["battery", "permit"], sets }).works).toMatchObject([
    { item: "battery", sets: { date: "2028-01-31", source: "label" } },
    { item: "permit", sets: { readings: { hours: 1150.5 } } },
  ]);
});

test.each([
  ["blank", { hours: " ", landings: "905" }, ["readings.hours"]],
  ["blank for an included item", { hours: "1000", landings: "" }, ["readings.landings"]],
  ["all there", { hours: "1000", landings: "905" }, []],
])("a reading that the next due point needs: %s", (_, readings, at) => {
  const entered = draft({ works: ["annual"], readings });
  expect(missingEntries(entered, papers).map((fault) => fault.at)).toEqual(at);
});

test.each([
  ["", { hours: "1000" }, []],
  ["5", { hours: "1000" }, []],
  ["soon", { hours: "1000" }, ["leak"]],
  ["-5", { hours: "1000" }, ["leak"]],
  ["5", { hours: "" }, ["readings.hours"]],
])("a re-inspection after “%s” hours is never dropped silently", (leak, readings, at) =>
  expect(missingEntries(draft({ leak, readings }), papers).map((fault) => fault.at)).toEqual(at));

test("the purpose of an overrun is offered only where there is one", () => {
  const judged = judgeAirworthiness(papers.pinned, {
    at: "2026-05-01T10:00:00Z",
    minutes: 0,
    conditions: [],
  });
  const of = (id: string) => judged.find((one) => one.item.id === id) as JudgedDue;
  expect(purposesOf(of("hundred"))).toEqual(["to the place of the work"]);
  expect(purposesOf(of("battery"))).toEqual([]);
  expect(release({ works: ["hundred"], under: { hundred: "to the place of the work" } }).works).toMatchObject(
    [{ under: "to the place of the work" }],
  );
});

test("two releases of one day leave two conditions", () => {
  const [one, other] = [release({ leak: "5" }, "a"), release({ leak: "5" }, "b")];
  expect(one.leaves[0]?.id).not.toBe(other.leaves[0]?.id);
  expect(one.leaves[0]?.limits).toEqual([{ by: "reading", meter: "hours", at: 1005 }]);
});
