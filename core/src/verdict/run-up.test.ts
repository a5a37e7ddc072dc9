import { type ComposedList, composeList } from "../checklist/list/compose-list";
import type { PreflightEvent } from "../checklist/stream/events";
import { foldIncrementally, foldPreflight } from "../checklist/stream/fold-preflight";
import type { FluidMemory } from "../memory/fluid-memory";
import { READING } from "../readings/reading-keys";
import type { RunUpReading } from "../run-up/index";
import type { PastRunUp } from "../run-up/record/baseline";
import { instrumentMemory, type MemoryReading, pastRunUps } from "../run-up/record/run-up-memory";
import type { RunUpRead } from "../run-up/record/run-up-read";
import { tracedReadings } from "../run-up-entry/index";
import { event, item, LIST_INPUT, source, started, streamId, type } from "../testing/small-aircraft";
import { judgePreflight } from "./judge-preflight";

const measure = (id: string, key: string, unit: "rpm" | "°" | "ft/min" | "ft" | "°C" | "V" = "rpm") =>
  item(id, "run", { kind: "measure", reading: { key, unit, decimals: 0 } });
const list: ComposedList = composeList({
  ...LIST_INPUT,
  conditions: ["instrument"],
  type: {
    ...type,
    stations: [...type.stations, { id: "run", name: "Run-up", phase: "run-up" }],
    items: [
      ...type.items,
      measure("base", READING.magnetoBase),
      measure("right", READING.magnetoRight),
      measure("left", READING.magnetoLeft),
      measure("compass", READING.compass, "°"),
      measure("heading", READING.heading, "°"),
      measure("climb", READING.climb, "ft/min"),
      measure("receiver", READING.receiverOne, "°"),
      measure("alt", READING.altimeter, "ft"),
      measure("oil-t", "oil.temperature", "°C"),
      measure("volts", "volts.charging", "V"),
      item("both", "run", { traced: "both" }),
      item("end", "run", { traced: "end" }),
      item("heat", "run", { traced: "heat" }),
    ],
    magnetos: { maxDropRpm: 125, maxDifferenceRpm: 50, resolutionRpm: 10, tachometerMaxRpm: 3500, source },
  },
  airfield: { format: "cravix.airfield/1", id: "f", name: "f", elevationFt: 23, runways: [] },
  rules: { format: "cravix.rule-set/1", id: "r", name: "r", reserves: [], altimeter: { feet: 75, source } },
});
const read = (itemId: string, key: string, value: number, unit = "rpm") =>
  event("reading.taken", { itemId, key, value, unit } as never);
const rpm = (base: number, right: number, left: number) => [
  read("base", READING.magnetoBase, base),
  read("right", READING.magnetoRight, right),
  read("left", READING.magnetoLeft, left),
];
const judged = (events: PreflightEvent[], memory?: Partial<FluidMemory>) =>
  judgePreflight(
    memory ? { ...list, memory: { faults: [], ...memory } } : list,
    foldPreflight(streamId, [started(), ...events]),
  ).judgements;
const past = (drops: number[]): PastRunUp[] =>
  drops.map((leftDrop, i) => ({ at: `2026-03-${10 + i}`, baseRpm: 1800, rightDrop: 60, leftDrop }));

const TRACED: RunUpRead & { itemId: string } = {
  itemId: "base",
  from: "monitor",
  densityAltitudeFt: 800,
  found: {
    fault: "fouled plug",
    name: "fouled plug, cylinder 3, left magneto",
    grade: "ask",
    probability: 0.83,
    sentence: "On left, exhaust 3 fell.",
    action: "Clear it.",
  },
  notes: [],
  rpm: [[0, 1800]],
  steps: [],
};

describe("a run-up in the verdict", () => {
  test("is assessed twice: against the limit and against this engine's own baseline", () => {
    const made = judged(rpm(1800, 1740, 1690), { runUps: past([60, 62, 58, 61, 66, 74, 85, 98]) });
    const of = (id: string) => made.find((j) => j.id === id);
    expect(of("magneto.left")?.grade).toBe("within limits");
    expect(of("baseline.leftDrop")).toMatchObject({ grade: "watch", itemIds: ["left"] });
    expect(of("baseline.leftDrop")?.sentence).toContain("increasing over the last 5 run-ups");
    expect(of("baseline.rightDrop")?.grade).toBe("within limits");
  });

  test("has no baseline without earlier run-ups", () => {
    expect(judged(rpm(1800, 1740, 1690)).some((j) => j.id.startsWith("baseline."))).toBe(false);
  });

  test("keeps the words of its time; the last trace counts", () => {
    const first = judged([event("run-up.read", TRACED)]).find((j) => j.id === "engine.fouled plug");
    expect(first).toMatchObject({
      grade: "ask",
      subject: "Fouled plug, cylinder 3, left magneto",
      itemIds: ["base"],
    });
    expect(first?.sentence).toBe("Likely, 8 of 10 (83 %). On left, exhaust 3 fell.");
    const { found: _gone, ...clean } = TRACED;
    expect(
      judged([event("run-up.read", TRACED), event("run-up.read", clean)]).some((j) =>
        j.id.startsWith("engine."),
      ),
    ).toBe(false);
  });

  test("keeps its density altitude as a reading, folded incrementally or from the start", () => {
    const events = [started(), ...rpm(1800, 1740, 1720), event("run-up.read", TRACED)];
    const state = foldPreflight(streamId, events);
    expect(state.readings[READING.densityAltitude]).toMatchObject({ value: 800, unit: "ft" });
    const before = foldIncrementally(undefined, streamId, events.slice(0, 4));
    expect(foldIncrementally(before, streamId, events).state).toEqual(state);
    expect(Object.keys(before.state.runUps)).toEqual([]);
  });
});

describe("instruments in the verdict", () => {
  test("heading by the compass card, zero of the climb indicator, drift of the altimeter", () => {
    const withCard = { ...list, facts: { "compass card": "0:0, 60:-3, 180:0" } };
    const events = [
      started(),
      read("compass", READING.compass, 60, "°"),
      read("heading", READING.heading, 63, "°"),
      read("climb", READING.climb, 60, "ft/min"),
    ];
    const made = judgePreflight(withCard, foldPreflight(streamId, events)).judgements;
    expect(made.find((j) => j.id === "heading")).toMatchObject({
      grade: "within limits",
      itemIds: ["compass", "heading"],
    });
    expect(made.find((j) => j.id === "climb")?.sentence).toContain("60 up at rest");
    const bad = { ...list, facts: { "compass card": "north" } };
    expect(
      judgePreflight(bad, foldPreflight(streamId, events)).judgements.find((j) => j.id === "heading")?.grade,
    ).toBe("unjudged");
    const altimeter = Array.from({ length: 8 }, (_, i) => ({
      at: `2026-0${1 + Math.floor(i / 2)}-1${i}T00:00:00.000Z`,
      errorFt: i * 6,
    }));
    expect(
      judged([read("alt", READING.altimeter, 73, "ft")], { altimeter }).find(
        (j) => j.id === "altimeter.drift",
      )?.grade,
    ).toBe("watch");
  });

  test("receivers are due on an instrument flight after thirty days, and belong to the day, not to a discrepancy", () => {
    const checks = { [READING.receiverOne]: "2026-03-01T00:00:00.000Z" };
    expect(
      judged([read("climb", READING.climb, 0, "ft/min")], { checks }).find((j) => j.id === "receivers.age")
        ?.grade,
    ).toBe("ask");
    expect(
      judged([read("receiver", READING.receiverOne, 2, "°")], { checks }).some(
        (j) => j.id === "receivers.age",
      ),
    ).toBe(false);
  });
});

describe("what is remembered of earlier preflights", () => {
  const rows: MemoryReading[] = [
    { preflightId: "a", key: READING.magnetoBase, value: 1800, at: "2026-01-01" },
    { preflightId: "a", key: READING.magnetoRight, value: 1740, at: "2026-01-01" },
    { preflightId: "a", key: READING.densityAltitude, value: 900, at: "2026-01-01" },
    { preflightId: "b", key: `${READING.magnetoBase}.left`, value: 1700, at: "2026-01-02" },
    { preflightId: "b", key: `${READING.magnetoLeft}.left`, value: 1650, at: "2026-01-02" },
    { preflightId: "c", key: READING.altimeter, value: 40, at: "2026-01-03" },
    { preflightId: "c", key: READING.receiverOne, value: 2, at: "2026-01-03" },
  ];

  test("is a run-up for each engine and preflight that had one", () => {
    expect(pastRunUps(rows, undefined)).toEqual([
      { at: "2026-01-01", baseRpm: 1800, rightDrop: 60, densityAltitudeFt: 900 },
    ]);
    expect(pastRunUps(rows, ["left", "right"])).toEqual([
      { at: "2026-01-02", engine: "left", baseRpm: 1700, leftDrop: 50 },
    ]);
  });

  test("and the instruments' own", () => {
    expect(instrumentMemory(rows, 23)).toEqual({
      altimeter: [{ at: "2026-01-03", errorFt: 17 }],
      checks: { [READING.receiverOne]: "2026-01-03" },
    });
    expect(instrumentMemory(rows, undefined).altimeter).toEqual([]);
  });
});

describe("items answered by a trace", () => {
  const side = (name: "right" | "left", drop: number) => ({
    side: name,
    from: 0,
    to: 7,
    base: 1800,
    level: 1800 - drop,
    drop,
    seen: true,
    held: 7,
    back: 1799,
    dropSigma: 3,
    roughness: 1,
    feel: "smooth" as const,
    egtChange: {},
    egtBeside: {},
    egtBefore: {},
    egtSigma: {},
  });
  const reading: RunUpReading = {
    prompted: true,
    interval: 0.1,
    problems: [],
    steps: [{ step: "ground", at: 30, until: 40, seen: true, settle: 1 }],
    tries: [],
    notes: [],
    right: side("right", 60),
    left: { ...side("left", 72), base: 1797 },
    oilTemperature: { value: 158, from: 0, to: 9 },
    volts: { value: 28.14, from: 0, to: 9 },
    egt: { base: {}, idle: {}, ground: {}, scatter: {} },
  };

  test("have their numbers in their own units and decimals, both drops from one base", () => {
    const { readings, answered } = tracedReadings(list.items, reading);
    const values = Object.fromEntries(readings.map(({ item: i, value }) => [i.id, value]));
    expect(values).toEqual({ base: 1800, right: 1740, left: 1728, "oil-t": 70, volts: 28 });
    expect(answered.map((i) => i.id)).toEqual(["both", "end"]);
  });

  test("an uncertain side answers nothing, and a side that did not return leaves the item open", () => {
    const doubtful = { ...reading, left: { ...side("left", 72), doubt: "Too short to settle." } };
    expect(tracedReadings(list.items, doubtful).readings.map(({ item: i }) => i.id)).not.toContain("left");
    const lost = { ...reading, notes: [{ kind: "not back to both" as const, sentence: "" }] };
    expect(tracedReadings(list.items, lost).answered).toEqual([]);
  });
});
