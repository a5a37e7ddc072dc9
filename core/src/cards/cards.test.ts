import type { AircraftType, Group, Item } from "../aircraft/aircraft-type";
import { defaultPreferences, mayGroup } from "../aircraft/preferences";
import { composeList } from "../checklist/list/compose-list";
import { currentItem } from "../checklist/next-item";
import type { PreflightEvent } from "../checklist/stream/events";
import { foldPreflight } from "../checklist/stream/fold-preflight";
import { takeBackAll } from "../checklist/stream/undo";
import { groupFaults, turnaroundFaults } from "../groups/group-faults";
import { neverGroupedReason } from "../groups/never-grouped";
import { rushedSequences } from "../pace/hasty-runs";
import { cardOf } from "./card-of";

const item = (id: string, more: Partial<Item> = {}): Item => ({
  id,
  station: "wing",
  kind: "look",
  title: id,
  good: "good",
  why: "because of this",
  miss: "ask",
  ...more,
});
const type = (items: Item[], groups: Group[] = [], more: Partial<AircraftType> = {}): AircraftType => ({
  format: "cravix.aircraft-type/2",
  id: "t",
  name: "T",
  what: "a type",
  stations: [
    { id: "wing", name: "Wing", phase: "lap" },
    { id: "tail", name: "Tail", phase: "lap" },
  ],
  items,
  groups,
  ...more,
});
const compose = (of: AircraftType, more: Partial<Parameters<typeof composeList>[0]> = {}) =>
  composeList({
    type: of,
    aircraft: {
      format: "cravix.aircraft/2",
      registration: "QX-T",
      typeId: "t",
      year: 2000,
      base: "x",
      ownItems: [],
      facts: { springs: "6" },
    },
    conditions: [],
    openDiscrepancies: [],
    preferences: { ...defaultPreferences(undefined), cards: "groups" },
    ...more,
  });
let count = 0;
const event = (kind: PreflightEvent["type"], data: object, at = 0, crewId = "me"): PreflightEvent =>
  ({
    id: String(++count).padStart(6, "0"),
    type: kind,
    streamId: "p",
    deviceId: "d",
    crewId,
    at: new Date(Date.UTC(2026, 4, 1) + at * 1000).toISOString(),
    data,
  }) as PreflightEvent;
const begun = (crewId = "me") =>
  event("preflight.started", { registration: "QX-T", listHash: "", conditions: [] }, 0, crewId);
const fold = (...events: PreflightEvent[]) => foldPreflight("p", events);
const checked = (itemId: string, at = 0, more: object = {}) =>
  event("item.answered", { itemId, outcome: "checked", ...more }, at);

const EDGE = [item("edge"), item("skin"), item("vent"), item("tip", { station: "tail" })];
const GROUP: Group = { id: "g", title: "Leading edge", items: ["edge", "skin", "vent"] };

describe("a card", () => {
  const list = compose(type(EDGE, [GROUP]));
  const first = list.items[0] as Item;

  test("has the open items of a group, or single items if the pilot prefers", () => {
    expect(cardOf(list, fold(begun()), first)?.parts.map(({ id }) => id)).toEqual(["edge", "skin", "vent"]);
    const single = compose(type(EDGE, [GROUP]), { preferences: defaultPreferences(undefined) });
    expect(single.groups).toBeUndefined();
    expect(cardOf(single, fold(begun()), first)).toBeUndefined();
  });

  test("leaves out items with problems, postponed items and items asked alone today", () => {
    const found = event("discrepancy.opened", {
      discrepancyId: "x",
      registration: "QX-T",
      stationId: "wing",
      itemId: "skin",
      text: "a dent",
      grade: "ask",
    });
    const left = fold(begun(), found);
    expect(cardOf(list, left, first)?.parts.map(({ id }) => id)).toEqual(["edge", "vent"]);
    const put = fold(begun(), event("item.postponed", { itemId: "vent" }));
    expect(cardOf(list, put, first)?.parts.map(({ id }) => id)).toEqual(["edge", "skin"]);
    // Answered by its value today, so it stays single.
    const proof = EDGE.map((one) =>
      one.id === "vent" ? { ...one, proof: { ask: "how many?", fact: "springs" } } : one,
    );
    const proven = compose(type(proof, [GROUP]), { seed: "s" });
    expect(proven.groups?.[0]?.items).toEqual(["edge", "skin"]);
  });

  test("of fuel samples leaves out the drain with water, and the one opened separately", () => {
    const cups = ["c1", "c2", "c3"].map((id) => item(id, { kind: "sample" }));
    const drains = compose(type(cups, [{ id: "g", title: "fuel samples only", items: ["c1", "c2", "c3"] }]));
    const ids = (at: number, ...events: PreflightEvent[]) =>
      cardOf(drains, fold(begun(), ...events), drains.items[at] as Item)?.parts.map(({ id }) => id);
    expect(ids(0)).toEqual(["c1", "c2", "c3"]);
    const water = event("sample.taken", { itemId: "c2", look: "water", fate: "discarded" });
    expect(ids(0, water)).toEqual(["c1", "c3"]);
    expect(ids(1, water)).toBeUndefined();
    expect(ids(2, event("item.visited", { itemId: "c3" }))).toBeUndefined();
  });

  test("ends with one item left, or when an item is reopened", () => {
    expect(
      cardOf(list, fold(begun(), checked("edge"), checked("skin")), list.items[2] as Item),
    ).toBeUndefined();
    expect(cardOf(list, fold(begun(), checked("edge")), first)).toBeUndefined();
  });

  test("leaves out an item that must wait for another", () => {
    const waits = compose(
      type(EDGE, [GROUP], { rules: [{ id: "r", first: "tip", waits: { items: ["vent"] }, why: "so" }] }),
    );
    const ids = (...events: PreflightEvent[]) =>
      cardOf(waits, fold(begun(), ...events), waits.items.find(({ id }) => id === "edge") as Item)?.parts.map(
        ({ id }) => id,
      );
    expect(ids()).toEqual(["edge", "skin"]);
    expect(ids(checked("tip"))).toEqual(["edge", "skin", "vent"]);
  });

  test("after a flow holds everything of the station that may be grouped, and no critical item", () => {
    const items = [
      ...EDGE,
      item("cap", { alone: "cap", miss: "stop" }),
      item("dip", { kind: "measure", reading: { key: "fuel.dip.left", unit: "cm", decimals: 1 } }),
    ];
    const flow = compose(type(items, []), {
      preferences: { ...defaultPreferences(undefined), method: "flow, then check", cards: "groups" },
    });
    const state = fold(begun(), event("station.flowed", { stationId: "wing" }));
    expect(cardOf(flow, state, flow.items[0] as Item)).toMatchObject({ title: "Wing" });
    expect(cardOf(flow, state, flow.items[0] as Item)?.parts.map(({ id }) => id)).toEqual([
      "edge",
      "skin",
      "vent",
    ]);
  });
});

describe("one answer to a card", () => {
  const list = compose(type(EDGE, [GROUP]));
  // In the order the interface sends them: the last part first.
  const answer = () => ["vent", "skin", "edge"].map((id) => checked(id, 9, { card: "g" }));

  test("continues after its first item, and skips none of the others", () => {
    expect(currentItem(list, fold(begun(), ...answer()))?.id).toBe("tip");
    const between = compose(
      type([EDGE[0], item("cap", { alone: "cap" }), ...EDGE.slice(1)] as Item[], [GROUP]),
    );
    expect(currentItem(between, fold(begun(), ...answer()))?.id).toBe("cap");
  });

  test("is undone as a whole, by the person who gave it", () => {
    const events = [begun(), checked("tip", 3), ...answer()];
    const back = takeBackAll(fold(...events), "me");
    expect(back.map(({ data }) => data)).toEqual(
      events
        .slice(2)
        .reverse()
        .map(({ id }) => ({ eventId: id })),
    );
    const after = fold(...events, ...back.map(({ type: kind, data }) => event(kind, data)));
    expect(Object.keys(after.answers)).toEqual(["tip"]);
    // Another card, or the same card at another time, is a separate answer.
    expect(
      takeBackAll(fold(begun(), checked("edge", 1, { card: "g" }), checked("skin", 2, { card: "g" })), "me"),
    ).toHaveLength(1);
    expect(takeBackAll(fold(begun("pilot"), ...answer()), "somebody")).toEqual([]);
  });

  test("takes as long as its looks together: a normal pace is not hurried, an instant one is", () => {
    const many = Array.from({ length: 6 }, (_, i) => item(`i${i}`));
    const six = compose(type(many, [{ id: "g", title: "six", items: many.map(({ id }) => id) }]));
    const after = (seconds: number) =>
      rushedSequences(six, fold(begun(), ...many.map(({ id }) => checked(id, seconds, { card: "g" }))));
    expect(after(7)).toEqual([]);
    expect(after(1)).toMatchObject([{ items: { length: 6 } }]);
  });
});

describe("items that must never be grouped", () => {
  const refused = (items: Item[], group: Group = { ...GROUP, items: items.map(({ id }) => id) }) =>
    groupFaults(type(items, [group])).map(({ path }) => path);

  test("are rejected with their path, whether marked or recognised by name", () => {
    const alone: [string, Partial<Item>][] = [
      ["a flag", { alone: "brakes" }],
      ["the ledger", { ledger: { out: "cover", how: "off" } }],
      ["a count", { kind: "count", expected: 3 }],
      ["a held check", { second: true }],
      ["a dip", { kind: "measure", reading: { key: "fuel.dip.left", unit: "cm", decimals: 1 } }],
      ["the oil", { kind: "measure", reading: { key: "oil.level", unit: "US qt", decimals: 1 } }],
      ["a magneto", { kind: "measure", reading: { key: "magneto.left", unit: "rpm", decimals: 0 } }],
    ];
    for (const [name, more] of alone) {
      const part = item("x", more);
      expect([name, neverGroupedReason(part) !== undefined]).toEqual([name, true]);
      expect([name, refused([item("a"), part])]).toEqual([name, ["groups[0].items[1]"]]);
    }
  });

  test("are recognised by name in checklists without the marks", () => {
    for (const title of [
      "Left brake: dry",
      "Fuel cap: on",
      "Pitot: open",
      "Seats: locked",
      "Fuel selector: both",
    ])
      expect([title, refused([item("a"), item("b", { title })])]).toEqual([title, ["groups[0].items[1]"]]);
    expect(refused([item("a"), item("b", { title: "Airbrakes: flush" })])).toEqual([]);
    // If a checklist has turnaround flags, they apply.
    expect(
      refused([item("a"), item("b", { title: "Plug leads, brake hoses" }), item("c", { alone: "oil" })], {
        ...GROUP,
        items: ["a", "b"],
      }),
    ).toEqual([]);
  });

  test("groups reject duplicates, items of other stations, missing items, and a sample among looks", () => {
    const items = [item("a"), item("b"), item("far", { station: "tail" }), item("cup", { kind: "sample" })];
    expect(
      groupFaults(
        type(items, [
          { ...GROUP, items: ["a", "b"] },
          { ...GROUP, id: "h", items: ["a", "far", "none", "cup"] },
        ]),
      ),
    ).toMatchObject([
      { path: "groups[1].items[0]", expected: expect.stringContaining("no other group") },
      { path: "groups[1].items[1]", expected: expect.stringContaining("same station") },
      { path: "groups[1].items[2]", expected: expect.stringContaining("of this type") },
      { path: "groups[1].items[3]", expected: expect.stringContaining("fuel samples only") },
    ]);
  });
});

describe("a turnaround", () => {
  const items = [
    item("cap", { alone: "cap", miss: "stop", turnaround: "always" }),
    item("skin"),
    item("cup", { kind: "sample", turnaround: "refuelled" }),
    item("ice", { when: ["frost"] }),
    item("sock", { station: "runway" }),
  ];
  const of = type(items, [], {
    stations: [
      { id: "wing", name: "Wing", phase: "lap" },
      { id: "runway", name: "Line-up check", phase: "line-up", role: "line-up check" },
    ],
  });
  const asked = (...conditions: ("turnaround" | "refuelled" | "frost")[]) =>
    compose(of, { conditions }).items.map(({ id }) => id);

  test("asks critical items, samples after refuelling, and the items of the day's conditions", () => {
    expect(asked()).toEqual(["cap", "skin", "cup"]);
    expect(asked("turnaround")).toEqual(["cap"]);
    expect(asked("turnaround", "refuelled", "frost")).toEqual(["cap", "cup", "ice"]);
    expect(compose(of, { conditions: ["turnaround"] }).lineUp?.map(({ id }) => id)).toEqual(["sock"]);
  });

  test("is not available after maintenance, on the first flight of the day, or on a type without one", () => {
    for (const other of ["first of the day", "after maintenance", "just rigged"] as const)
      expect(() => compose(of, { conditions: ["turnaround", other] })).toThrow(/not possible with/);
    expect(() => compose(type(EDGE), { conditions: ["turnaround"] })).toThrow(/no turnaround checklist/);
  });

  test("that leaves out a critical item is rejected with its path", () => {
    const [cap, ...rest] = items as [Item, ...Item[]];
    const { turnaround: _always, ...forgotten } = cap;
    expect(turnaroundFaults({ ...of, items })).toEqual([]);
    expect(turnaroundFaults({ ...of, items: [forgotten, ...rest] })).toMatchObject([
      { path: "items[0].turnaround" },
    ]);
    expect(turnaroundFaults({ ...of, items: [{ ...cap, turnaround: "refuelled" }, ...rest] })).toHaveLength(
      1,
    );
  });
});

test("conditions in which a type is not flown are rejected with the reason", () => {
  const of = type(EDGE, [], { notOffered: [{ condition: "instrument", why: "By sight only." }] });
  expect(() => compose(of, { conditions: ["instrument"] })).toThrow(/By sight only/);
});

test("groups are for pilots with ten walkarounds, and not for students (common practice)", () => {
  expect([mayGroup(9, "pilot"), mayGroup(10, "pilot"), mayGroup(40, "student")]).toEqual([
    false,
    true,
    false,
  ]);
});

test("the line-up check does not affect the verdict, but a problem found there does", () => {
  const items = [item("a"), item("sock", { station: "runway" })];
  const of = type(items, [], {
    stations: [
      { id: "wing", name: "Wing", phase: "lap" },
      { id: "runway", name: "Line-up check", phase: "line-up", role: "line-up check" },
    ],
  });
  const known = {
    id: "k",
    stationId: "runway",
    text: "sock torn",
    grade: "note" as const,
    openedAt: "2026-05-01",
    openedBy: "A",
  };
  const list = compose(of, { openDiscrepancies: [known] });
  expect(list.items.map(({ id, station }) => [id, station])).toEqual([
    ["a", "wing"],
    ["known:k", "wing"],
  ]);
  expect(list.lineUp?.map(({ id }) => id)).toEqual(["sock"]);
});
