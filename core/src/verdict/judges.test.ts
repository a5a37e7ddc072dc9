import fc from "fast-check";
import type { Item } from "../aircraft/aircraft-type";
import { type ComposedList, composeList } from "../checklist/list/compose-list";
import type { EventData, PreflightEvent } from "../checklist/stream/events";
import { foldPreflight } from "../checklist/stream/fold-preflight";
import { READING_KINDS, readingDefinition, readingKey } from "../readings/reading-keys";
import type { RunUpSource } from "../run-up/record/run-up-read";
import { event, item, LIST_INPUT, source, started, streamId, type } from "../testing/small-aircraft";
import { convert, isConvertible, UNITS, type Unit } from "../units/convert";
import { JUDGES, judgePreflight } from "./judge-preflight";
import { toLog } from "./to-log";
import { computeVerdict } from "./verdict";

const measure = (key: string, unit: Unit, more: Partial<Item> = {}) =>
  item(`m.${key}`, "engine", {
    kind: "measure",
    miss: "stop",
    reading: { key, unit, decimals: 1 },
    ...more,
  });
const read = (key: string, value: number, unit: Unit, more: object = {}) =>
  event("reading.taken", { itemId: `m.${key}`, key, value, unit, ...more });
const MAGNETOS = { maxDropRpm: 125, maxDifferenceRpm: 50, resolutionRpm: 10, tachometerMaxRpm: 3000, source };
const withItems = (...items: Item[]): ComposedList =>
  composeList({ ...LIST_INPUT, type: { ...type, magnetos: MAGNETOS, items: [...type.items, ...items] } });
const fold = (...events: PreflightEvent[]) => foldPreflight(streamId, [started(), ...events]);

/** Judgements but those for want of an input. */
const known = (...of: Parameters<typeof judgePreflight>) =>
  judgePreflight(...of).judgements.filter(({ cause }) => !cause?.startsWith("unknown."));

const RUN_UP = ["magneto.base", "magneto.right", "magneto.left"] as const;
const engineList = withItems(...RUN_UP.map((key) => measure(key, "rpm")));
const runUp = (right: number, left: number, more: object = {}) => [
  read("magneto.base", 1800, "rpm", more),
  read("magneto.right", right, "rpm", more),
  read("magneto.left", left, "rpm", more),
];

describe("a reading carries its unit to the judge", () => {
  const limited = READING_KINDS.flatMap((kind) => {
    const { unit, of } = readingDefinition(kind);
    return unit ? [{ key: readingKey(kind, of === "tank" ? "main" : undefined), unit }] : [];
  });

  test("the same quantity is assessed alike in any unit", () => {
    const cases = limited.flatMap(({ key, unit }) =>
      UNITS.filter((other) => isConvertible(other, unit)).map((other) => ({ key, unit, other })),
    );
    expect(cases.length).toBeGreaterThan(60);
    fc.assert(
      fc.property(
        fc.constantFrom(...cases),
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        ({ key, unit, other }, part) => {
          // A limit in the middle of the possible range: on the same side in any unit.
          const range = { min: 0.4, max: 0.6 };
          const scale = unit === "hPa" ? 240 : unit === "°" ? 360 : unit === "V" ? 30 : 20;
          const offset = unit === "hPa" ? 850 : 0;
          const value = offset + part * scale;
          const list = withItems(
            measure(key, unit, {
              limit: { min: offset + range.min * scale, max: offset + range.max * scale, unit, source },
            }),
          );
          const graded = (amount: number, read: Unit) =>
            judgePreflight(
              list,
              fold(event("reading.taken", { itemId: `m.${key}`, key, value: amount, unit: read })),
            ).judgements.find((j) => j.id === key && j.limit)?.grade;
          if (Math.abs(part - 0.4) < 1e-6 || Math.abs(part - 0.6) < 1e-6) return;
          expect(graded(convert(value, unit, other), other)).toBe(graded(value, unit));
        },
      ),
      { numRuns: 300 },
    );
  });

  test("in a unit of another quantity it is not used, with the reason", () => {
    for (const { key, unit } of limited) {
      const other = UNITS.find((one) => !isConvertible(one, unit)) as Unit;
      const judgements = known(withItems(measure(key, unit)), fold(read(key, 1, other)));
      expect(judgements.length).toBeGreaterThan(0);
      for (const judgement of judgements)
        expect(judgement).toMatchObject({
          grade: "unjudged",
          sentence: expect.stringContaining("is needed"),
        });
    }
  });

  test("a file that asks for oil in litres is still assessed in quarts", () => {
    // 5.2 L are 5.49 US qt (NIST SP 811): below the minimum of 6.
    const list = composeList({
      ...LIST_INPUT,
      type: { ...type, items: [measure("oil.level", "L")] },
    });
    const state = fold(read("oil.level", 5.2, "L"));
    const { oil } = judgePreflight(list, state);
    expect(known(list, state)).toEqual([expect.objectContaining({ id: "oil.level", grade: "stop" })]);
    expect(oil?.engine?.levelQt).toBeCloseTo(5.2 / 0.946352946, 6);
  });
});

describe("judges", () => {
  test("give the same result in any order", () => {
    const list = withItems(
      ...RUN_UP.map((key) => measure(key, "rpm")),
      measure("wind.from", "°"),
      measure("altimeter", "ft"),
    );
    const state = fold(...runUp(1600, 1795), read("wind.from", 250, "°"), read("altimeter", 900, "ft"));
    const once = judgePreflight(list, state);
    fc.assert(
      fc.property(fc.shuffledSubarray([...JUDGES], { minLength: JUDGES.length }), (shuffled) => {
        expect(judgePreflight(list, state, shuffled)).toEqual(once);
      }),
    );
  });

  test("that wait for each other are a programming error", () => {
    const wait = (id: string, needs: string[]) => ({
      id,
      subject: id,
      topic: "engine" as const,
      needs,
      judge: () => [],
    });
    expect(() => judgePreflight(engineList, fold(), [wait("a", ["b"]), wait("b", ["a"])])).toThrow(
      "wait for each other",
    );
  });

  test("all say whether their finding belongs to the day or to the aircraft", () => {
    const { judgements } = judgePreflight(engineList, fold(...runUp(1600, 1795)));
    expect(judgements.length).toBeGreaterThan(2);
    for (const judgement of judgements) expect(["day", "aircraft"]).toContain(judgement.scope);
  });
});

describe("one fault is one discrepancy", () => {
  const found = (from: RunUpSource, more: object = {}): PreflightEvent =>
    event("run-up.read", {
      itemId: "m.magneto.base",
      from,
      found: {
        fault: "fouled-plug",
        name: "fouled plug, cylinder 3, right",
        grade: "ask",
        probability: 0.93,
        sentence: "Exhaust  3 fell.",
        side: "right",
        cylinder: 3,
        ...more,
      },
      notes: [],
      rpm: [],
      steps: [],
    });
  const logged = (list: ComposedList, ...events: PreflightEvent[]) => {
    const state = fold(...events);
    return toLog(list, state, computeVerdict(list, state).reasons);
  };

  test("a fouled plug: plug, drop and difference are one, explained by the trace and graded by the worst", () => {
    const events = [found("monitor"), ...runUp(1620, 1730)];
    const { reasons } = computeVerdict(engineList, fold(...events));
    const plug = reasons.filter((r) => r.cause === "magneto.right");
    expect(plug).toEqual([
      expect.objectContaining({ grade: "stop", text: expect.stringContaining("Fouled plug, cylinder 3") }),
    ]);
    expect(plug[0]?.evidence?.map((j) => j.id).sort()).toEqual(["magneto.difference", "magneto.right"]);
    const entries = logged(engineList, ...events);
    expect(entries).toHaveLength(1);
    const { text } = entries[0]?.data as EventData["discrepancy.opened"];
    for (const words of ["Very likely, 19 of 20 (93 %)", "180 rpm drop", "110 rpm between the sides"])
      expect(text).toContain(words);
  });

  test("both sides over the limit are two, not four", () => {
    expect(logged(engineList, ...runUp(1600, 1660)).map(({ data }) => "cause" in data && data.cause)).toEqual(
      ["magneto.right", "magneto.left"],
    );
  });

  test("logged during the preflight it is not logged again; already known it is measured again", () => {
    const up = event("discrepancy.opened", {
      discrepancyId: "d1",
      registration: "QX-TST",
      stationId: "engine",
      text: "No magneto drop, right",
      grade: "stop",
      cause: "magneto.right",
    });
    expect(logged(engineList, ...runUp(1800, 1730), up)).toEqual([]);
    const next = composeList({
      ...LIST_INPUT,
      type: {
        ...type,
        magnetos: MAGNETOS,
        items: [...type.items, ...RUN_UP.map((key) => measure(key, "rpm"))],
      },
      openDiscrepancies: [
        {
          id: "d1",
          stationId: "engine",
          text: "Right side drops too much",
          grade: "ask",
          openedAt: "2026-04-30T10:00:00.000Z",
          openedBy: "Inês",
          cause: "magneto.right",
        },
      ],
    });
    expect(logged(next, ...runUp(1640, 1730))).toEqual([
      {
        type: "discrepancy.observed",
        data: { discrepancyId: "d1", itemId: "known:d1", state: "same", measure: "160 rpm" },
      },
    ]);
    // Different causes are different discrepancies; only the cause distinguishes them.
    expect(logged(next, ...runUp(1730, 1640)).map((one) => one.type)).toEqual(["discrepancy.opened"]);
  });

  test("wrong fuel at five drains and on the receipt is one, and stays if the flight is cancelled; drained water does not", () => {
    const drains = [1, 2, 3].map((n) => item(`drain.${n}`, "engine", { kind: "sample" }));
    const list = composeList({
      ...LIST_INPUT,
      type: { ...type, items: [...type.items, ...drains], fuel: { tanks: [], taxiL: 4, grades: ["100LL"] } },
    });
    const cup = (n: number, look: EventData["sample.taken"]["look"]) =>
      event("sample.taken", { itemId: `drain.${n}`, look });
    const wrong = event("fuel.uplifted", {
      registration: "QX-TST",
      amount: 40,
      unit: "L",
      grade: "Jet A-1",
      from: "typed",
    });
    const smells = [wrong, ...[1, 2, 3].map((n) => cup(n, "kerosene smell"))];
    expect(logged(list, ...smells).map(({ data }) => "cause" in data && data.cause)).toEqual([
      "fuel.wrong-kind",
    ]);
    const clean = event("sample.taken", { itemId: "drain.1", look: "clean", colour: "blue" });
    expect(logged(list, cup(1, "water"), clean)).toEqual([]);
  });

  test("wrong fuel added outside a preflight is reported at the next one", () => {
    const uplift = {
      at: "2026-04-30T10:00:00.000Z",
      entry: "uplift",
      litres: 40,
      amount: 40,
      unit: "L",
    } as const;
    const list = composeList({
      ...LIST_INPUT,
      type: { ...type, fuel: { tanks: [], taxiL: 4, grades: ["100LL"] } },
      memory: {
        faults: [],
        fuel: {
          tanks: {},
          uplifts: [
            { ...uplift, grade: "Jet A-1" },
            { ...uplift, grade: "100LL" },
          ],
        } as never,
      },
    });
    const { reasons, verdict } = computeVerdict(list, fold());
    expect(verdict).toBe("stop");
    expect(reasons.filter((r) => r.cause === "fuel.wrong-kind")).toHaveLength(1);
    // It belongs to no item and is logged all the same.
    expect(logged(list)).toEqual([expect.objectContaining({ type: "discrepancy.opened" })]);
  });

  test("a file without prompts alone is no stop, and asks for the numbers; entered by hand they count", () => {
    const seen = [found("file", { grade: "stop" }), ...runUp(1600, 1730, { from: "file" })];
    const first = computeVerdict(engineList, fold(...seen));
    expect(first.reasons.map((r) => r.grade)).not.toContain("stop");
    const about = first.reasons.find((r) => r.cause === "magneto.right");
    expect(about).toMatchObject({ grade: "ask" });
    expect(about?.judgement?.action).toContain("Enter the numbers");
    const typed = computeVerdict(engineList, fold(...seen, ...runUp(1600, 1730)));
    expect(typed.reasons.find((r) => r.cause === "magneto.right")).toMatchObject({ grade: "stop" });
    // A coached run-up still means stop.
    const live = computeVerdict(
      engineList,
      fold(found("monitor"), ...runUp(1600, 1730, { from: "monitor" })),
    );
    expect(live.reasons.find((r) => r.cause === "magneto.right")).toMatchObject({ grade: "stop" });
  });
});
