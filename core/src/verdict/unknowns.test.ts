import type { ComposeInput } from "../checklist/list/compose-list";
import type { PreflightEvent } from "../checklist/stream/events";
import { foldPreflight } from "../checklist/stream/fold-preflight";
import { FLIGHT_SUBJECTS } from "../judgement/flight-subjects";
import {
  AT,
  completeFlight,
  FIELD,
  type FlightEvents,
  LOADING,
  POWERED,
  POWERED_ITEMS,
  REPORT,
  RULES,
  STUDENT,
  told,
} from "../testing/complete-flight";
import { item, source, streamId } from "../testing/small-aircraft";
import { readReport } from "../weather/read-weather";
import { computeVerdict } from "./verdict";

function judged(of: FlightEvents = {}, input: Partial<ComposeInput> = {}, more: PreflightEvent[] = []) {
  const { list, events } = completeFlight(of, input);
  const state = foldPreflight(streamId, [...events, ...more]);
  return { ...computeVerdict(list, state), state };
}

const weather = (more: Partial<typeof REPORT>) => ({
  weather: { report: { ...REPORT, ...more }, variationDeg: 0 },
});
const read = (text: string) => ({ weather: { report: readReport(text, AT), variationDeg: 0 } });
const without = (part: keyof typeof REPORT) => {
  const { [part]: _, ...rest } = REPORT;
  return { weather: { report: rest as typeof REPORT, variationDeg: 0 } };
};

const ALONE: Partial<ComposeInput> = {};
const PASSENGERS: Partial<ComposeInput> = { conditions: ["passengers"] };
const STUDENTS: Partial<ComposeInput> = { minima: [STUDENT], conditions: ["solo student"] };
const NIGHT: Partial<ComposeInput> = { conditions: ["night"] };
const FLIGHTS: [string, Partial<ComposeInput>][] = [
  ["alone", ALONE],
  ["with passengers", PASSENGERS],
  ["a student", STUDENTS],
  ["at night", NIGHT],
];

test.each(FLIGHTS)("with everything known nothing is missing: %s", (_name, flight) => {
  const { notAssessed, reasons, verdict } = judged({}, flight);
  expect(notAssessed).toEqual([]);
  expect(reasons).toEqual([]);
  expect(verdict).toBe("go");
});

/** Each case takes something away, or makes it unreadable or contradictory; the subject must then be named. */
const CASES: [
  what: string,
  subject: (typeof FLIGHT_SUBJECTS)[number],
  of: FlightEvents,
  input?: Partial<ComposeInput>,
][] = [
  ["no weather", "wind", { weather: undefined }],
  ["no weather", "visibility", { weather: undefined }],
  ["no weather", "ceiling", { weather: undefined }],
  ["no weather", "distances", { weather: undefined }],
  ["no wind in the report", "wind", without("wind")],
  ["an unreadable wind", "wind", read("METAR QXMP 011150Z 2501KT 9999 NSC 15/08 Q1013")],
  ["two winds", "wind", read("METAR QXMP 011150Z 25010KT 07020KT 9999 NSC 15/08 Q1013")],
  ["no magnetic variation", "wind", { weather: { report: REPORT } }],
  ["no runway", "wind", { runway: undefined }],
  ["no runway", "distances", { runway: undefined }],
  ["no visibility", "visibility", read("METAR QXMP 011150Z AUTO 25010KT //// NSC 15/08 Q1013")],
  ["an unreadable visibility", "visibility", read("METAR QXMP 011150Z 25010KT 99 NSC 15/08 Q1013")],
  ["two visibilities", "visibility", read("METAR QXMP 011150Z 25010KT 9999 0800 NSC 15/08 Q1013")],
  ["no cloud group", "ceiling", read("METAR QXMP 011150Z 25010KT 9999 15/08 Q1013")],
  ["cloud not observed", "ceiling", read("METAR QXMP 011150Z AUTO 25010KT 9999 ////// 15/08 Q1013")],
  [
    "height of cloud not observed",
    "ceiling",
    read("METAR QXMP 011150Z AUTO 25010KT 9999 BKN/// 15/08 Q1013"),
  ],
  [
    "cumulonimbus at an unknown height",
    "ceiling",
    read("METAR QXMP 011150Z AUTO 25010KT 9999 FEW030 //////CB 15/08 Q1013"),
  ],
  ["an unreadable cloud", "ceiling", read("METAR QXMP 011150Z 25010KT 9999 BKN0O3 15/08 Q1013")],
  [
    "one readable and one unreadable cloud",
    "ceiling",
    read("METAR QXMP 011150Z 25010KT 9999 FEW030 BKN0O3 15/08 Q1013"),
  ],
  [
    "vertical visibility not observed",
    "ceiling",
    read("METAR QXMP 011150Z AUTO 25010KT 9999 VV/// 15/08 Q1013"),
  ],
  ["a group nobody understands", "report", read("METAR QXMP 011150Z 25010KT 9999 NSC 15/08 Q1013 BLAH1")],
  ["a report of another station", "report", weather({ station: "QXAB" })],
  ["a report of another station", "ceiling", weather({ station: "QXAB" })],
  ["an old report", "visibility", weather({ at: "2026-05-01T09:20:00.000Z" })],
  ["a report of tomorrow", "wind", weather({ at: "2026-05-01T13:20:00.000Z" })],
  ["no temperature", "distances", read("METAR QXMP 011150Z 25010KT 9999 NSC ///// Q1013")],
  ["a dew point above the temperature", "distances", read("METAR QXMP 011150Z 25010KT 9999 NSC 08/15 Q1013")],
  ["no load", "loading", { load: undefined }],
  ["no load", "distances", { load: undefined }],
  ["no mass for the pilot", "loading", { load: { rear: 60 } }],
  ["a load at a place that does not exist", "loading", { load: { front: 160, trunk: 40 } }],
  ["no loading file", "loading", {}, { loading: undefined as never }],
  ["no fuel measured", "fuel", { dipL: undefined }],
  ["no fuel measured", "loading", { dipL: undefined }],
  ["no consumption on file", "fuel", {}, { type: { ...POWERED, fuel: undefined as never } }],
  ["no charts on file", "distances", {}, { type: { ...POWERED, performance: undefined as never } }],
  [
    "no declared distances",
    "distances",
    {},
    { airfield: { ...FIELD, runways: FIELD.runways.map(({ declared: _, ...one }) => one) } },
  ],
  ["a field without coordinates", "light", {}, { airfield: { ...FIELD, lat: undefined as never } }],
  ["no rule for the night", "light", {}, { rules: { ...RULES, night: undefined as never } }],
  ["no airworthiness record", "papers", {}, { papers: undefined as never }],
  ["limits of the pilot not on the device", "pilot", {}, { ownUnknown: true }],
  ["nothing of the pilot on file", "pilot", {}, { pilotInDate: "unjudged" }],
  ["a grade of the pilot that nobody understands", "pilot", {}, { pilotInDate: "bananas" } as never],
  ["nobody knows whether the pilot is in date", "pilot", {}, { pilotInDate: undefined } as never],
  [
    "an accelerate-stop distance that the handbook lacks",
    "accelerate-stop",
    {},
    { type: { ...POWERED, engines: ["left", "right"] } },
  ],
];

describe.each(FLIGHTS)("%s", (_name, flight) => {
  test.each(CASES)("%s: %s is not assessed", (_what, subject, of, input = {}) => {
    const { list, events } = completeFlight(of, { ...flight, ...input });
    const bare = { ...list };
    for (const [part, value] of Object.entries(input)) if (value === undefined) delete bare[part as never];
    const result = computeVerdict(bare, foldPreflight(streamId, events));
    expect(result.notAssessed).toContain(subject);
    // Or none at all, while the item that asks for it is open.
    expect(["ask first", "stop", undefined]).toContain(result.verdict);
    const reason = result.reasons.find(({ unknown }) => unknown === subject);
    expect(reason?.text.length).toBeGreaterThan(20);
  });
});

describe("going without an assessment", () => {
  const waive = (why = "I have checked it myself, here at the field.", crewId = "ines") => ({
    ...told("assessment.waived", { subjects: [...FLIGHT_SUBJECTS], why }),
    crewId,
  });

  test("is the pilot's decision, on record in his words, and stays a note", () => {
    const { verdict, notAssessed, reasons } = judged({ weather: undefined }, {}, [waive() as PreflightEvent]);
    expect(notAssessed).toEqual([]);
    expect(verdict).toBe("go with notes");
    expect(reasons.map(({ grade }) => grade)).toEqual(reasons.map(() => "note"));
    expect(reasons[0]?.text).toContain("Going without: “I have checked it myself, here at the field.”");
  });

  test("is not the decision of anybody else", () => {
    const other = judged({ weather: undefined }, {}, [waive("As you like.", "kofi") as PreflightEvent]);
    expect(other.verdict).toBe("ask first");
    expect(other.state.waived).toBeUndefined();
  });

  test("is not a student's, nor where the group or the pilot's own minimums forbid it", () => {
    const forbidden: [Partial<ComposeInput>, string][] = [
      [STUDENTS, "ask your instructor"],
      [{ rules: { ...RULES, minima: { noUnknown: true, source } } }, "group's rules"],
      [{ minima: [{ of: "pilot", minima: { noUnknown: true }, source }] }, "personal minimums"],
    ];
    for (const [input, why] of forbidden) {
      const result = judged({ load: undefined }, input, [waive() as PreflightEvent]);
      expect(result.verdict).toBe("ask first");
      expect(result.notAssessed).toContain("loading");
      expect(result.whyNotWaivable).toContain(why);
    }
  });

  test("never covers what is outside a limit, only what is unknown", () => {
    const thunder = read("METAR QXMP 011150Z 25010KT 9999 TSRA BKN030CB 15/08 Q1013");
    expect(judged(thunder, {}, [waive() as PreflightEvent]).verdict).toBe("stop");
    expect(judged({ load: { front: 400, rear: 200 } }, {}, [waive() as PreflightEvent]).verdict).toBe("stop");
  });
});

/** WMO-No. 306 code forms, from memory; FAA-H-8083-28: stay out of them. */
test.each([
  ["TSRA", "stop"],
  ["VCTS", "ask first"],
  ["FZRA", "stop"],
  ["-FZDZ", "stop"],
  ["+FC", "stop"],
  ["GR", "stop"],
  ["SQ", "ask first"],
  ["FG", "ask first"],
])("%s in the report of now is %s", (group, verdict) => {
  expect(judged(read(`METAR QXMP 011150Z 25010KT 9999 ${group} NSC 15/08 Q1013`)).verdict).toBe(verdict);
});

test.each([
  ["WS R24", "ask first"],
  ["WS ALL RWY", "ask first"],
  ["R24/SNOCLO", "stop"],
  ["SNOCLO", "stop"],
])("%s in the report of now is %s", (group, verdict) => {
  expect(judged(read(`METAR QXMP 011150Z 25010KT 9999 NSC 15/08 Q1013 ${group}`)).verdict).toBe(verdict);
});

test("a change expected within two hours counts, without any forecast; what it says of later is not made up", () => {
  const soon = judged(read("METAR QXMP 011150Z 25010KT 9999 NSC 15/08 Q1013 TEMPO TSRA BKN020CB"));
  expect(soon.verdict).toBe("go with notes");
  expect(soon.reasons.map(({ text }) => text)).toEqual([
    expect.stringContaining("Thunderstorm forecast at times between 12:00 and 13:00 UTC"),
  ]);
  // What is so already is not forecast as well.
  const now = judged(read("METAR QXMP 011150Z 25010KT 9999 TSRA NSC 15/08 Q1013 TEMPO +TSRA"));
  expect(now.reasons.map(({ cause }) => cause)).toEqual(["weather.thunderstorm"]);
  const later = read("METAR QXMP 011150Z 25010KT 9999 NSC 15/08 Q1013 BECMG FM1330 TSRA");
  expect(judged(later).verdict).toBe("go");
});

test("a type whose handbook allows it is asked about freezing precipitation, not stopped", () => {
  const type = { ...POWERED, weatherAccepted: [{ what: "freezing precipitation" as const, source }] };
  const icy = read("METAR QXMP 011150Z 25010KT 9999 -FZDZ NSC 00/M01 Q1013");
  expect(judged(icy, { type }).verdict).toBe("ask first");
});

test("without an altimeter setting distances are judged at standard pressure, and that is a note", () => {
  const { verdict, reasons } = judged(without("settingHpa"));
  expect(verdict).toBe("go with notes");
  expect(reasons.map(({ text }) => text)).toEqual([expect.stringContaining("standard pressure (1,013 hPa)")]);
});

test("every limit that is exceeded counts: one's own tighter limit does not soften an authorisation", () => {
  const own = { of: "pilot" as const, minima: { crosswindKt: 6 }, source };
  const crossing = weather({ wind: { fromDeg: 330, kt: 12 } });
  const { reasons, verdict } = judged(crossing, { minima: [own, STUDENT] });
  expect(verdict).toBe("stop");
  expect(reasons.find(({ cause }) => cause === "wind.cross")?.text).toContain(
    "12 kt: the authorisation's limit is 8 kt; your personal limit is 6 kt.",
  );
});

test("a windsock read without a gust does not erase the gusts of the report", () => {
  const gusty = weather({ wind: { fromDeg: 250, kt: 10, gustKt: 24 } });
  const reading = (id: string, key: string, unit: "kt" | "°") =>
    item(id, "papers", { kind: "measure", reading: { key, unit, decimals: 0 } });
  const type = {
    ...POWERED,
    items: [...POWERED_ITEMS, reading("from", "wind.from", "°"), reading("speed", "wind.speed", "kt")],
  };
  const sock = [
    told("reading.taken", { itemId: "from", key: "wind.from", value: 250, unit: "°" }),
    told("reading.taken", { itemId: "speed", key: "wind.speed", value: 10, unit: "kt" }),
  ];
  const limit = { of: "pilot" as const, minima: { windKt: 20 }, source };
  const { reasons } = judged(gusty, { type, minima: [limit] }, sock);
  expect(reasons.map(({ text }) => text)).toEqual([
    expect.stringContaining("24 kt: your personal limit is 20 kt"),
  ]);
});

test("a reported wind without any crosswind limit on file is not a good one", () => {
  const { crosswind: _, ...type } = POWERED;
  const { verdict, reasons } = judged({}, { type });
  expect(verdict).toBe("ask first");
  expect(reasons.map(({ text }) => text)).toEqual(["Crosswind: No crosswind limit on file."]);
});

describe("a glider", () => {
  const { performance: _p, fuel: _f, ...rest } = POWERED;
  const seats: Partial<ComposeInput> = {
    type: {
      ...rest,
      launch: { winch: { maxWindKt: 25, source } },
      items: [
        POWERED_ITEMS[0] as (typeof POWERED_ITEMS)[number],
        item("a", "papers", { kind: "measure", reading: { key: "mass.front", unit: "kg", decimals: 0 } }),
        item("b", "papers", { kind: "measure", reading: { key: "mass.rear", unit: "kg", decimals: 0 } }),
      ],
    },
    loading: {
      ...LOADING,
      weighing: { ...LOADING.weighing, emptyKg: 396 },
      tanks: [],
      envelope: {
        source,
        corners: [
          { kg: 440, armMm: 900 },
          { kg: 590, armMm: 900 },
          { kg: 590, armMm: 1200 },
          { kg: 440, armMm: 1200 },
        ],
      },
      maxTakeoffKg: { value: 590, source },
    },
  };
  const masses = (front?: number, rear?: number) => [
    ...(front === undefined
      ? []
      : [told("reading.taken", { itemId: "a", key: "mass.front", value: front, unit: "kg" })]),
    ...(rear === undefined
      ? []
      : [told("reading.taken", { itemId: "b", key: "mass.rear", value: rear, unit: "kg" })]),
  ];
  const glider = (front?: number, rear?: number) =>
    judged(
      { load: undefined, dipL: undefined, start: { plannedLaunch: "winch" } },
      seats,
      masses(front, rear),
    );

  test("with two heavy people is overweight by the masses read at the seats", () => {
    const { verdict, reasons } = glider(110, 110);
    expect(verdict).toBe("stop");
    // By hand: 396 + 110 + 110 = 616 kg, 26 kg over 590.
    expect(reasons[0]?.text).toContain("26 kg over 590 kg at take-off");
  });

  test("with two of 90 kg is within limits, and needs no distances and no fuel", () => {
    const { verdict, notAssessed, withinLimits } = glider(90, 90);
    expect(notAssessed).toEqual([]);
    expect(verdict).toBe("go");
    expect(withinLimits.find(({ id }) => id === "mass.balance")?.sentence).toContain("576 kg at take-off");
  });

  test("with a seat nobody has weighed is not assessed", () => {
    expect(glider(90).notAssessed).toEqual(["loading"]);
  });

  test("without a launch method its wind limits are not checked", () => {
    const { notAssessed } = judged({ load: undefined, dipL: undefined }, seats, masses(90, 90));
    expect(notAssessed).toEqual(["launch"]);
  });
});

test("a pilot who is not in date stops the flight, and the record does not say which item it is", () => {
  const { verdict, reasons } = judged({}, { pilotInDate: "stop" });
  expect(verdict).toBe("stop");
  expect(reasons).toHaveLength(1);
  expect(reasons[0]?.text).toContain("not in date for this flight");
  expect(judged({}, { pilotInDate: "note" }).verdict).toBe("go with notes");
});
