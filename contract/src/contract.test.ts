import { defaultPreferences } from "@cravix/core/aircraft/preferences";
import { type ComposedList, composeList } from "@cravix/core/checklist/list/compose-list";
import {
  EVENT_TYPES,
  type EventData,
  type EventType,
  STREAM_EVENTS,
  STREAM_KINDS,
} from "@cravix/core/checklist/stream/events";
import fc from "fast-check";
import { array, number, object, string } from "yup";
import { quickCheck } from "./events/quick-check";
import { FILE_FORMATS, jsonSchema, readFile, readFileText, readList } from "./files";
import { checkEvent, contentHash, idMsecs, listMarkdown, newId, paperLines } from "./index";

const NOW = new Date("2026-05-01T12:00:00.000Z");
const id = () => newId(NOW.getTime());
const event = (type: string, data: unknown, more: object = {}) => ({
  id: id(),
  type,
  streamId: id(),
  deviceId: id(),
  crewId: "ines",
  at: "2026-05-01T11:59:00.000Z",
  data,
  ...more,
});

const LINE = {
  registration: "QX-TAR",
  from: "Marram Point",
  to: "Dunlin Strand",
  off: "2026-05-01T09:00:00.000Z",
  on: "2026-05-01T10:10:00.000Z",
  pilot: "ines",
  crew: ["maren"],
  meters: { hours: { out: 4211.3, in: 4212.4 } },
  counts: { landings: 3 },
  night: { takeOffs: 0, landings: 1 },
  fuel: { addedL: 40, leftL: 88 },
};
/** Kind of stream for an event type. */
const streamOf = (type: EventType) =>
  STREAM_EVENTS.preflight.includes(type)
    ? {}
    : { stream: STREAM_KINDS.find((kind) => STREAM_EVENTS[kind].includes(type)) };

describe("an event that crosses the boundary", () => {
  const valid: Record<string, object> = {
    "preflight.started": {
      registration: "QX-TAR",
      listHash: contentHash({}),
      conditions: ["night"],
      plannedFlightMin: 90,
      celsius: -10,
      plannedLandings: 2,
      plannedLaunch: "winch",
      // Stations and tanks have individual names.
      plannedLoad: { stations: { front: 160, "aft-shelf": 4.5 }, litres: { left: 87, "left-tip": 0 } },
      purpose: "planning",
      weather: { ground: "soft", variationDeg: -1.5 },
      turnBackFt: 700,
      preferences: { ...defaultPreferences(undefined), order: ["tail", "nose"] },
    },
    "item.answered": { itemId: "x", outcome: "checked", value: "3", caught: true, byCrewId: "kofi" },
    "station.flowed": { stationId: "tail" },
    "crew.joined": { crewId: "kofi" },
    "crew.left": { crewId: "kofi" },
    "item.postponed": { itemId: "x" },
    "item.visited": { itemId: "x" },
    "item.undone": { eventId: id() },
    "reading.taken": { itemId: "x", key: "x", value: 6.5, unit: "US qt" },
    "sample.taken": {
      itemId: "x",
      look: "colourless",
      colour: "colourless",
      paper: "stays wet",
      seconds: 12,
      fate: "discarded",
    },
    "wings.rocked": {},
    "fuel.uplifted": {
      registration: "QX-TAR",
      tankId: "left",
      amount: 40.5,
      unit: "US gal",
      grade: "100LL",
      receipt: "0042",
      from: "pump",
    },
    "fuel.told": {
      unit: "US gal",
      setting: "65 %",
      payloadKg: 160,
      tilt: { rightDownDeg: 1.5, noseUpDeg: -2 },
      night: { lowC: 2, dewPointC: 9, nights: 1 },
    },
    "oil.added": { registration: "QX-TAR", engine: "left", qt: 1, grade: "W100", sealed: true },
    "blade.pulled": { itemId: "x", blade: 3 },
    "run-up.read": {
      itemId: "magneto.base",
      from: "monitor",
      densityAltitudeFt: 400,
      found: {
        fault: "fouled plug",
        name: "fouled plug",
        grade: "ask",
        probability: 0.8,
        sentence: "Cleared.",
      },
      notes: ["You did not go back to both after right."],
      rpm: [
        [0, 1800],
        [1.5, 1740],
      ],
      steps: [{ step: "right", from: 0, to: 7 }],
    },
    "discrepancy.opened": {
      discrepancyId: id(),
      registration: "QX-TAR",
      stationId: "tail",
      text: "dent",
      grade: "note",
    },
    "discrepancy.observed": { discrepancyId: id(), itemId: "x", state: "same" },
    "discrepancy.withdrawn": { discrepancyId: id() },
    "discrepancy.closed": { discrepancyId: id(), how: "filled", noFault: true, release: id() },
    "discrepancy.deferred": {
      discrepancyId: id(),
      basis: "Not required by day.",
      rules: "example",
      equipment: "landing-light",
      for: ["day"],
      until: "2026-06-01",
      placard: "LANDING LIGHT INOPERATIVE",
      deactivated: "breaker pulled and collared",
    },
    "discrepancy.regraded": { discrepancyId: id(), grade: "watch", why: "Seen by the mechanic." },
    "discrepancy.asked": { discrepancyId: id(), whom: "Kofi", by: "telephone", said: "Fly and watch it." },
    "discrepancy.merged": { discrepancyId: id(), into: id() },
    "flight.logged": LINE,
    "flight.corrected": { registration: "QX-TAR", of: id(), line: LINE, why: "a slip of the pen" },
    "work.released": {
      registration: "QX-TAR",
      date: "2026-05-01",
      done: "Oil and filter changed.",
      reference: "maintenance manual 12-10",
      readings: { hours: 4211.3 },
      works: [{ item: "oil", date: "2026-05-01", totals: {} }],
      closes: [id()],
      leaves: [
        {
          id: "leak-check",
          name: "Check for leaks",
          kind: "condition",
          limits: [{ by: "reading", meter: "hours", at: 4216.3 }],
          once: true,
          miss: "ask",
          source: { kind: "handbook", text: "the release", example: false },
        },
      ],
      certificate: { kind: "airframe and powerplant", number: "100200" },
    },
    "release.withdrawn": { registration: "QX-TAR", of: newId(NOW.getTime()), why: "Signed twice." },
    "meter.replaced": { registration: "QX-TAR", meter: "hours", oldReading: 4211.3, newReading: 0 },
    "discrepancy.limited": { discrepancyId: id(), most: 6, unit: "mm", source: "wheel card" },
    "discrepancy.photographed": {
      discrepancyId: id(),
      photograph: `sha256:${"a".repeat(64)}`,
      width: 1600,
      height: 1067,
    },
    "component.removed": { registration: "QX-DOV", component: "engine-right", totals: { hours: 2874.6 } },
    "component.fitted": {
      registration: "QX-HLD",
      position: "engine",
      component: {
        id: "QX-DOV.engine-right",
        name: "Right engine",
        kind: "engine",
        sinceNew: { hours: 705.3 },
        sinceOverhaul: { hours: 5.3 },
      },
      items: [],
      works: [{ item: "magnetos", date: "2026-01-01", totals: { hours: 500 } }],
      totals: { hours: 3121.2 },
    },
    "workshop.planned": {
      closed: [{ from: "2026-12-24", to: "2027-01-02", why: "holidays" }],
      visits: [{ registration: "QX-TAR", date: "2026-06-01", items: ["Oil and filter"], byHand: true }],
    },
    "person.due-set": {
      personId: "ines",
      item: {
        id: "passengers",
        name: "Night passenger recency",
        kind: "recency",
        limits: [{ by: "recency", times: 3, days: 90, night: true }],
        for: ["passengers", "night"],
        class: "glider",
        aircraft: ["QX-ANS"],
        miss: "stop",
        source: { kind: "rule", text: "14 CFR 61.57(b)", example: true },
      },
    },
    "person.due-dropped": { personId: "ines", item: "passengers" },
    "assessment.waived": { subjects: ["wind", "ceiling"], why: "I have checked it myself." },
    "load.told": { stations: { front: 150, bags: 12.5 }, litres: { left: 40 } },
    "weather.told": {
      report: {
        raw: "METAR QXMP 010850Z 25012G22KT 210V280 9999 FEW030 18/09 Q1016",
        station: "QXMP",
        at: "2026-05-01T08:50:00.000Z",
        wind: { fromDeg: 250, kt: 12, gustKt: 22, between: [210, 280] },
        visibilityM: 10_000,
        clouds: [{ cover: "few", baseFt: 3000 }],
        weather: [],
        celsius: 18,
        dewPointC: 9,
        settingHpa: 1016,
        unread: [],
      },
      forecast: {
        raw: "TAF QXMP 010800Z 0109/0118 25012KT 9999 FEW030 PROB30 0112/0114 3000 TSRA",
        station: "QXMP",
        issuedAt: "2026-05-01T08:00:00.000Z",
        from: "2026-05-01T09:00:00.000Z",
        to: "2026-05-01T18:00:00.000Z",
        spans: [
          {
            kind: "chance",
            percent: 30,
            from: "2026-05-01T12:00:00.000Z",
            to: "2026-05-01T14:00:00.000Z",
            visibilityM: 3000,
            clouds: [],
            weather: ["TSRA"],
          },
        ],
        temperatures: [{ at: "2026-05-01T14:00:00.000Z", celsius: 21 }],
        unread: [],
      },
      from: "station",
      variationDeg: 0.8,
      ground: "wet",
    },
    "briefing.given": {
      to: "crew",
      steps: [{ title: "Abort", words: "39 knots by the white gate, or stop." }],
    },
    "person.done": {
      personId: "ines",
      work: { item: "medical", date: "2026-05-01", sets: { date: "2027-05-31" } },
    },
    "daily.signed": { registration: "QX-TAR", date: "2026-05-01" },
    "document.renewed": {
      registration: "QX-TAR",
      item: "insurance",
      date: "2026-05-01",
      until: "2027-05-01",
      source: "policy 12",
    },
    interrupted: { itemId: "x", cause: "screen left", since: "2026-05-01T11:58:00.000Z" },
    resumed: { way: "some items back" },
    "verdict.signed": { verdict: "go", decision: "fly", reasons: [] },
  };

  test.each([
    ["a gust weaker than the wind", { wind: { kt: 12, gustKt: 8 } }],
    ["a dew point above the temperature", { celsius: 5, dewPointC: 9 }],
    ["a dew point alone", { dewPointC: 9 }],
    ["a wind from 400°", { wind: { fromDeg: 400, kt: 8 } }],
    ["a station of another kind", { station: "here" }],
    ["something that no report has", { luck: 7 }],
  ])("a report with %s is rejected with its place", (_what, part) => {
    const report = {
      raw: "x",
      station: "QXMP",
      at: "2026-05-01T08:50:00.000Z",
      clouds: [],
      weather: [],
      unread: [],
      ...part,
    };
    const sent = { ...event("weather.told", { report } as never), ...streamOf("weather.told") };
    expect(checkEvent(sent, NOW)).toMatchObject({
      refusal: { field: expect.stringMatching(/^data\.report/) },
    });
  });

  test.each(EVENT_TYPES)("%s is taken as it is", (type) => {
    const sent = { ...event(type, valid[type]), ...streamOf(type) };
    expect(checkEvent(sent, NOW)).toEqual({ event: sent });
  });

  test.each<[string, EventType, object, string]>([
    [
      "a line with a meter that is no pair",
      "flight.logged",
      { ...LINE, meters: { hours: 4211.3 } },
      "data.meters",
    ],
    [
      "a line with a meter below nothing",
      "flight.logged",
      { ...LINE, meters: { hours: { out: -1, in: 2 } } },
      "data.meters",
    ],
    [
      "a line whose landings are a word",
      "flight.logged",
      { ...LINE, counts: { landings: "3" } },
      "data.counts",
    ],
    ["a flight without its end", "flight.logged", { ...LINE, on: undefined }, "data.on"],
    ["a day that is none", "daily.signed", { registration: "QX-TAR", date: "2026-02-30" }, "data.date"],
    [
      "a photograph that is no hash",
      "discrepancy.photographed",
      { discrepancyId: id(), photograph: "../../etc/passwd", width: 4, height: 3 },
      "data.photograph",
    ],
    [
      "a photograph larger than any",
      "discrepancy.photographed",
      { ...valid["discrepancy.photographed"], width: 100_000 },
      "data.width",
    ],
    [
      "a limit below nothing",
      "discrepancy.limited",
      { ...valid["discrepancy.limited"], most: -1 },
      "data.most",
    ],
    [
      "a component without its times",
      "component.fitted",
      { ...valid["component.fitted"], component: { id: "x", name: "X", kind: "engine" } },
      "data.component.sinceNew",
    ],
    [
      "a visit on a day that is none",
      "workshop.planned",
      { closed: [], visits: [{ registration: "QX-TAR", date: "2027-02-29", items: [] }] },
      "data.visits[0].date",
    ],
    [
      "a limit of a person by a meter",
      "person.due-set",
      {
        personId: "ines",
        item: {
          ...(valid["person.due-set"] as EventData["person.due-set"]).item,
          limits: [{ by: "meter", meter: "hours", every: 5 }],
        },
      },
      "data.item.limits[0]",
    ],
    [
      "a renewal to a day that is none",
      "person.done",
      { personId: "ines", work: { item: "medical", date: "2026-05-01", sets: { date: "soon" } } },
      "data.work.sets.date",
    ],
    [
      "a deferral for a kind of flight that nobody flies",
      "discrepancy.deferred",
      { discrepancyId: id(), basis: "b", rules: "r", for: ["twilight"] },
      "data.for[0]",
    ],
    [
      "a release that leaves a condition without a limit",
      "work.released",
      {
        ...valid["work.released"],
        leaves: [
          {
            id: "x",
            name: "X",
            kind: "condition",
            limits: [],
            miss: "ask",
            source: { kind: "rule", text: "t", example: true },
          },
        ],
      },
      "data.leaves[0].limits",
    ],
  ])("%s: rejected at its field", (_, type, data, field) => {
    const checked = checkEvent({ ...event(type, data), ...streamOf(type) }, NOW);
    expect("refusal" in checked && checked.refusal.field).toBe(field);
  });

  test("what is done to an aircraft is not recorded in a preflight, nor a flight", () => {
    for (const type of ["work.released", "flight.logged", "discrepancy.deferred"] as const)
      expect(checkEvent(event(type, valid[type]), NOW)).toMatchObject({ refusal: { field: "stream" } });
  });

  test("a run-up that was typed has no trace, and comes from nowhere else than a trace or a hand", () => {
    const typed = { ...valid["run-up.read"], from: "typed", notes: [], rpm: [], steps: [] };
    const sent = event("run-up.read", typed as never);
    expect(checkEvent(sent, NOW)).toEqual({ event: sent });
    const told = event("run-up.read", { ...typed, from: "hearsay" } as never);
    expect(JSON.stringify(checkEvent(told, NOW))).toContain("from");
  });

  test.each<[string, unknown, string]>([
    ["an outcome nobody knows", event("item.answered", { itemId: "x", outcome: "maybe" }), "data.outcome"],
    ["a missing item", event("item.answered", { outcome: "checked" }), "data.itemId"],
    [
      "a number as words",
      event("reading.taken", { itemId: "x", key: "x", value: "7", unit: "US qt" }),
      "data.value",
    ],
    [
      "not a number at all",
      event("reading.taken", { itemId: "x", key: "x", value: Number.NaN, unit: "US qt" }),
      "data.value",
    ],
    [
      "a unit nobody knows",
      event("reading.taken", { itemId: "x", key: "x", value: 7, unit: "furlong" }),
      "data.unit",
    ],
    [
      "a date that is none",
      event("item.postponed", { itemId: "x" }, { at: "2026-13-41T00:00:00.000Z" }),
      "at",
    ],
    ["a local time", event("item.postponed", { itemId: "x" }, { at: "2026-05-01T12:00:00+02:00" }), "at"],
    [
      "an id that says no time",
      event("item.postponed", { itemId: "x" }, { id: "d94c1f0e-8d52-4b7e-9c59-0f5d5c1a2b3c" }),
      "id",
    ],
    [
      "eleven minutes ahead",
      event("item.postponed", { itemId: "x" }, { at: "2026-05-01T12:11:00.000Z" }),
      "at",
    ],
    [
      "words without end",
      event("discrepancy.closed", { discrepancyId: id(), how: "x".repeat(2001) }),
      "data.how",
    ],
  ])("%s is rejected at its field", (_what, sent, field) => {
    expect(checkEvent(sent, NOW)).toMatchObject({ refusal: { id: (sent as { id: string }).id, field } });
  });

  test.each([null, 7, "event", [], {}])("%j is refused without a fall", (sent) => {
    expect(checkEvent(sent, NOW)).toHaveProperty("refusal.reason");
  });
});

describe("the quick check", () => {
  const schema = object({
    id: string().required().matches(/^a+$/),
    words: string().max(3),
    n: number().required().min(0).max(5),
    kind: string().required().oneOf(["x", "y"]),
    list: array().of(string().required().max(2)).required().max(3),
    inner: object({ k: string().required() }).noUnknown().required(),
  })
    .noUnknown()
    .strict();
  const quick = quickCheck(schema.describe());

  test("takes what is right without asking, and never what Yup would reject", () => {
    const right = { id: "aa", words: "abc", n: 5, kind: "x", list: ["a", "bc"], inner: { k: "v" } };
    expect(quick(right)).toBe(true);
    const odd = fc.oneof(
      fc.string({ maxLength: 4 }),
      fc.constantFrom("aa", "x", "", null, undefined, Number.NaN),
      fc.integer({ min: -2, max: 7 }),
      fc.array(fc.string({ maxLength: 3 }), { maxLength: 4 }),
      fc.constant({ k: "v" }),
      fc.constant({ k: "v", more: 1 }),
    );
    const field = fc.constantFrom("id", "words", "n", "kind", "list", "inner", "unknown");
    fc.assert(
      fc.property(fc.array(fc.tuple(field, odd), { maxLength: 3 }), (changes) => {
        const value = { ...right, ...Object.fromEntries(changes) };
        if (quick(value)) expect(schema.isValidSync(value)).toBe(true);
      }),
      { numRuns: 2000 },
    );
  });

  test("passes by no kind of test that it does not know", () => {
    expect(quickCheck(string().email().strict().describe())("no address")).toBe(false);
    expect(
      quickCheck(
        string()
          .test("odd", "odd", () => false)
          .describe(),
      )("x"),
    ).toBe(false);
  });
});

describe("ids", () => {
  // Published: RFC 9562, section 5.7: the first 48 bits are the Unix time in milliseconds (from memory).
  test("carry their time and sort by it", () => {
    const early = newId(1_700_000_000_000);
    expect(idMsecs(early)).toBe(1_700_000_000_000);
    expect(early < newId(1_700_000_000_001)).toBe(true);
    expect(early[14]).toBe("7");
  });
});

describe("the content hash", () => {
  // Published: RFC 8785 orders keys; FIPS 180-4: SHA-256 of "{}" is 44136fa3… (from memory, recomputed with a library).
  test("does not depend on the order of keys, and is SHA-256 over canonical JSON", () => {
    expect(contentHash({ a: 1, b: [2, { d: 3, c: 4 }] })).toBe(contentHash({ b: [2, { c: 4, d: 3 }], a: 1 }));
    expect(contentHash({})).toBe("sha256:44136fa355b3678a1146ad16f7e8649e94fb4fc21fe77e8310c060f61caaff8a");
    expect(contentHash([1, 2])).not.toBe(contentHash([2, 1]));
  });
});

describe("an aircraft's file", () => {
  const item = { id: "a", station: "s", kind: "look", title: "Look", good: "good", why: "why", miss: "ask" };
  const type = {
    format: "cravix.aircraft-type/2",
    id: "t",
    name: "T",
    what: "w",
    stations: [{ id: "s", name: "S", phase: "lap" }],
    items: [item],
  };
  const source = { kind: "handbook", text: "x", example: true };
  const ledger = (effect: object) => ({ ...type, items: [{ ...item, kind: "remove", ledger: effect }] });
  const faultsOf = (file: unknown) => {
    const reading = readFile(file);
    return "faults" in reading ? reading.faults.map((f) => f.path) : [];
  };

  test("that is whole is taken", () => {
    expect(readFile(type)).toEqual({ file: type });
  });

  test.each<[string, unknown, string]>([
    ["no format", { ...type, format: "other/1" }, "format"],
    [
      "a station that is not there",
      { ...type, items: [{ ...item, station: "nowhere" }] },
      "items[0].station",
    ],
    ["the same item twice", { ...type, items: [item, item] }, "items[1].id"],
    ["a count of nothing", { ...type, items: [{ ...item, kind: "count" }] }, "items[0].expected"],
    ["a measure of nothing", { ...type, items: [{ ...item, kind: "measure" }] }, "items[0].reading"],
    ["a choice of nothing", { ...type, items: [{ ...item, kind: "choice" }] }, "items[0].choices"],
    [
      "a limit upside down",
      {
        ...type,
        items: [
          {
            ...item,
            kind: "measure",
            reading: { key: "k", unit: "V", decimals: 1 },
            limit: { min: 3, max: 2, unit: "V", source },
          },
        ],
      },
      "items[0].limit",
    ],
    [
      "a limit in another unit",
      {
        ...type,
        items: [
          {
            ...item,
            kind: "measure",
            reading: { key: "k", unit: "V", decimals: 1 },
            limit: { min: 1, unit: "A", source },
          },
        ],
      },
      "items[0].limit.unit",
    ],
    [
      "a thing put back that was never out",
      { ...type, items: [{ ...item, ledger: { back: "cover" } }] },
      "items[0].ledger.back",
    ],
    ["a field nobody knows", { ...type, colour: "red" }, ""],
    [
      "a script for an outline",
      { ...type, plan: { width: 100, height: 100, bodies: [{ d: 'M0 0"/><script>', tone: "body" }] } },
      "plan.bodies[0].d",
    ],
    [
      "a calibration that falls",
      {
        ...type,
        fuel: {
          taxiL: 1,
          tanks: [
            {
              id: "l",
              name: "L",
              unusableL: 1,
              capacityL: 9,
              calibration: {
                source,
                points: [
                  { dipCm: 0, litres: 5 },
                  { dipCm: 2, litres: 4 },
                ],
              },
            },
          ],
        },
      },
      "fuel.tanks[0].calibration.points",
    ],
    ["no items and no word why", { ...type, items: [] }, "items"],
    [
      "a thing that is out and back at once",
      ledger({ out: "cover", how: "off", back: "cover" }),
      "items[0].ledger",
    ],
    ["a thing that is out, nobody knows how", ledger({ out: "cover" }), "items[0].ledger"],
    ["no pieces of a thing", ledger({ out: "plugs", how: "off", count: 0 }), "items[0].ledger.count"],
    [
      "a rule for an item that is not there",
      { ...type, rules: [{ id: "r", first: "b", waits: { items: ["a"] }, why: "w" }] },
      "rules[0].first",
    ],
    ["a look from a place that is nowhere", { ...type, items: [{ ...item, spot: "moon" }] }, "items[0].spot"],
    [
      "a switch for what draws nothing",
      { ...type, items: [{ ...item, loads: { on: ["lamp"] } }] },
      "items[0].loads.on",
    ],
    [
      "a station inside a wall",
      {
        ...type,
        stations: [{ id: "s", name: "S", phase: "lap", x: 5, y: 5 }],
        plan: {
          width: 10,
          height: 10,
          bodies: [],
          walls: [
            [
              [0, 0],
              [10, 0],
              [10, 10],
              [0, 10],
            ],
          ],
        },
      },
      "stations[0]",
    ],
    [
      "a model year whose calibration falls",
      { ...type, variants: [{ id: "v", name: "V", what: "w", years: { to: 1985 }, oil: { minimumQt: -1 } }] },
      "variants[0].oil.minimumQt",
    ],
    ["an item of no method", { ...type, items: [{ ...item, method: "both" }] }, "items[0].method"],
  ])("with %s is rejected at its path", (_what, file, path) => {
    expect(faultsOf(file)).toContain(path);
  });

  test("is reported every fault at once", () => {
    expect(faultsOf({ ...type, name: 7, items: [{ ...item, kind: "guess", miss: "never" }] })).toEqual(
      expect.arrayContaining(["name", "items[0].kind", "items[0].miss"]),
    );
  });

  test("of two thousand items still works", () => {
    const items = Array.from({ length: 2000 }, (_, i) => ({ ...item, id: `item-${i}` }));
    expect(readFile({ ...type, items })).toHaveProperty("file");
  });

  test.each(["", "{", "[]", "null", "7"])("with the text %j is refused in words", (text) => {
    expect(readFileText(text)).toHaveProperty("faults.0.expected");
  });
});

describe("the published JSON Schema", () => {
  const schema = (format: string) => {
    const found = FILE_FORMATS[format];
    if (!found) throw new Error(format);
    return jsonSchema(found.schema, "x", "X") as {
      required: string[];
      additionalProperties: boolean;
      properties: Record<
        string,
        { type: string; items: { properties: Record<string, object>; required: string[] } }
      >;
    };
  };

  test("names what a file must have, and takes nothing else", () => {
    const type = schema("cravix.aircraft-type/2");
    expect(type.required).toEqual(["format", "id", "name", "what", "stations", "items"]);
    expect(type.additionalProperties).toBe(false);
    expect(type.properties.items?.items.required).toEqual([
      "id",
      "station",
      "kind",
      "title",
      "good",
      "why",
      "miss",
    ]);
    expect(type.properties.items?.items.properties.expected).toEqual({
      type: "integer",
      minimum: 1,
      maximum: 60,
    });
    expect(type.properties.items?.items.properties.when).toMatchObject({
      type: "array",
      items: { enum: expect.arrayContaining(["frost", "just rigged"]) },
    });
  });

  test("says the same of every format that there is", () => {
    for (const format of Object.keys(FILE_FORMATS))
      expect(schema(format).properties.format).toMatchObject({ enum: [format] });
  });
});

describe("a checklist on paper", () => {
  const list: ComposedList = composeList({
    type: {
      format: "cravix.aircraft-type/2",
      id: "t",
      name: "T *1*",
      what: "w",
      stations: [
        { id: "s", name: "Left | side", phase: "lap" },
        { id: "p", name: "Parked", phase: "after" },
      ],
      items: [
        {
          id: "a",
          station: "s",
          kind: "count",
          expected: 3,
          title: "Hinges [left]",
          good: "serviceable",
          why: "why",
          miss: "stop",
          caution: "Hot.",
        },
        {
          id: "b",
          station: "s",
          kind: "look",
          title: "Ice",
          good: "dry",
          why: "why",
          miss: "stop",
          when: ["frost"],
        },
        { id: "c", station: "p", kind: "look", title: "Cover on", good: "on", why: "why", miss: "note" },
      ],
    },
    aircraft: {
      format: "cravix.aircraft/2",
      registration: "QX-TST",
      typeId: "t",
      year: 2000,
      base: "b",
      ownItems: [],
    },
    conditions: ["frost"],
    openDiscrepancies: [],
  });

  test("has every line once, what is wanted of it, why it is there today, and the putting away last", () => {
    expect(paperLines(list)).toEqual([
      {
        step: "Walkaround",
        station: "Left | side",
        title: "Hinges [left]",
        good: "serviceable; 3 expected",
        why: "why",
        today: "",
        caution: "Hot.",
      },
      {
        step: "Walkaround",
        station: "Left | side",
        title: "Ice",
        good: "dry",
        why: "why",
        today: "frost",
        caution: "",
      },
      {
        step: "After the flight",
        station: "After parking",
        title: "Cover on",
        good: "on",
        why: "why",
        today: "",
        caution: "",
      },
    ]);
  });

  test("is Markdown with boxes, whatever marks its words hold", () => {
    const text = listMarkdown(list);
    expect(text).toContain("# QX-TST · T \\*1\\*");
    expect(text).toContain("### Left \\| side");
    expect(text).toContain("- [ ] **Hinges \\[left\\]**: serviceable; 3 expected");
    expect(text).toContain("*(today: frost)*");
    expect(text).toContain("The pilot in command decides.");
    expect(text.match(/- \[ \]/g)).toHaveLength(3);
  });

  test("is read back from the wire, or rejected at its paths", () => {
    expect(readList(JSON.parse(JSON.stringify(list)))).toEqual({ list });
    expect(readList({ ...list, items: [{ id: "a" }] })).toMatchObject({
      faults: expect.arrayContaining([expect.objectContaining({ path: "items[0].title" })]),
    });
    expect(readList(null)).toHaveProperty("faults");
    expect(readList({ ...list, format: "other" })).toMatchObject({ faults: [{ path: "format" }] });
  });
});
