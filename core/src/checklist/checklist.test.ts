import fc from "fast-check";
import {
  aircraft,
  answered,
  event,
  LIST_INPUT,
  postponed,
  started,
  streamId,
  type,
  undo,
} from "../testing/small-aircraft";
import { composeList } from "./list/compose-list";
import { itemsOf } from "./list/list-places";
import { runwayInUse } from "./list/runway-in-use";
import { currentItem, openItems, phaseProgress } from "./next-item";
import {
  EVENT_TYPES,
  type EventData,
  type EventType,
  mergeEvents,
  type PreflightEvent,
} from "./stream/events";
import { foldDiscrepancies } from "./stream/fold-discrepancies";
import { foldIncrementally, foldPreflight } from "./stream/fold-preflight";

const list = composeList(LIST_INPUT);
const fold = (...events: PreflightEvent[]) => foldPreflight(streamId, [started(), ...events]);
const currentAfter = (...events: PreflightEvent[]) => currentItem(list, fold(...events))?.id;

describe("today's checklist", () => {
  test("is in the order of the work: phase, station, item", () => {
    expect(list.items.map((i) => i.id)).toEqual([
      "docs",
      "lock",
      "left.skin",
      "left.hinges",
      "right.skin",
      "own.rail",
      "oil",
    ]);
    expect(list.stations.map((s) => s.id)).toEqual(["papers", "left", "right", "engine"]);
  });

  test("adds items for the conditions, with reasons", () => {
    const cold = composeList({ ...LIST_INPUT, conditions: ["frost"] });
    expect(itemsOf(cold, "lap").map((i) => i.id)).toContain("right.frost");
    expect(cold.differences).toContainEqual({ itemId: "right.frost", why: "frost" });
    expect(list.items.some((i) => i.id === "right.frost")).toBe(false);
  });

  test("has only what fits the model year", () => {
    const old = composeList({ ...LIST_INPUT, aircraft: { ...aircraft, year: 1980 } });
    expect(old.items.map((i) => i.id)).toContain("primer");
    expect(list.items.map((i) => i.id)).not.toContain("primer");
  });

  test("puts an open discrepancy first at its station, and keeps one whose station no longer exists", () => {
    const known = {
      id: "d1",
      stationId: "right",
      text: "Seep",
      grade: "watch" as const,
      openedAt: "2026-04-01T10:00:00.000Z",
      openedBy: "Maren",
      measure: "3 drops",
    };
    const today = composeList({
      ...LIST_INPUT,
      openDiscrepancies: [known, { ...known, id: "d2", stationId: "gone" }],
    });
    expect(itemsOf(today, "lap").filter((i) => i.station === "right")[0]).toMatchObject({
      id: "known:d1",
      kind: "observe",
      good: "Last time: 3 drops",
    });
    expect(today.items[0]?.id).toBe("known:d2");
  });

  test("uses the empty mass of the last weighing, not an older one of the aircraft's file", () => {
    const own = { ...aircraft, facts: { "empty.mass": "740", "prop.number": "77" } };
    const loading = { weighing: { emptyKg: 748.5 } } as NonNullable<
      Parameters<typeof composeList>[0]["loading"]
    >;
    expect(composeList({ ...LIST_INPUT, aircraft: own, loading }).facts).toEqual({
      "empty.mass": "748.5",
      "prop.number": "77",
    });
    expect(composeList({ ...LIST_INPUT, aircraft: own }).facts).toEqual(own.facts);
    expect(composeList({ ...LIST_INPUT, loading }).facts).toBeUndefined();
  });

  test("is rejected for a stub and for an aircraft of another type", () => {
    expect(() => composeList({ ...LIST_INPUT, type: { ...type, stub: "Not written yet." } })).toThrow(
      "Not written yet.",
    );
    expect(() => composeList({ ...LIST_INPUT, aircraft: { ...aircraft, typeId: "other" } })).toThrow(
      "is a other",
    );
  });
});

describe("the current item", () => {
  test("is the one after the last answer, and the first one at the start", () => {
    expect(currentAfter()).toBe("docs");
    expect(currentAfter(answered("docs"))).toBe("lock");
    expect(currentAfter(answered("docs"), answered("lock"))).toBe("left.skin");
  });

  test("postponed items return before the phase ends", () => {
    const events = [
      answered("docs"),
      answered("lock"),
      postponed("left.skin"),
      answered("left.hinges"),
      answered("right.skin"),
    ];
    expect(currentAfter(...events)).toBe("own.rail");
    expect(currentAfter(...events, answered("own.rail"))).toBe("left.skin");
  });

  test("an item opened on purpose is current, answered or not", () => {
    expect(currentAfter(answered("docs"), event("item.visited", { itemId: "docs" }))).toBe("docs");
    expect(currentAfter(event("item.visited", { itemId: "oil" }))).toBe("oil");
  });

  test("undo returns to the item", () => {
    const slip = answered("lock");
    expect(currentAfter(answered("docs"), slip, undo(slip))).toBe("lock");
  });

  test("nothing is open at the end", () => {
    const all = list.items.map((i) => answered(i.id));
    const state = fold(...all);
    expect(currentItem(list, state)).toBeUndefined();
    expect(openItems(list, state)).toEqual([]);
    expect(phaseProgress(list, state).every((p) => p.answered === p.total)).toBe(true);
  });
});

type Step = { kind: EventType; itemId: string; value: number; device: boolean };

/** Arbitrary events of a person on two devices: every kind, with frequent undos. */
const doings = fc.array(
  fc.record({
    kind: fc.constantFrom(...EVENT_TYPES, "item.undone" as const, "item.answered" as const),
    itemId: fc.constantFrom(...list.items.map((i) => i.id)),
    value: fc.integer({ min: 0, max: 9 }),
    device: fc.boolean(),
  }),
  { maxLength: 40 },
);

const LINE: EventData["flight.logged"] = {
  registration: "QX-TST",
  from: "here",
  to: "there",
  off: "2026-05-01T08:00:00.000Z",
  on: "2026-05-01T09:00:00.000Z",
  pilot: "ines",
  meters: {},
  counts: {},
};

/** Data for each event kind. A kind missing here does not compile. */
const SAYS: { [T in EventType]: (step: Step, before: readonly PreflightEvent[]) => EventData[T] } = {
  "preflight.started": () => ({ registration: "QX-TST", listHash: "h", conditions: ["frost"] }),
  "item.answered": ({ itemId, value }) => ({ itemId, outcome: value ? "checked" : "found" }),
  "item.postponed": ({ itemId }) => ({ itemId }),
  "item.visited": ({ itemId }) => ({ itemId }),
  "item.undone": ({ value }, before) => ({ eventId: before[value % before.length]?.id ?? "none" }),
  "reading.taken": ({ itemId, value }) => ({
    itemId,
    key: ["oil.level", "hours", "fuel.dip.main", "fuel.gauge.main", itemId][value % 5] as string,
    value,
    unit: "US qt",
  }),
  "sample.taken": ({ itemId, value }) => ({ itemId, look: value % 2 ? "clean" : "water" }),
  "wings.rocked": () => ({}),
  "assessment.waived": () => ({ subjects: ["wind"], why: "I have checked it myself." }),
  "load.told": ({ value }) => ({ stations: { front: 60 + value } }),
  "weather.told": ({ value }) => ({ ground: value % 2 ? "wet" : "dry" }),
  "briefing.given": ({ value }) => ({
    to: value % 2 ? "crew" : "passengers",
    steps: [{ title: "t", words: "w" }],
  }),
  "fuel.uplifted": ({ value }) => ({
    registration: "QX-TST",
    ...(value % 2 && { tankId: "main" }),
    amount: 10,
    unit: "L",
    from: "typed",
  }),
  "fuel.told": ({ value }) => ({ payloadKg: value }),
  "oil.added": () => ({ registration: "QX-TST", qt: 1, sealed: true }),
  "blade.pulled": ({ itemId, value }) => ({ itemId, blade: value + 1 }),
  "run-up.read": ({ itemId, value }) => ({
    itemId,
    from: "typed",
    densityAltitudeFt: value * 100,
    notes: [],
    rpm: [],
    steps: [],
  }),
  "station.flowed": ({ value }) => ({ stationId: value % 2 ? "left" : "right" }),
  "crew.joined": ({ value }) => ({ crewId: `crew-${value % 2}` }),
  "crew.left": ({ value }) => ({ crewId: `crew-${value % 2}` }),
  "discrepancy.opened": ({ itemId, value }, before) => ({
    discrepancyId: `d-${before.length}`,
    registration: "QX-TST",
    stationId: "left",
    ...(value % 3 && { itemId }),
    text: "dent",
    grade: "note",
  }),
  "discrepancy.observed": ({ itemId, value }, before) => ({
    discrepancyId: openedIn(before, value),
    itemId,
    state: "grown",
    measure: `${value} mm`,
  }),
  "discrepancy.withdrawn": ({ value }, before) => ({ discrepancyId: openedIn(before, value) }),
  "discrepancy.closed": ({ value }, before) => ({ discrepancyId: openedIn(before, value), how: "mended" }),
  "discrepancy.deferred": ({ value }, before) => ({
    discrepancyId: openedIn(before, value),
    basis: "b",
    rules: "r",
    for: ["day"],
  }),
  "discrepancy.regraded": ({ value }, before) => ({
    discrepancyId: openedIn(before, value),
    grade: value % 2 ? "ask" : "note",
    why: "w",
  }),
  "discrepancy.asked": ({ value }, before) => ({
    discrepancyId: openedIn(before, value),
    whom: "the mechanic",
    by: "telephone",
    said: "fly and watch",
  }),
  "discrepancy.merged": ({ value }, before) => ({
    discrepancyId: openedIn(before, value),
    into: openedIn(before, value + 1),
  }),
  "discrepancy.limited": ({ value }, before) => ({
    discrepancyId: openedIn(before, value),
    most: value,
    unit: "mm",
    source: "the manual",
  }),
  "discrepancy.photographed": ({ value }, before) => ({
    discrepancyId: openedIn(before, value),
    photograph: `sha256:${value}`,
    width: 4,
    height: 3,
  }),
  "component.removed": () => ({ registration: "QX-TST", component: "mag", totals: { hours: 100 } }),
  "component.fitted": () => ({
    registration: "QX-TST",
    component: { id: "mag", name: "Magneto", kind: "magneto", sinceNew: { hours: 10 } },
    items: [],
    works: [],
    totals: { hours: 100 },
  }),
  "workshop.planned": () => ({ closed: [], visits: [] }),
  "person.due-set": () => ({
    personId: "ines",
    item: {
      id: "medical",
      name: "Medical",
      kind: "medical",
      limits: [{ by: "date", date: "2027-01-01" }],
      miss: "stop",
      source: { kind: "rule", text: "printed", example: true },
    },
  }),
  "person.due-dropped": () => ({ personId: "ines", item: "medical" }),
  "person.done": () => ({ personId: "ines", work: { item: "medical", date: "2026-01-01" } }),
  "flight.logged": () => LINE,
  "flight.corrected": () => ({ registration: "QX-TST", of: "none", line: LINE, why: "a slip" }),
  "work.released": () => ({
    registration: "QX-TST",
    date: "2026-05-01",
    done: "oil",
    readings: {},
    works: [],
    closes: [],
    leaves: [],
    certificate: { kind: "k", number: "n" },
  }),
  "release.withdrawn": ({ itemId }) => ({ registration: "QX-TST", of: itemId, why: "w" }),
  "meter.replaced": () => ({ registration: "QX-TST", meter: "hours", oldReading: 10, newReading: 0 }),
  "daily.signed": () => ({ registration: "QX-TST", date: "2026-05-01" }),
  "document.renewed": () => ({
    registration: "QX-TST",
    item: "insurance",
    date: "2026-05-01",
    until: "2027-05-01",
  }),
  interrupted: ({ itemId }) => ({ itemId, cause: "spoken to" }),
  resumed: () => ({ way: "where I was" }),
  "verdict.signed": ({ value }) => ({
    verdict: "go",
    decision: value % 2 ? "fly" : "not flying",
    reasons: [],
  }),
};

function openedIn(before: readonly PreflightEvent[], value: number): string {
  const ids = before.flatMap((e) => (e.type === "discrepancy.opened" ? [e.data.discrepancyId] : []));
  return ids[value % Math.max(1, ids.length)] ?? "d-none";
}

function play(steps: readonly Step[]): PreflightEvent[] {
  const events: PreflightEvent[] = [started()];
  for (const step of steps) {
    const data = (SAYS[step.kind] as (s: Step, b: readonly PreflightEvent[]) => EventData[EventType])(
      step,
      events,
    );
    events.push(event(step.kind, data as never, step.device ? 1 : 2));
  }
  return events;
}

describe("events", () => {
  test("fold to the same state in any order and with repeats", () => {
    fc.assert(
      fc.property(doings, fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })), (steps, chance) => {
        const events = play(steps);
        const shuffled = events
          .flatMap((e) => ((chance.next().value ?? 0) < 0.3 ? [e, e] : [e]))
          .map((e) => ({ e, at: chance.next().value ?? 0 }))
          .sort((a, b) => a.at - b.at)
          .map(({ e }) => e);
        expect(foldPreflight(streamId, shuffled)).toEqual(foldPreflight(streamId, events));
        expect(foldDiscrepancies(shuffled)).toEqual(foldDiscrepancies(events));
        expect(mergeEvents(shuffled, events)).toEqual(events);
      }),
    );
  });

  test("that are undone leave the state as if they had never happened", () => {
    fc.assert(
      fc.property(doings, (steps) => {
        // Before the signature, and with names not used by earlier events.
        const events = play(steps.filter(({ kind }) => kind !== "verdict.signed"));
        const slip = answered("oil");
        const { lastAt: _a, ...without } = foldPreflight(streamId, events);
        const { lastAt: _b, ...undone } = foldPreflight(streamId, [...events, slip, undo(slip)]);
        expect(undone).toEqual(without);
      }),
    );
  });

  test("folded one by one give the same state as all at once", () => {
    fc.assert(
      fc.property(doings, fc.array(fc.nat({ max: 5 })), (steps, cuts) => {
        const events = play(steps);
        let folded = foldIncrementally(undefined, streamId, []);
        let known = 0;
        for (const step of [...cuts, events.length]) {
          const before = structuredClone(folded.state);
          const earlier = folded;
          known = Math.min(events.length, known + step);
          folded = foldIncrementally(folded, streamId, events.slice(0, known));
          expect(folded.state).toEqual(foldPreflight(streamId, events.slice(0, known)));
          // Earlier states are unchanged.
          expect(earlier.state).toEqual(before);
        }
      }),
    );
  });

  test("that arrive late are folded in their own place", () => {
    const [first, second, third] = [started(), answered("docs"), answered("lock")];
    const folded = foldIncrementally(foldIncrementally(undefined, streamId, [first, third]), streamId, [
      first,
      third,
      second,
    ]);
    expect(folded.state).toEqual(foldPreflight(streamId, [first, second, third]));
    const undone = foldIncrementally(foldIncrementally(undefined, streamId, [first, undo(third)]), streamId, [
      first,
      undo(third),
      third,
    ]);
    expect(undone.state.answers).toEqual({});
  });

  test("of an item named like a language keyword work as usual", () => {
    for (const id of ["constructor", "__proto__", "toString"]) {
      expect(fold().answers[id]).toBeUndefined();
      const state = fold(answered(id));
      expect(state.answers[id]?.outcome).toBe("checked");
      expect(Object.keys(state.answers)).toEqual([id]);
    }
  });

  test("of another preflight are ignored", () => {
    expect(foldPreflight("another", [started(), answered("docs")]).answers).toEqual({});
  });

  test("an interruption stays open until resumed", () => {
    const away = event("interrupted", {});
    expect(fold(away).interruptions).toEqual([{ at: away.at }]);
    const back = event("resumed", {});
    expect(fold(away, back).interruptions).toEqual([{ at: away.at, resumedAt: back.at }]);
  });
});

describe("discrepancies", () => {
  const opening = event("discrepancy.opened", {
    discrepancyId: "d",
    registration: "QX-TST",
    stationId: "left",
    itemId: "left.skin",
    text: "dent",
    grade: "watch",
    measure: "3 mm",
  });
  const seen = event("discrepancy.observed", {
    discrepancyId: "d",
    itemId: "known:d",
    state: "grown",
    measure: "5 mm",
  });

  test("keep every inspection and the last measurement", () => {
    const [state] = foldDiscrepancies([seen, opening]);
    expect(state).toMatchObject({
      measure: "5 mm",
      grade: "watch",
      observations: [{ state: "grown", measure: "5 mm" }],
    });
    expect(state?.closed).toBeUndefined();
  });

  test("end when signed off; an inspection without its opening does not count yet", () => {
    const closing = event("discrepancy.closed", { discrepancyId: "d", how: "filled" });
    expect(foldDiscrepancies([opening, closing])[0]?.closed).toMatchObject({ how: "filled" });
    expect(foldDiscrepancies([seen])).toEqual([]);
  });
});

describe("the runway in use", () => {
  const runways = [{ id: "24", headingDeg: 238, lengthM: 900, surface: "grass" }];
  const field = { format: "cravix.airfield/1" as const, id: "f", name: "Field", elevationFt: 0, runways };
  const items = [
    { ...(list.items[0] as (typeof list.items)[number]), id: "which", choicesFrom: "runways" as const },
  ];
  const chosen = (value: string) => ({
    answers: fold(event("item.answered", { itemId: "which", outcome: "checked", value })).answers,
  });

  test("is the answer to the item with the airfield's runways as choices, whatever its id", () => {
    expect(runwayInUse({ items, airfield: field }, chosen("24"))).toEqual({
      id: "24",
      itemId: "which",
      runway: runways[0],
    });
  });

  test("one not on file at the airfield has a name but no direction; without an answer there is none", () => {
    expect(runwayInUse({ items, airfield: field }, chosen("09"))).toEqual({ id: "09", itemId: "which" });
    expect(runwayInUse({ items, airfield: field }, { answers: {} })).toBeUndefined();
    expect(runwayInUse({ items: list.items }, chosen("24"))).toBeUndefined();
  });
});
