import type { Airfield } from "../aircraft/aircraft-type";
import { composeList } from "../checklist/list/compose-list";
import type { EventData, PreflightEvent } from "../checklist/stream/events";
import { foldPreflight } from "../checklist/stream/fold-preflight";
import type { MinimaSet } from "../minima/minima";
import type { RuleSet } from "../rules/rule-set";
import { event, item, LIST_INPUT, source, streamId, type } from "../testing/small-aircraft";
import type { WeatherReport } from "../weather/report";
import { judgePreflight } from "./judge-preflight";

const field: Airfield = {
  format: "cravix.airfield/1",
  id: "f",
  name: "Field",
  elevationFt: 20,
  lat: 53.4,
  lon: 2.1,
  station: "QXMP",
  runways: [
    {
      id: "24",
      headingDeg: 240,
      lengthM: 780,
      surface: "grass",
      declared: { toraM: 780, todaM: 780, asdaM: 780, ldaM: 780 },
    },
    {
      id: "29",
      headingDeg: 290,
      lengthM: 910,
      surface: "asphalt",
      declared: { toraM: 910, todaM: 910, asdaM: 910, ldaM: 910 },
    },
    { id: "17", headingDeg: 170, lengthM: 500, surface: "grass" },
  ],
};
const lit: RuleSet = {
  format: "cravix.rule-set/1",
  id: "r",
  name: "r",
  reserves: [],
  night: { begins: "sunset", source },
  minima: { visibilityM: 5000, source },
};
const report = (more: Partial<WeatherReport> = {}): WeatherReport => ({
  raw: "METAR QXMP 011150Z …",
  station: "QXMP",
  at: "2026-05-01T11:50:00.000Z",
  wind: { fromDeg: 250, kt: 10 },
  visibilityM: 10_000,
  clouds: [],
  weather: [],
  celsius: 15,
  dewPointC: 8,
  settingHpa: 1013,
  unread: [],
  ...more,
});
const SOLO: MinimaSet = { of: "authorisation", minima: { tailwindKt: 0, crosswindKt: 8 }, source };

interface Day {
  runway?: string;
  weather?: EventData["weather.told"];
  load?: Record<string, number>;
  minutes?: number;
  conditions?: EventData["preflight.started"]["conditions"];
  ownUnknown?: boolean;
  minima?: MinimaSet[];
  sock?: { fromDeg: number; kt: number };
  launch?: "winch";
  at?: string;
}
const glider = { oil: undefined, magnetos: undefined, runUp: undefined, fuel: undefined };
const FUEL = { tanks: [], taxiL: 4, burnLPerH: { value: 30, source } };

function judged({
  runway = "24",
  weather,
  load = { front: 160, rear: 60 },
  minutes = 60,
  conditions = [],
  minima,
  ownUnknown,
  sock,
  launch,
  at = "2026-05-01T12:00:00.000Z",
}: Day) {
  const { oil: _o, magnetos: _m, runUp: _r, fuel: _f, ...bare } = { ...type, ...glider };
  const list = composeList({
    ...LIST_INPUT,
    airfield: field,
    rules: lit,
    conditions,
    ...(minima && { minima }),
    ...(ownUnknown && { ownUnknown }),
    loading: {
      format: "cravix.loading/1",
      registration: "QX-TST",
      datum: "the firewall",
      weighing: { date: "2025-01-01", emptyKg: 740, armMm: 1000, source },
      stations: [
        { id: "front", name: "front seats", kind: "seat", armMm: 1000, pilot: true },
        { id: "rear", name: "rear seats", kind: "seat", armMm: 1100 },
      ],
      tanks: [],
      envelope: {
        corners: [
          { kg: 700, armMm: 900 },
          { kg: 1200, armMm: 900 },
          { kg: 1200, armMm: 1200 },
          { kg: 700, armMm: 1200 },
        ],
        source,
      },
      maxTakeoffKg: { value: 1110, source },
    },
    type: {
      ...(bare as typeof type),
      fuel: FUEL,
      performance: {
        takeOff: { kind: "single", kg: 1110, rollM: 250, over50M: 455, source },
        landing: { kind: "single", kg: 1110, rollM: 175, over50M: 400, source },
        liftOffKt: 55,
        approachKt: 62,
        climbKt: 76,
      },
      launch: { winch: { maxWindKt: 25, maxCrossKt: 6, source } },
      items: [
        item("stance", "papers"),
        item("runway", "papers", { kind: "choice", choicesFrom: "runways" }),
        item("wind.from", "papers", {
          kind: "measure",
          reading: { key: "wind.from", unit: "°", decimals: 0 },
        }),
        item("wind.speed", "papers", {
          kind: "measure",
          reading: { key: "wind.speed", unit: "kt", decimals: 0 },
        }),
      ],
    },
  });
  const told = <T extends PreflightEvent["type"]>(kind: T, data: EventData[T]) =>
    ({ ...event(kind, data), at }) as PreflightEvent;
  const events: PreflightEvent[] = [
    told("preflight.started", {
      registration: "QX-TST",
      listHash: "h",
      conditions,
      plannedFlightMin: minutes,
      plannedLoad: { stations: load },
      ...(launch && { plannedLaunch: launch }),
    }),
    ...(weather ? [told("weather.told", weather)] : []),
    told("item.answered", { itemId: "runway", outcome: "checked", value: runway }),
    ...(sock
      ? [
          told("reading.taken", { itemId: "wind.from", key: "wind.from", value: sock.fromDeg, unit: "°" }),
          told("reading.taken", { itemId: "wind.speed", key: "wind.speed", value: sock.kt, unit: "kt" }),
        ]
      : []),
  ];
  const { judgements } = judgePreflight(list, foldPreflight(streamId, events));
  return Object.fromEntries(
    judgements.filter(({ judge }) => judge === "departure").map((one) => [one.id, one]),
  );
}

test("with report and load the distances are assessed; with neither each subject is not assessed", () => {
  const good = judged({ weather: { report: report(), variationDeg: 1 } });
  expect(good["distance.take-off"]).toMatchObject({
    grade: "within limits",
    topic: "air",
    reading: { unit: "m" },
  });
  expect(good["distance.landing"]?.grade).toBe("within limits");
  expect(good["weather.report"]?.grade).toBe("within limits");
  expect(good.light?.sentence).toMatch(/^Landing \d+ h \d\d min before night\.$/);
  const unknown = Object.values(judged({})).filter(({ grade }) => grade === "unjudged");
  expect(unknown.map(({ id }) => id)).toEqual(
    expect.arrayContaining(["unknown.wind", "unknown.visibility", "unknown.ceiling"]),
  );
});

test("hot, heavy and soft grass is a stop with the smallest change that makes it fit", () => {
  const hot = judged({
    weather: { report: report({ celsius: 34, dewPointC: 20 }), variationDeg: 1, ground: "soft" },
    load: { front: 170, rear: 190 },
  });
  expect(hot["distance.take-off"]).toMatchObject({ grade: "stop", action: "Use runway 29.", scope: "day" });
  expect(hot["distance.take-off"]?.sentence).toMatch(/\d+ m too short\.$/);
});

test("a runway without declared distances is not assessed, and says so; no number is assumed", () => {
  expect(
    judged({ runway: "17", weather: { report: report(), variationDeg: 1 } })["unknown.distances"],
  ).toMatchObject({
    grade: "unjudged",
    sentence: "Not calculated: Runway 17 has no declared distances on file.",
  });
});

test("without personal minimums on the device the verdict asks about them", () => {
  const good = { weather: { report: report(), variationDeg: 1 } };
  expect(judged(good)["own-limits"]).toBeUndefined();
  expect(judged({ ...good, ownUnknown: true })["own-limits"]).toMatchObject({
    grade: "unjudged",
    action: "Check this flight against them yourself.",
  });
});

test("the windsock is today's wind: a tailwind stops a student whose authorisation allows none", () => {
  const day = { minima: [SOLO], weather: { report: report(), variationDeg: 0 } };
  expect(judged(day)["minima.tailwindKt"]?.grade).toBe("within limits");
  const tail = judged({ ...day, sock: { fromDeg: 60, kt: 6 } });
  expect(tail["minima.tailwindKt"]).toMatchObject({
    grade: "stop",
    limit: expect.stringContaining("authorisation"),
  });
  expect(tail["wind.sock"]?.sentence).toContain("170° difference");
});

test("a true wind is corrected by the variation before it is compared with the runway", () => {
  const cross = (variationDeg: number) =>
    judged({ minima: [SOLO], weather: { report: report({ wind: { fromDeg: 300, kt: 10 } }), variationDeg } })[
      "minima.crosswindKt"
    ];
  expect(cross(0)?.reading?.value).toBeCloseTo(8.66, 2);
  expect(cross(20)?.reading?.value).toBeCloseTo(6.43, 2);
  expect([cross(0)?.grade, cross(20)?.grade]).toEqual(["stop", "within limits"]);
});

test("after sunset it is a night flight: a stop with a day checklist, not with a night one", () => {
  // Sunset on that day at that place by astronomy-engine: 19:09 UTC.
  const late = {
    at: "2026-05-01T18:35:00.000Z",
    weather: { report: report({ at: "2026-05-01T18:20:00.000Z" }), variationDeg: 1 },
  };
  const day = judged(late);
  expect(day.light).toMatchObject({ grade: "stop", action: expect.stringContaining("night") });
  expect(day.light?.sentence).toMatch(/after sunset: this is a night flight/);
  expect(judged({ ...late, minutes: 20 }).light?.grade).toBe("within limits");
  expect(judged({ ...late, conditions: ["night"] }).light?.grade).toBe("within limits");
});

test("visibility below a rule is a stop; an old report, or of another airfield, is not used", () => {
  expect(
    judged({ weather: { report: report({ visibilityM: 3000 }), variationDeg: 1 } })["minima.visibilityM"],
  ).toMatchObject({ grade: "stop" });
  expect(
    judged({ weather: { report: report({ station: "QXKM" }), variationDeg: 1 } })["weather.report"]?.grade,
  ).toBe("unjudged");
  expect(
    judged({ weather: { report: report({ at: "2026-04-30T11:50:00.000Z" }), variationDeg: 1 } })[
      "weather.report"
    ]?.sentence,
  ).toContain("earlier day");
});

test("a launch has its own wind limits", () => {
  const winch = judged({ launch: "winch", sock: { fromDeg: 300, kt: 10 } });
  expect(winch["launch.crosswind"]).toMatchObject({
    grade: "stop",
    sentence: "9 kt crosswind: the winch launch limit is 6 kt.",
  });
  expect(winch["launch.wind"]).toBeUndefined();
});

test("a later ground condition leaves the report unchanged; the last report counts", () => {
  const events = [
    event("preflight.started", {
      registration: "QX-TST",
      listHash: "h",
      conditions: [],
      weather: { report: report(), from: "station", variationDeg: 1 },
    }),
    event("weather.told", { ground: "wet" }),
  ];
  // The reported temperature replaces the planned one.
  expect(foldPreflight(streamId, events).celsius).toBe(15);
  const warmer = event("weather.told", { report: report({ celsius: 21 }) });
  expect(foldPreflight(streamId, [...events, warmer]).celsius).toBe(21);
  expect(foldPreflight(streamId, events).weather).toMatchObject({
    ground: "wet",
    from: "station",
    report: { station: "QXMP" },
  });
  const given = event("briefing.given", { to: "crew", steps: [{ title: "Abort", words: "Stop." }] });
  const again = event("briefing.given", { to: "crew", steps: [{ title: "Abort", words: "Stop now." }] });
  expect(
    foldPreflight(streamId, [...events, given, again]).briefings.map(({ steps }) => steps[0]?.words),
  ).toEqual(["Stop now."]);
});
