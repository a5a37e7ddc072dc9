import type { AircraftType } from "../aircraft/aircraft-type";
import { composeType } from "./compose-type";
import type { PartSheet } from "./part-sheet";
import type { StationSheet } from "./station-sheet";
import type { Library, PartUse, TypeComposition } from "./type-composition";

const look = { kind: "look", good: "as it should be", why: "It matters.", miss: "ask" } as const;

const surface: PartSheet = {
  format: "cravix.part/1",
  id: "surface",
  name: "Control surface",
  what: "A hinged surface.",
  place: "{side} aileron",
  parameters: {
    side: { what: "Left or right", of: ["left", "right"] },
    hinges: { what: "Hinges to count", number: { least: 1, most: 12 } },
    colour: { what: "Colour of the flag", words: 20, usual: "red" },
  },
  options: { weight: "A balance weight" },
  limits: { play: { what: "Play at the edge", unit: "mm" } },
  items: [
    {
      ...look,
      id: "{side}-aileron.hinges",
      station: "{side}-wing",
      kind: "count",
      title: "{Side} aileron: count the hinges",
      why: "{Hinges} hinges: see all {hinges}. The flag is {colour}.",
      expected: "{hinges}",
    },
    {
      ...look,
      id: "{side}-aileron.weight",
      station: "{side}-wing",
      title: "{Side} weight",
      if: "weight",
      card: "1",
    },
    {
      ...look,
      id: "{side}-aileron.play",
      station: "{side}-wing",
      kind: "measure",
      title: "{Side} play: measure it",
      reading: { key: "{side}-play", unit: "mm", decimals: 1 },
      limitFrom: "play",
    },
  ],
  rules: [
    {
      id: "lock-before-{side}",
      first: "wing.lock",
      waits: { items: ["{side}-aileron.hinges", "{side}-flap.hinges"] },
      why: "Lock out first.",
    },
  ],
};
const lock: PartSheet = {
  format: "cravix.part/1",
  id: "lock",
  name: "Lock",
  what: "A lock.",
  items: [
    { ...look, id: "wing.lock", station: "left-wing", title: "Lock: out", card: "1" },
    { ...look, id: "wing.flag", station: "left-wing", title: "Flag: off", card: "1" },
  ],
};
const stations: StationSheet[] = [
  {
    id: "{side}-wing",
    name: "{Side} wing",
    phase: "lap",
    role: "wing",
    order: ["wing.lock", "{side}-aileron.hinges", "{side}-aileron.weight", "{side}-aileron.play"],
    cards: [{ id: "1", title: "{Side} wing, in one look", done: "Seen" }],
  },
];
const library: Library = { parts: [surface, lock], stations };

const both: PartUse = { part: "surface", with: { side: ["left", "right"], hinges: [3, 4] } };
const composition = (more: Partial<TypeComposition> = {}): TypeComposition => ({
  format: "cravix.aircraft-type/3",
  id: "made-up",
  name: "Made up",
  what: "an aircraft",
  stations: [{ id: "left-wing", x: 1, y: 2 }, { id: "right-wing" }],
  parts: [both],
  ...more,
});
const composed = (more: Partial<TypeComposition> = {}, from = library): AircraftType => {
  const outcome = composeType(composition(more), from);
  if ("faults" in outcome) throw new Error(JSON.stringify(outcome.faults));
  return outcome.type;
};
const ids = (type: AircraftType) => type.items.map(({ id }) => id);
const faultsOf = (more: Partial<TypeComposition>, from = library) => {
  const outcome = composeType(composition(more), from);
  return "faults" in outcome ? outcome.faults : [];
};

describe("an aircraft type composed of parts", () => {
  test("has one part for each value of a list, its texts filled in", () => {
    const type = composed();
    expect(ids(type)).toEqual([
      "left-aileron.hinges",
      "left-aileron.play",
      "right-aileron.hinges",
      "right-aileron.play",
    ]);
    expect(type.items[2]).toMatchObject({
      station: "right-wing",
      part: "Right aileron",
      title: "Right aileron: count the hinges",
      why: "Four hinges: see all four. The flag is red.",
      expected: 4,
    });
    expect(type.stations).toEqual([
      { id: "left-wing", name: "Left wing", phase: "lap", role: "wing", x: 1, y: 2 },
      { id: "right-wing", name: "Right wing", phase: "lap", role: "wing" },
    ]);
  });

  test("has an option's items only where it says so, and the handbook's limit where it gives one", () => {
    const limit = {
      max: 2,
      unit: "mm",
      source: { kind: "handbook", text: "page 5", example: true },
    } as const;
    const type = composed({ parts: [{ ...both, has: ["weight"], limits: { play: limit } }] });
    expect(ids(type)).toContain("left-aileron.weight");
    expect(type.items.find(({ id }) => id === "right-aileron.play")?.limit).toEqual(limit);
    expect(composed().items.find(({ id }) => id === "right-aileron.play")).not.toHaveProperty("limit");
  });

  test("changes, renames and leaves out items by their id in the sheet or here", () => {
    const type = composed({
      parts: [
        {
          ...both,
          without: ["{side}-aileron.play"],
          changes: {
            "{side}-aileron.hinges": { good: "{side} pins in" },
            "right-aileron.hinges": { id: "right.hinges", caution: "Mind the tab.", why: null },
          },
        },
      ],
    });
    expect(ids(type)).toEqual(["left-aileron.hinges", "right.hinges"]);
    expect(type.items.map(({ good, caution }) => [good, caution])).toEqual([
      ["left pins in", undefined],
      ["right pins in", "Mind the tab."],
    ]);
    expect(type.items[1]).not.toHaveProperty("why");
  });

  test("keeps the rules about its items, under the names they have here", () => {
    const type = composed({
      parts: [{ ...both, changes: { "left-aileron.hinges": { id: "left.hinges" } } }, { part: "lock" }],
    });
    expect(type.rules).toEqual([
      {
        id: "lock-before-left",
        first: "wing.lock",
        waits: { items: ["left.hinges"] },
        why: "Lock out first.",
      },
      expect.objectContaining({ id: "lock-before-right", waits: { items: ["right-aileron.hinges"] } }),
    ]);
    // Without a lock there is nothing to wait for.
    expect(composed()).not.toHaveProperty("rules");
    const own = [{ id: "lock-before-left", first: "wing.flag", waits: { touches: "x" }, why: "Ours." }];
    expect(
      composed({ parts: [both, { part: "lock" }], rules: own }).rules?.filter(({ id }) => id === own[0]?.id),
    ).toEqual(own);
  });

  test("has its items in the station's order, own ones after those they follow, and moves as it says", () => {
    const mine = { ...look, id: "own.look", station: "left-wing", title: "Mine", follows: "wing.lock" };
    const parts = [both, { part: "lock" }];
    const left = (more: Partial<TypeComposition>) =>
      composed({ parts, ...more })
        .items.filter(({ station }) => station === "left-wing")
        .map(({ id }) => id);
    expect(left({ items: [mine] })).toEqual([
      "wing.lock",
      "own.look",
      "wing.flag",
      "left-aileron.hinges",
      "left-aileron.play",
    ]);
    const order = [{ item: "left-aileron.play" }, { item: "wing.lock", after: "left-aileron.hinges" }];
    expect(left({ order })).toEqual(["left-aileron.play", "wing.flag", "left-aileron.hinges", "wing.lock"]);
  });

  test("puts the items of a card together, and a single one on none", () => {
    const type = composed({ parts: [{ ...both, has: ["weight"] }, { part: "lock" }] });
    expect(type.groups).toEqual([
      {
        id: "left-wing.1",
        title: "Left wing, in one look",
        done: "Seen",
        items: ["wing.lock", "wing.flag", "left-aileron.weight"],
      },
    ]);
  });

  test("says where in the composition each item is written", () => {
    const outcome = composeType(composition({ parts: [{ part: "lock" }, both] }), library);
    expect("writtenAt" in outcome && outcome.writtenAt.get("left-aileron.hinges")).toBe("parts[1]");
  });
});

test.each<[string, Partial<TypeComposition>, string, RegExp]>([
  ["an unknown part", { parts: [{ part: "wings" }] }, "parts[0].part", /wings does not exist/],
  [
    "a missing parameter",
    { parts: [{ part: "surface", with: { side: "left" } }] },
    "parts[0].with.hinges",
    /Hinges to count/,
  ],
  [
    "an unknown parameter",
    { parts: [{ ...both, with: { ...both.with, size: 3 } }] },
    "parts[0].with.size",
    /a parameter of/,
  ],
  [
    "a value that is none",
    { parts: [{ part: "surface", with: { side: "top", hinges: 3 } }] },
    "parts[0].with.side",
    /left, right/,
  ],
  [
    "a number out of bounds",
    { parts: [{ part: "surface", with: { side: "left", hinges: 40 } }] },
    "parts[0].with.hinges",
    /1 to 12/,
  ],
  [
    "lists of different lengths",
    { parts: [{ part: "surface", with: { side: ["left", "right"], hinges: [3] } }] },
    "parts[0].with.hinges",
    /as many values/,
  ],
  [
    "words that are too long",
    { parts: [{ ...both, with: { ...both.with, colour: "x".repeat(30) } }] },
    "parts[0].with.colour",
    /20 characters/,
  ],
  [
    "two parts in one place",
    { parts: [both, { part: "surface", with: { side: "left", hinges: 2 } }] },
    "parts[1]",
    /place “left aileron”/,
  ],
  ["an unknown option", { parts: [{ ...both, has: ["tab"] }] }, "parts[0].has[0]", /an option/],
  [
    "an unknown limit",
    {
      parts: [
        { ...both, limits: { gap: { unit: "mm", source: { kind: "handbook", text: "x", example: true } } } },
      ],
    },
    "parts[0].limits.gap",
    /a limit/,
  ],
  [
    "a change of what does not exist",
    { parts: [{ ...both, changes: { "left-flap.rod": { good: "x" } } }] },
    "parts[0].changes.left-flap.rod",
    /an item or rule/,
  ],
  [
    "leaving out what does not exist",
    { parts: [{ ...both, without: ["left-flap.rod"] }] },
    "parts[0].without[0]",
    /an item or rule/,
  ],
  [
    "an item twice",
    { parts: [{ part: "lock" }, { part: "lock" }] },
    "parts[1]",
    /wing.lock also comes from parts\[0\]/,
  ],
  ["a station that the type does not have", { stations: [{ id: "left-wing" }] }, "parts[0]", /right-wing/],
  [
    "a station that nobody knows",
    { stations: [{ id: "left-wing" }, { id: "right-wing" }, { id: "keel" }] },
    "stations[2]",
    /keel/,
  ],
  ["a move of what does not exist", { order: [{ item: "x" }] }, "order[0].item", /x does not exist/],
  [
    "a move after what does not exist",
    { order: [{ item: "left-aileron.hinges", after: "x" }] },
    "order[0].after",
    /x does not exist/,
  ],
  [
    "a move to another station",
    { order: [{ item: "left-aileron.hinges", after: "right-aileron.hinges" }] },
    "order[0].after",
    /the station left-wing/,
  ],
  [
    "moves that wait for each other",
    {
      order: [
        { item: "left-aileron.hinges", after: "left-aileron.play" },
        { item: "left-aileron.play", after: "left-aileron.hinges" },
      ],
    },
    "order[1]",
    /without a circle/,
  ],
])("%s is refused with its path", (_name, more, path, expected) => {
  expect(faultsOf(more)).toContainEqual({ path, expected: expect.stringMatching(expected) });
});

test.each([
  "{sied}",
  "{constructor}",
  "{Side of it}",
])("a change may name only parameters of its part: %s", (text) => {
  const faults = faultsOf({ parts: [{ ...both, changes: { "{side}-aileron.play": { good: text } } }] });
  // What is no name of a parameter is plain text.
  expect(faults.map(({ path }) => path)).toEqual(
    text.includes(" ") ? [] : ["parts[0].changes", "parts[0].changes"],
  );
});

test("a parameter nobody gives is only missed where an item needs it", () => {
  const parts = [{ part: "surface", with: { side: "left" }, without: ["left-aileron.hinges"] }];
  expect(ids(composed({ parts }))).toEqual(["left-aileron.play"]);
});
