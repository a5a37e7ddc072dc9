import type { AircraftRecord } from "./aircraft-record";
import { airworthinessSnapshot, judgeAirworthiness, plannedFlight } from "./airworthiness-snapshot";

const source = { kind: "handbook" as const, text: "example", example: true };
const record: AircraftRecord = {
  format: "cravix.airworthiness/1",
  registration: "QX-GLI",
  meters: [
    { id: "landings", name: "Landings", kind: "landings", decimals: 0 },
    { id: "winch", name: "Winch launches", kind: "winch launches", decimals: 0 },
    { id: "tows", name: "Aerotows", kind: "aerotows", decimals: 0 },
    { id: "releases", name: "Releases", kind: "releases", decimals: 0 },
  ],
  start: { at: "2026-01-01T00:00:00.000Z", totals: { landings: 0, winch: 0, tows: 0, releases: 0 } },
  components: [],
  fittings: [],
  items: [
    {
      id: "winch-hook",
      name: "Winch hook",
      kind: "inspection",
      limits: [{ by: "meter", meter: "winch", every: 100 }],
      miss: "stop",
      source,
    },
  ],
  works: [
    { item: "winch-hook", date: "2026-01-01", totals: { landings: 0, winch: 0, tows: 0, releases: 0 } },
  ],
};
const papers = airworthinessSnapshot(record, { totals: { landings: 99, winch: 99, tows: 0, releases: 99 } });
const asked = { at: "2026-05-01T09:00:00.000Z", minutes: 30, landings: 2, conditions: [] };

test("a launch counts for its method; if unknown, for both, which is never too little", () => {
  expect(plannedFlight(papers, { ...asked, launch: "aerotow" }).uses).toEqual({
    landings: 2,
    winch: 0,
    tows: 2,
    releases: 2,
  });
  expect(plannedFlight(papers, asked).uses).toMatchObject({ winch: 2, tows: 2 });
  const state = (more: object) => judgeAirworthiness(papers, { ...asked, ...more })[0]?.verdict.state;
  expect(state({ launch: "winch" })).toBe("due within the flight");
  expect(state({ launch: "aerotow" })).toBe("in date");
  expect(state({})).toBe("due within the flight");
});

test("the signature of the daily inspection is stored with its day", () => {
  const totals = { landings: 99, winch: 99, tows: 0, releases: 99 };
  expect(airworthinessSnapshot(record, { totals }).daily).toBeUndefined();
  expect(airworthinessSnapshot(record, { totals, daily: null }).daily).toBeUndefined();
  expect(
    airworthinessSnapshot(record, { totals, daily: { date: "2026-05-01", crewId: "kofi" } }).daily,
  ).toEqual({
    date: "2026-05-01",
    crewId: "kofi",
  });
});
