import type { Item } from "../aircraft/aircraft-type";
import { composeList } from "../checklist/list/compose-list";
import type { EventData, PreflightEvent } from "../checklist/stream/events";
import { foldPreflight } from "../checklist/stream/fold-preflight";
import { judgeReading } from "../judgement/judge-reading";
import { type FindingGrade, limitText } from "../judgement/judgement";
import {
  allWaived,
  answered,
  event,
  item,
  LIST_INPUT,
  source,
  started,
  streamId,
  type,
} from "../testing/small-aircraft";
import type { Unit } from "../units/convert";
import { assertPlausible } from "../units/plausible";
import { judgePreflight } from "./judge-preflight";
import { toLog } from "./to-log";
import { computeVerdict } from "./verdict";
import { verdictFor } from "./verdict-for";

const list = composeList(LIST_INPUT);
const oil = (value: number, unit: Unit = "US qt") =>
  event("reading.taken", { itemId: "oil", key: "oil.level", value, unit });
const found = (grade: FindingGrade) =>
  event("discrepancy.opened", {
    discrepancyId: `d${grade}`,
    registration: "QX-TST",
    stationId: "left",
    itemId: "left.skin",
    text: `dent, ${grade}`,
    grade,
  });
const rest = (...except: string[]) =>
  list.items.filter((i) => !except.includes(i.id)).map((i) => answered(i.id));
/** The verdict without what this small aircraft does not know of its flight. */
const verdict = (given = list, ...events: PreflightEvent[]) => {
  const result = computeVerdict(given, foldPreflight(streamId, [started(), allWaived(), ...events]));
  return { ...result, reasons: result.reasons.filter(({ unknown }) => unknown === undefined) };
};

describe("the verdict", () => {
  test("finds nothing if everything was answered without problems; what was not assessed stays a note", () => {
    const result = verdict(list, ...rest("oil"), oil(7));
    expect(result).toMatchObject({ verdict: "go with notes", reasons: [], unanswered: [], outstanding: [] });
    expect(result.withinLimits.map((j) => j.id)).toEqual(["oil.level"]);
  });

  test.each<[FindingGrade, string]>([
    ["note", "go with notes"],
    ["watch", "go with notes"],
    ["ask", "ask first"],
    ["stop", "stop"],
  ])("with something found that is graded %s is %s", (grade, expected) => {
    const result = verdict(list, ...rest("oil", "left.skin"), oil(7), found(grade));
    expect(result.verdict).toBe(expected);
    expect(result.reasons).toEqual([
      expect.objectContaining({ grade, text: `dent, ${grade}`, stationId: "left" }),
    ]);
  });

  test("is not given while something is open, and says what and where", () => {
    const result = verdict(list, ...rest("oil", "right.skin"), oil(7));
    expect(result.verdict).toBeUndefined();
    expect(result.unanswered.map((i) => [i.id, i.station])).toEqual([["right.skin", "right"]]);
  });

  test("stop is shown at once, before the preflight is finished", () => {
    expect(verdict(list, found("stop")).verdict).toBe("stop");
    expect(verdict(list, found("ask")).verdict).toBeUndefined();
  });

  test("the worst reason comes first", () => {
    const result = verdict(list, ...rest("oil", "left.skin"), oil(5.4), found("note"));
    expect(result.reasons.map((r) => r.grade)).toEqual(["stop", "note"]);
  });

  test("without a limit on file is ask first, never a guess", () => {
    const { oil: _none, ...profile } = type;
    const bare = composeList({ ...LIST_INPUT, type: profile });
    expect(verdict(bare, ...rest("oil"), oil(7))).toMatchObject({
      verdict: "ask first",
      reasons: [{ grade: "unjudged" }],
    });
  });

  test("is blocked while something is still on", () => {
    const electric = composeList({
      ...LIST_INPUT,
      type: {
        ...type,
        items: [
          ...type.items,
          item("on", "papers", { ledger: { out: "battery", how: "on" } }),
          item("off", "engine", { ledger: { back: "battery" } }),
        ],
      },
    });
    const offWrong = event("item.answered", { itemId: "off", outcome: "found" });
    const result = verdict(electric, ...rest("oil"), oil(7), answered("on"), offWrong);
    expect(result.outstanding).toMatchObject([{ thing: "battery", how: "on" }]);
    expect(result.verdict).toBeUndefined();
  });

  test("a known discrepancy counts as seen: unchanged, worse is asked about, gone still needs a sign-off", () => {
    const known = {
      id: "d",
      stationId: "right",
      text: "Seep",
      grade: "watch" as const,
      openedAt: "2026-04-01T10:00:00.000Z",
      openedBy: "Maren",
    };
    const today = composeList({ ...LIST_INPUT, openDiscrepancies: [known] });
    const seen = (state: "same" | "grown" | "gone") =>
      event("discrepancy.observed", { discrepancyId: "d", itemId: "known:d", state, measure: "4 drops" });
    const outcome = (state: "same" | "grown" | "gone") => verdict(today, ...rest("oil"), oil(7), seen(state));
    expect(outcome("same")).toMatchObject({
      verdict: "go with notes",
      reasons: [{ text: "Seep: unchanged, 4 drops." }],
    });
    expect(outcome("grown")).toMatchObject({ verdict: "ask first", reasons: [{ grade: "ask" }] });
    expect(outcome("gone")).toMatchObject({ verdict: "go with notes", reasons: [{ grade: "note" }] });
    expect(verdict(today, ...rest("oil"), oil(7)).verdict).toBeUndefined();
  });

  test("a measurement at its limit is a stop, whatever it was before; in another unit it says nothing", () => {
    const known = {
      id: "d",
      stationId: "right",
      text: "Creep mark",
      grade: "watch" as const,
      openedAt: "2026-04-01T10:00:00.000Z",
      openedBy: "Maren",
      limit: { most: 6, unit: "mm", source: "the wheel's card" },
      deferral: { basis: "by day", rules: "example", for: ["day" as const] },
    };
    const today = composeList({ ...LIST_INPUT, openDiscrepancies: [known] });
    expect(today.measureLimits).toEqual({ d: known.limit });
    const outcome = (measure: string) =>
      verdict(
        today,
        ...rest("oil"),
        oil(7),
        event("discrepancy.observed", { discrepancyId: "d", itemId: "known:d", state: "same", measure }),
      );
    expect(outcome("6 mm")).toMatchObject({
      verdict: "stop",
      reasons: [
        { grade: "stop", text: "Creep mark: unchanged, 6 mm. The limit is 6 mm (the wheel's card)." },
      ],
    });
    expect(outcome("5 mm").verdict).toBe("go with notes");
    expect(outcome("7 drops a minute").verdict).toBe("go with notes");
  });

  test("a daily inspection signed in the record is not asked, and is shown with its date", () => {
    const papers = {
      timeZone: "UTC",
      meters: [],
      totals: {},
      dues: [],
    };
    const asks = {
      ...type,
      items: [
        ...type.items,
        item("daily", "papers", { due: ["daily inspection"] }),
        item("record", "papers", { due: ["*"] }),
      ],
    };
    const signed = { ...papers, daily: { date: "2026-05-01", crewId: "kofi" } };
    const ids = (pinned: typeof papers) =>
      composeList({ ...LIST_INPUT, type: asks, papers: pinned }).items.map(({ id }) => id);
    expect(ids(papers)).toContain("daily");
    expect(ids(signed)).not.toContain("daily");
    expect(ids(signed)).toContain("record");
    const list = composeList({ ...LIST_INPUT, type: asks, papers: signed });
    const state = foldPreflight(streamId, [started()]);
    expect(judgePreflight(list, state).judgements.find(({ id }) => id === "papers.daily")).toMatchObject({
      grade: "within limits",
      sentence: "Signed in the record for 1 May 2026.",
      itemIds: ["record"],
    });
  });

  test("an instrument finding is logged if it belongs to the aircraft, not to the day, and counts once", () => {
    const volts = item("volts", "engine", {
      kind: "measure",
      miss: "stop",
      reading: { key: "volts", unit: "V", decimals: 1 },
      limit: { min: 27, max: 29, unit: "V", source },
    });
    const wired = composeList({ ...LIST_INPUT, type: { ...type, items: [...type.items, volts] } });
    const low = [
      ...rest("oil"),
      oil(5),
      event("reading.taken", { itemId: "volts", key: "volts", value: 24, unit: "V" }),
    ];
    const { reasons } = verdict(wired, ...low);
    expect(reasons.map((r) => r.judgement?.id).sort()).toEqual(["oil.level", "volts"]);
    const fold = (...events: PreflightEvent[]) => foldPreflight(streamId, [started(), ...events]);
    const logged = toLog(wired, fold(...low), reasons);
    expect(logged).toEqual([
      {
        type: "discrepancy.opened",
        data: {
          registration: "QX-TST",
          stationId: "engine",
          itemId: "volts",
          cause: "volts",
          grade: "stop",
          text: expect.stringContaining("below the limit"),
          measure: "24.0 V",
        },
      },
    ]);
    const up = logged.map((one) =>
      event("discrepancy.opened", {
        ...(one.data as EventData["discrepancy.opened"]),
        discrepancyId: "w0",
        // Its text may be edited when logged: it is matched by its cause.
        text: "Low on the bus",
      }),
    );
    const after = verdict(wired, ...low, ...up).reasons;
    expect(after).toHaveLength(2);
    expect(toLog(wired, fold(...low, ...up), after)).toEqual([]);
    // The next preflight updates it and opens nothing.
    const next = composeList({
      ...LIST_INPUT,
      type: { ...type, items: [...type.items, volts] },
      openDiscrepancies: [
        {
          id: "w0",
          stationId: "engine",
          text: "Low on the bus",
          grade: "stop",
          openedAt: "2026-05-01T10:00:00.000Z",
          openedBy: "Inês",
          cause: "volts",
        },
      ],
    });
    const again = verdict(next, ...low);
    expect(toLog(next, fold(...low), again.reasons)).toEqual([
      {
        type: "discrepancy.observed",
        data: { discrepancyId: "w0", itemId: "known:w0", state: "same", measure: "24.0 V" },
      },
    ]);
    const seen = event("discrepancy.observed", { discrepancyId: "w0", itemId: "known:w0", state: "grown" });
    const looked = verdict(next, ...low, seen);
    expect(looked.reasons.filter((r) => r.cause === "volts")).toEqual([
      expect.objectContaining({ grade: "stop", discrepancyId: "w0" }),
    ]);
    expect(toLog(next, fold(...low, seen), looked.reasons)).toEqual([]);
  });

  test("text for each grade", () => {
    expect(
      ["within limits", "note", "watch", "unjudged", "ask", "stop"].map((g) => verdictFor(g as FindingGrade)),
    ).toEqual(["go", "go with notes", "go with notes", "ask first", "ask first", "stop"]);
  });
});

describe("impossible readings", () => {
  const judge = (...events: PreflightEvent[]) => {
    const { judgements, ...given } = judgePreflight(list, foldPreflight(streamId, [started(), ...events]));
    return { ...given, judgements: judgements.filter(({ cause }) => !cause?.startsWith("unknown.")) };
  };

  test("beyond the dipstick, or in another unit, are not assessed, with a reason", () => {
    expect(judge(oil(40)).judgements).toEqual([
      expect.objectContaining({
        grade: "unjudged",
        sentence: expect.stringContaining("above the possible range"),
      }),
    ]);
    expect(judge(oil(7, "V")).judgements).toEqual([
      expect.objectContaining({
        grade: "unjudged",
        sentence: expect.stringContaining("is in V, but US qt is needed"),
      }),
    ]);
    // 5 L are 5.28 US qt (NIST SP 811): below the minimum of 6, in any unit.
    expect(judge(oil(5, "L")).judgements).toEqual([
      expect.objectContaining({ grade: "stop", sentence: expect.stringContaining("0.7 US qt below") }),
    ]);
    expect(judge(oil(40)).oil).toBeUndefined();
  });

  test.each<[number, "rpm" | "US qt" | "°", RegExp]>([
    [9000, "rpm", /above/],
    [-1, "rpm", /below/],
    [40, "US qt", /above/],
    [361, "°", /above/],
    [Number.NaN, "rpm", /not a number/],
  ])("%d %s is rejected for any aircraft", (value, unit, reason) => {
    expect(() => assertPlausible("x", value, unit)).toThrow(reason);
  });
});

describe("a reading against its limit", () => {
  // Common practice: a 28 V system charges at 27 to 29 V, inclusive.
  const limit = { min: 27, max: 29, unit: "V", source } as const;
  const judge = (value: number) =>
    judgeReading({
      id: "v",
      subject: "Volts",
      scope: "aircraft",
      reading: { value, unit: "V" },
      limit,
      outside: "ask",
    });
  test.each([
    [26.9, "ask"],
    [27, "within limits"],
    [28.1, "within limits"],
    [29, "within limits"],
    [29.1, "ask"],
  ])("%d V is %s", (value, grade) => {
    expect(judge(value).grade).toBe(grade);
  });

  test("gives reading, limit, margin and source", () => {
    expect(judge(28.1)).toMatchObject({
      reading: { value: 28.1, unit: "V" },
      limit: "27.0 to 29.0 V",
      source,
    });
    expect(judge(28.1).margin?.value).toBeCloseTo(0.9);
    expect(judge(26).sentence).toContain("1.0 V below");
  });

  test("without a limit there is no judgement; another unit is an error", () => {
    expect(
      judgeReading({
        id: "v",
        subject: "Volts",
        scope: "aircraft",
        reading: { value: 1, unit: "V" },
        limit: undefined,
        outside: "ask",
      }).grade,
    ).toBe("unjudged");
    expect(() =>
      judgeReading({
        id: "v",
        subject: "Volts",
        scope: "aircraft",
        reading: { value: 1, unit: "A" },
        limit,
        outside: "ask",
      }),
    ).toThrow("V is needed");
  });

  test("limits are written as they are spoken", () => {
    expect(limitText({ min: 6, unit: "US qt", source })).toBe("at least 6.0 US qt");
    expect(limitText({ max: 125, unit: "rpm", source })).toBe("at most 125 rpm");
    expect(limitText({ min: 75, max: 245, unit: "°F", source })).toBe("75 to 245 °F");
  });
});

test("a whole engine and the wind are assessed from readings by their names", () => {
  const measure = (id: string, key: string, unit: "rpm" | "°" | "kt" | "ft"): Item =>
    item(id, "engine", { kind: "measure", reading: { key, unit, decimals: 0 } });
  const full = composeList({
    ...LIST_INPUT,
    type: {
      ...type,
      magnetos: { maxDropRpm: 125, maxDifferenceRpm: 50, resolutionRpm: 10, tachometerMaxRpm: 3500, source },
      crosswind: { kt: 15, source },
      items: [
        ...type.items,
        measure("b", "magneto.base", "rpm"),
        measure("r", "magneto.right", "rpm"),
        measure("l", "magneto.left", "rpm"),
        measure("h", "carburettor-heat.hot", "rpm"),
        measure("a", "altimeter", "ft"),
        item("runway-in-use", "engine", { kind: "choice", choicesFrom: "runways" }),
        measure("f", "wind.from", "°"),
        measure("s", "wind.speed", "kt"),
      ],
    },
    airfield: {
      format: "cravix.airfield/1",
      id: "f",
      name: "F",
      elevationFt: 23,
      runways: [{ id: "24", headingDeg: 240, lengthM: 780, surface: "grass" }],
    },
    rules: { format: "cravix.rule-set/1", id: "r", name: "R", reserves: [], altimeter: { feet: 75, source } },
  });
  const take = (itemId: string, key: string, value: number, unit: "rpm" | "°" | "kt" | "ft") =>
    event("reading.taken", { itemId, key, value, unit });
  const { judgements } = judgePreflight(
    full,
    foldPreflight(streamId, [
      started(),
      take("b", "magneto.base", 1800, "rpm"),
      take("r", "magneto.right", 1730, "rpm"),
      take("l", "magneto.left", 1640, "rpm"),
      take("h", "carburettor-heat.hot", 1700, "rpm"),
      take("a", "altimeter", 99, "ft"),
      event("item.answered", { itemId: "runway-in-use", outcome: "checked", value: "24" }),
      take("f", "wind.from", 330, "°"),
      take("s", "wind.speed", 20, "kt"),
    ]),
  );
  const known = judgements.filter(({ cause }) => !cause?.startsWith("unknown."));
  expect(Object.fromEntries(known.map((j) => [j.id, j.grade]))).toEqual({
    "weather.wind": "within limits",
    "magneto.right": "within limits",
    "magneto.left": "stop",
    "magneto.difference": "stop",
    "carburettor-heat": "within limits",
    altimeter: "ask",
    "wind.cross": "ask",
  });
});

test("each engine of a twin is assessed separately and named", () => {
  const measure = (id: string, key: string, unit: "rpm" | "US qt") =>
    item(id, "engine", { kind: "measure", reading: { key, unit, decimals: 0 } });
  const twin = composeList({
    ...LIST_INPUT,
    type: {
      ...type,
      engines: ["left", "right"],
      magnetos: {
        maxDropRpm: 175,
        maxDifferenceRpm: 50,
        resolutionRpm: 10,
        tachometerMaxRpm: 3500,
        source,
      },
      items: ["left", "right"].flatMap((engine) => [
        measure(`${engine}.oil`, `oil.level.${engine}`, "US qt"),
        measure(`${engine}.base`, `magneto.base.${engine}`, "rpm"),
        measure(`${engine}.r`, `magneto.right.${engine}`, "rpm"),
        measure(`${engine}.l`, `magneto.left.${engine}`, "rpm"),
      ]),
    },
    aircraft: { ...LIST_INPUT.aircraft, ownItems: [] },
  });
  const take = (itemId: string, key: string, value: number, unit: "rpm" | "US qt") =>
    event("reading.taken", { itemId, key, value, unit });
  const { judgements } = judgePreflight(
    twin,
    foldPreflight(streamId, [
      started(),
      take("left.oil", "oil.level.left", 7, "US qt"),
      take("right.oil", "oil.level.right", 5, "US qt"),
      take("left.base", "magneto.base.left", 1700, "rpm"),
      take("left.r", "magneto.right.left", 1600, "rpm"),
      take("left.l", "magneto.left.left", 1590, "rpm"),
      take("right.base", "magneto.base.right", 1700, "rpm"),
      take("right.r", "magneto.right.right", 1700, "rpm"),
    ]),
  );
  expect(Object.fromEntries(judgements.map((j) => [j.id, j.grade]))).toMatchObject({
    "oil.level.left": "within limits",
    "oil.level.right": "stop",
    "magneto.right.left": "within limits",
    "magneto.left.left": "within limits",
    "magneto.right.right": "stop",
  });
  expect(judgements.find((j) => j.id === "magneto.right.right")).toMatchObject({
    subject: "Magneto, right, right engine",
    itemIds: expect.arrayContaining(["right.base", "right.r"]),
  });
});
