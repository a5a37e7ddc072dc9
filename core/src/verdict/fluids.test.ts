import type { AircraftType } from "../aircraft/aircraft-type";
import { composeList } from "../checklist/list/compose-list";
import { currentItem } from "../checklist/next-item";
import type { PreflightEvent } from "../checklist/stream/events";
import { foldIncrementally, foldPreflight } from "../checklist/stream/fold-preflight";
import { judgeHourMeter } from "../engine/judge-hour-meter";
import { fluidLogOf, fluidRowsOf } from "../logs/fluid-rows";
import { type FluidLog, fluidMemory } from "../memory/fluid-memory";
import type { RuleSet } from "../rules/rule-set";
import {
  answered,
  event,
  item,
  LIST_INPUT,
  source,
  started,
  streamId,
  type,
  undo,
} from "../testing/small-aircraft";
import { judgePreflight } from "./judge-preflight";
import { checkUplifts } from "./judges/judge-uplifts";
import { toLog } from "./to-log";
import { computeVerdict } from "./verdict";

const measure = (id: string, key: string, unit: "cm" | "L" | "h" | "US qt" | "%") =>
  item(id, "engine", { kind: "measure", reading: { key, unit, decimals: 1 } });
const tank = (id: "left" | "right") => ({
  id,
  name: `${id} tank`,
  side: id,
  capacityL: 100,
  unusableL: 4,
  calibration: {
    source,
    points: [
      { dipCm: 0, litres: 0 },
      { dipCm: 10, litres: 50 },
      { dipCm: 20, litres: 100 },
    ],
  },
  gauge: {
    unit: "L" as const,
    points: [
      { at: 0, litres: 0 },
      { at: 100, litres: 100 },
    ],
    source,
  },
});
const flying: AircraftType = {
  ...type,
  fuel: {
    tanks: [tank("left"), tank("right")],
    taxiL: 4,
    climbL: 3,
    burnLPerH: { value: 30, source },
    settings: [
      { name: "65 %", lPerH: 30, source },
      { name: "75 %", lPerH: 36, source },
    ],
    imbalanceL: { value: 30, source },
    grades: ["100LL"],
  },
  oil: { minimumQt: 6, maximumQt: 8, containerQt: 1, source },
  items: [
    item("docs", "papers"),
    measure("hours", "hours", "h"),
    item("drain.1", "engine", { kind: "sample", miss: "stop" }),
    item("drain.2", "engine", { kind: "sample", miss: "stop" }),
    measure("dip.left", "fuel.dip.left", "cm"),
    measure("dip.right", "fuel.dip.right", "cm"),
    measure("gauge.left", "fuel.gauge.left", "L"),
    measure("gauge.right", "fuel.gauge.right", "L"),
    measure("oil", "oil.level", "US qt"),
    item("pull", "engine", { kind: "pull", expected: 6 }),
  ],
};
const rules: RuleSet = {
  format: "cravix.rule-set/1",
  id: "r",
  name: "r",
  reserves: [{ when: "day", minutes: 30, source }],
};
const at = (day: number) => `2026-04-${String(day).padStart(2, "0")}T09:00:00.000Z`;
const LOG: FluidLog = {
  hours: { value: 100, at: at(20), wasAfter: false },
  fuel: ["left", "right"].map((tankId) => ({
    at: at(20),
    entry: "measured",
    tankId,
    litres: 70,
    amount: 70,
    unit: "L",
    hours: 100,
  })),
  oil: Array.from({ length: 8 }, (_, i) => ({
    at: at(10 + i),
    entry: "level" as const,
    qt: 7.8 - i * 0.1,
    hours: 90 + i,
  })),
};
const list = composeList({ ...LIST_INPUT, type: flying, rules, memory: fluidMemory(flying, LOG) });
const read = (itemId: string, key: string, value: number, unit: "cm" | "L" | "h" | "US qt" = "cm") =>
  event("reading.taken", { itemId, key, value, unit });
const dips = (left: number, right: number) => [
  read("dip.left", "fuel.dip.left", left),
  read("dip.right", "fuel.dip.right", right),
];
const gauges = (left: number, right: number) => [
  read("gauge.left", "fuel.gauge.left", left, "L"),
  read("gauge.right", "fuel.gauge.right", right, "L"),
];
const hours = (value: number) => read("hours", "hours", value, "h");
const fold = (...events: PreflightEvent[]) => foldPreflight(streamId, [started(), ...events]);
const judged = (...events: PreflightEvent[]) => judgePreflight(list, fold(...events));
const find = (id: string, ...events: PreflightEvent[]) =>
  judged(...events).judgements.find((j) => j.id.startsWith(id));
const uplift = (amount: number, unit: "L" | "US gal" = "L", more: object = {}) =>
  event("fuel.uplifted", {
    registration: "QX-TST",
    tankId: "left",
    amount,
    unit,
    from: "pump",
    receipt: "0042",
    ...more,
  });

describe("the three sources of a preflight", () => {
  // By the log: 140 L, less one hour at 30 L/h and 4 L for taxi: 106 L.
  test("agree, and give the quantity", () => {
    const result = find("fuel.sources", hours(101), ...gauges(55, 50), ...dips(10.8, 10.4));
    expect(result).toMatchObject({ grade: "within limits" });
    expect(result?.sentence).toMatch(/dipstick 106 L, gauge 105 L, log 106 L: they agree/);
  });

  test("the log differs from the others: a flight, a leak, a cap", () => {
    const result = find("fuel.sources", hours(101), ...gauges(25, 25), ...dips(5, 5));
    expect(result).toMatchObject({
      grade: "ask",
      action: expect.stringContaining("flight that was not logged"),
    });
    expect(result?.sentence).toContain("the log differs from the others");
  });

  test("the gauge differs from the others: fly by the dipstick and monitor", () => {
    expect(find("fuel.sources", hours(101), ...gauges(5, 4), ...dips(10.8, 10.4))).toMatchObject({
      grade: "watch",
      sentence: expect.stringContaining("the gauge differs from the others"),
    });
  });

  test("a gauge alone does not replace looking into the tank", () => {
    expect(judged(hours(101), ...gauges(55, 50)).fuel?.usableL).toBeUndefined();
  });

  test("an hour meter that went back, or ran on unlogged, is named", () => {
    expect(find("hours", hours(99.5))).toMatchObject({
      grade: "ask",
      sentence: expect.stringContaining("cannot go back"),
    });
    expect(judgeHourMeter(101, { value: 100, at: at(1), wasAfter: true })?.sentence).toContain(
      "1.0 h not logged",
    );
    expect(judgeHourMeter(100.1, { value: 100, at: at(1), wasAfter: true })).toBeUndefined();
    expect(judgeHourMeter(104, { value: 100, at: at(1) })).toBeUndefined();
  });

  test("another power setting burns another amount", () => {
    const told = event("fuel.told", { setting: "75 %" });
    const margin = (...more: PreflightEvent[]) =>
      judged(hours(101), ...dips(10, 10), ...more).fuel?.enduranceMin ?? 0;
    expect(margin() / margin(told)).toBeCloseTo(36 / 30, 6);
  });

  test("amounts are shown in the pilot's unit, and the assessment is the same", () => {
    const given = [hours(101), ...gauges(55, 50), ...dips(10.8, 10.4)];
    const grades = (...more: PreflightEvent[]) =>
      judged(...given, ...more).judgements.map((j) => [j.id.replace(/event-.*/, ""), j.grade]);
    for (const unit of ["US gal", "imp gal", "kg", "lb"] as const) {
      const told = event("fuel.told", { unit });
      expect(grades(told)).toEqual(grades());
      const said = judged(...given, told).judgements.filter((j) => j.id.startsWith("fuel."));
      for (const { sentence, action = "", limit = "", reading } of said) {
        expect(`${sentence} ${action} ${limit}`).not.toMatch(/\d L\b/);
        expect([undefined, unit, "min"]).toContain(reading?.unit);
      }
    }
    // 106 L are 28.0 US gal (NIST SP 811: 3.785411784 L each).
    expect(find("fuel.sources", ...given, event("fuel.told", { unit: "US gal" }))?.sentence).toContain(
      "dipstick 28.0 US gal",
    );
  });

  test("the worst case is shown even where the best estimate would be enough", () => {
    // 200 L by the log would disagree; by dipstick alone: 20 L in each: 32 usable − 7: 50 min less 30 reserve.
    const alone = composeList({ ...LIST_INPUT, type: flying, rules });
    const state = foldPreflight(streamId, [
      {
        ...started(),
        data: { registration: "QX-TST", listHash: "h", conditions: [], plannedFlightMin: 18 },
      } as PreflightEvent,
      ...dips(4, 4),
    ]);
    const { judgements } = judgePreflight(alone, state);
    expect(judgements.find((j) => j.id === "fuel.endurance")?.grade).toBe("within limits");
    expect(judgements.find((j) => j.id === "fuel.worst")).toMatchObject({
      grade: "watch",
      action: expect.stringContaining("Add at least"),
    });
  });
});

describe("an uplift in a preflight", () => {
  test("invalidates earlier dips and drains, and is checked against the dipstick", () => {
    const clean = event("sample.taken", { itemId: "drain.1", look: "clean" });
    const before = [answered("docs"), hours(101), clean, ...dips(8, 10)];
    const open = fold(...before, uplift(50));
    expect([open.answers["drain.1"], open.answers["dip.left"], open.readings["fuel.dip.left"]]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
    expect(open.answers["dip.right"]).toBeDefined();
    expect(currentItem(list, open)?.id).toBe("drain.1");
    expect(checkUplifts(list, open)[0]?.open).toContain("Dip the left tank now");
    expect(open.earlierSamples).toHaveLength(1);
    expect(find("fuel.uplift", ...before, uplift(50), read("dip.left", "fuel.dip.left", 18))).toMatchObject({
      grade: "within limits",
      sentence: expect.stringContaining("the left tank took 50 L: they agree"),
    });
  });

  test("in gallons that were litres is detected, with the correct value", () => {
    const result = find(
      "fuel.uplift",
      hours(101),
      ...dips(8, 10),
      uplift(50, "US gal"),
      read("dip.left", "fuel.dip.left", 18),
    );
    expect(result).toMatchObject({
      grade: "ask",
      action: expect.stringContaining("50 L would fit, not US gal"),
    });
  });

  test("of a grade that is not approved for this aircraft is a stop", () => {
    expect(find("fuel.uplift", uplift(50, "L", { grade: "kerosene" }))).toMatchObject({ grade: "stop" });
  });

  test("when undone, everything is as it was", () => {
    const before = [hours(101), ...dips(8, 10)];
    const slip = uplift(50);
    const { undoable: _u, lastAt: _l, cursor: _c, ...was } = fold(...before);
    const { undoable: _u2, lastAt: _l2, cursor: _c2, ...is } = fold(...before, slip, undo(slip));
    expect({ ...is, startedAt: "" }).toEqual({ ...was, startedAt: "" });
  });
});

describe("drains in a preflight", () => {
  const cup = (look: "clean" | "water" | "kerosene smell", itemId = "drain.1") =>
    event("sample.taken", { itemId, look });
  test("a sample that is not clean is no answer; the clean one after it is, and the finding stays on record", () => {
    expect(currentItem(list, fold(cup("water")))?.id).toBe("drain.1");
    expect(find("fuel.sample.drain.1", cup("water"))).toMatchObject({ grade: "ask" });
    const cleared = fold(cup("water"), cup("clean"));
    expect(cleared.answers["drain.1"]).toMatchObject({ outcome: "checked", value: "clean" });
    expect(find("fuel.sample.drain.1", cup("water"), cup("clean"))).toMatchObject({
      grade: "watch",
      sentence: "Water found, clean at sample 2.",
    });
    expect(find("fuel.sample", cup("clean"))).toBeUndefined();
  });

  test("rocking the wings opens every drain again; water that does not clear is a stop", () => {
    const rocked = [
      cup("clean", "drain.2"),
      cup("water"),
      cup("water"),
      cup("water"),
      event("wings.rocked", {}),
    ];
    const state = fold(...rocked);
    expect([state.answers["drain.1"], state.answers["drain.2"]]).toEqual([undefined, undefined]);
    expect(find("fuel.sample.drain.1", ...rocked, cup("water"), cup("water"), cup("water"))).toMatchObject({
      grade: "stop",
      action: expect.stringContaining("call maintenance"),
    });
    expect(find("fuel.sample.drain.1", cup("kerosene smell"))).toMatchObject({ grade: "stop" });
  });

  test("that do not clear are a stop, whatever else cannot be read", () => {
    const bad = [hours(12), ...dips(8, 10), uplift(50), read("dip.left", "fuel.dip.left", 18)];
    const judgements = judged(...bad, cup("kerosene smell")).judgements;
    expect(judgements.find((j) => j.id === "fuel.sample.drain.1")?.grade).toBe("stop");
    expect(judgements.find((j) => j.id === "hours")?.sentence).toContain("cannot go back");
    expect(checkUplifts(list, fold(...bad))[0]?.reconciled?.agrees).toBe(true);
  });

  test("taken right after refuelling, or after a humid night, must be repeated", () => {
    const refuelled = [uplift(50), read("dip.left", "fuel.dip.left", 18), ...dips(18, 10)];
    expect(find("fuel.settling", ...refuelled, cup("clean"))).toMatchObject({
      grade: "stop",
      action: expect.stringMatching(/^Sample these drains again in \d+ min\.$/),
    });
    // 18 cm are 0.59 ft: about 9 minutes, at 15 minutes per foot. A sample taken then makes good for the early one.
    const early = cup("clean");
    const later = { ...cup("clean"), at: new Date(Date.now() + 86_400_000).toISOString() };
    expect(find("fuel.settling", ...refuelled, early, later as PreflightEvent)).toBeUndefined();
    const night = event("fuel.told", { night: { lowC: 2, dewPointC: 14, nights: 2 } });
    expect(find("fuel.night", night, ...dips(4, 10))).toMatchObject({
      grade: "note",
      sentence: expect.stringContaining("in the left tank"),
    });
    expect(find("fuel.night", night, ...dips(4, 10), cup("water"))?.action).toContain("is not condensation");
  });
});

describe("oil in a preflight", () => {
  const level = (qt: number) => read("oil", "oil.level", qt, "US qt");
  const added = () => event("oil.added", { registration: "QX-TST", qt: 1, sealed: true });
  test("after an addition is read again, and counts in the consumption", () => {
    const state = fold(level(5.4), added());
    expect(state.answers.oil).toBeUndefined();
    expect(state.oilAdded[0]).toMatchObject({ qt: 1, before: { value: 5.4, unit: "US qt" } });
    expect(currentItem(list, state)?.id).toBe("oil");
    // Last time 7.1 at 97 h; a tenth per hour since: 0.4 used by 101 h, one quart added: 7.7.
    expect(find("oil.use", hours(101), added(), level(7.7))).toMatchObject({ grade: "within limits" });
  });
  test("of the wrong kind is recorded all the same, and asked about", () => {
    const opened = event("oil.added", { registration: "QX-TST", qt: 1, sealed: false });
    expect(find("oil.added", level(6.5), opened)).toMatchObject({
      grade: "ask",
      sentence: expect.stringContaining("unopened"),
    });
    expect(find("oil.added", level(7.5), added())).toMatchObject({
      sentence: expect.stringContaining("over the limit of 8.0"),
    });
    expect(find("oil.added", level(6.5), added())).toBeUndefined();
  });
  test("a sudden loss is asked about even at a good level, and logged for the mechanic; a misread meter is not", () => {
    expect(find("oil.use", hours(98), level(6.1))).toMatchObject({ grade: "ask" });
    const { reasons } = computeVerdict(list, fold(hours(98), level(6.1)));
    expect(reasons.map((r) => r.judgement?.id)).toEqual(expect.arrayContaining(["oil.use", "hours"]));
    const logged = toLog(list, fold(hours(98), level(6.1)), reasons);
    expect(logged.map(({ data }) => "cause" in data && data.cause)).toEqual(["oil.use"]);
  });
});

test("log entries of a preflight are its readings and additions, each with the hour meter, whatever the tank's name", () => {
  const state = fold(
    hours(101),
    read("dip.left", "fuel.dip.left", 8),
    read("dip.odd", "fuel.dip.wing.outer", 3),
    uplift(50),
    read("dip.left", "fuel.dip.left", 18),
    read("oil", "oil.level", 5.4, "US qt"),
    event("oil.added", { registration: "QX-TST", qt: 1, grade: "W100", sealed: true }),
  );
  expect(fluidRowsOf(state).map((r) => [r.fluid, r.entry, r.part, r.amount, r.unit, r.hours])).toEqual(
    expect.arrayContaining([
      ["fuel", "dip", "left", 8, "cm", 101],
      ["fuel", "dip", "wing.outer", 3, "cm", 101],
      ["fuel", "uplift", "left", 50, "L", 101],
      ["fuel", "dip", "left", 18, "cm", 101],
      ["oil", "level", undefined, 5.4, "US qt", 101],
      ["oil", "added", undefined, 1, "US qt", 101],
    ]),
  );
  // With this type's own calibration; the tank it does not have is named.
  const { fuel, oil, faults } = fluidLogOf(flying, fluidRowsOf(state));
  expect(fuel.map((e) => Math.round(e.litres)).sort((a, b) => a - b)).toEqual([40, 50, 90]);
  expect(oil).toHaveLength(2);
  expect(faults).toEqual([expect.stringContaining("no tank wing.outer")]);
});

test("blades are counted one by one, and none is lost with the browser", () => {
  const blades = [1, 2, 3].map((blade) => event("blade.pulled", { itemId: "pull", blade }));
  const state = fold(...blades);
  expect(state.blades.pull).toBe(3);
  expect(state.answers.pull).toBeUndefined();
  expect(currentItem(list, state)?.id).toBe("pull");
});

test("folding one more event equals folding all, for every kind of fluid event, and leaves the earlier state unchanged", () => {
  const events = [
    started(),
    hours(101),
    ...dips(8, 10),
    event("sample.taken", { itemId: "drain.1", look: "water" }),
    event("wings.rocked", {}),
    event("sample.taken", { itemId: "drain.1", look: "clean" }),
    uplift(50),
    read("oil", "oil.level", 5.4, "US qt"),
    event("oil.added", { registration: "QX-TST", qt: 1, sealed: true }),
    event("blade.pulled", { itemId: "pull", blade: 1 }),
    event("fuel.told", { payloadKg: 160 }),
  ];
  let folded: ReturnType<typeof foldIncrementally> | undefined;
  events.forEach((_, i) => {
    const before = folded && JSON.stringify(folded.state);
    const next = foldIncrementally(folded, streamId, events.slice(0, i + 1));
    expect(next.state).toEqual(foldPreflight(streamId, events.slice(0, i + 1)));
    if (folded) expect(JSON.stringify(folded.state)).toBe(before);
    folded = next;
  });
});
