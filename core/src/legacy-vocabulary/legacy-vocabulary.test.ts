import fc from "fast-check";
import { upgradeBundle, upgradeEvent, upgradeFile, upgradePlanned } from "./index";

const SCHOOL = { method: "flow then read", hand: "as listed", surfaces: "moved", order: ["tail", "nose"] };
const PREFERENCES = { ...SCHOOL, method: "flow, then check" };

describe("an event that was written before words were changed", () => {
  const old = (type: string, data: object) => ({ id: "e", preflightId: "p", type, data });
  const now = (type: string, data: object) => ({ id: "e", streamId: "p", type, data });

  test.each([
    ["item.deferred", { itemId: "a" }, "item.postponed", { itemId: "a" }],
    [
      "item.answered",
      { itemId: "a", outcome: "sound" },
      "item.answered",
      { itemId: "a", outcome: "checked" },
    ],
    ["item.answered", { itemId: "a", outcome: "found" }, "item.answered", { itemId: "a", outcome: "found" }],
    [
      "preflight.started",
      { registration: "QX-TAR", school: SCHOOL },
      "preflight.started",
      { registration: "QX-TAR", preferences: PREFERENCES },
    ],
    [
      "discrepancy.opened",
      { cause: "fuel.witnesses.left" },
      "discrepancy.opened",
      { cause: "fuel.sources.left" },
    ],
    [
      "discrepancy.opened",
      { cause: "fuel.witnessesses" },
      "discrepancy.opened",
      { cause: "fuel.witnessesses" },
    ],
    ["interrupted", {}, "interrupted", {}],
  ])("%s %j is read as it is shown today", (type, data, type2, data2) => {
    expect(upgradeEvent(old(type, data))).toEqual(now(type2, data2));
  });

  test("one that says nothing in old words is the very same", () => {
    const event = now("item.answered", { itemId: "a", outcome: "checked" });
    expect(upgradeEvent(event)).toBe(event);
  });

  test("what is no event comes back as it is, for the check behind it; and nothing throws, whatever is sent", () => {
    for (const input of [null, undefined, 7, "x", [], [{ preflightId: "p" }]])
      expect(upgradeEvent(input)).toBe(input);
    fc.assert(
      fc.property(
        fc.record({
          type: fc.constantFrom("item.deferred", "item.answered", "preflight.started", "__proto__"),
          preflightId: fc.anything(),
          data: fc.oneof(fc.anything(), fc.record({ outcome: fc.anything(), school: fc.anything() })),
        }),
        (input) => {
          const once = upgradeEvent(input);
          expect(upgradeEvent(once)).toEqual(once);
        },
      ),
    );
  });

  test("an event cannot be given both names: the new one counts, the old one stays for the check to reject", () => {
    expect(upgradeEvent({ streamId: "a", preflightId: "b" })).toEqual({
      streamId: "a",
      preflightId: "b",
    });
  });

  test("nor can a preflight's preferences have both names; and no list", () => {
    const both = {
      type: "preflight.started",
      data: { school: SCHOOL, preferences: { method: "read-and-do" } },
    };
    expect(upgradeEvent(both)).toEqual(both);
    const list = { format: "cravix.list/1", school: SCHOOL, preferences: 1, items: [] };
    expect(upgradeFile(list)).toMatchObject({ school: SCHOOL, preferences: 1 });
  });
});

describe("a file of an earlier version", () => {
  const item = { id: "a", title: "Left aileron: gap and edges", school: "surfaces moved" };
  const read = {
    id: "a",
    title: "Left aileron: gap and edges",
    method: "surfaces moved",
    part: "Left aileron",
  };

  test("a type's preferences, methods and parts are found where they were", () => {
    expect(
      upgradeFile({
        format: "cravix.aircraft-type/1",
        habits: { brake: { way: "controls first", why: "w" } },
        rules: [{ id: "r", school: "brake first" }],
        items: [item, { id: "run-up.controls", title: "Does it move?" }],
      }),
    ).toEqual({
      format: "cravix.aircraft-type/2",
      recommended: { brake: { way: "controls first", why: "w" } },
      rules: [{ id: "r", method: "brake first" }],
      items: [
        read,
        { id: "run-up.controls", title: "Does it move?", part: "Does it move", drill: "controls" },
      ],
    });
  });

  test("so are an aircraft's own items, and a checklist with the preferences it was made for", () => {
    expect(upgradeFile({ format: "cravix.aircraft/1", ownItems: [item] })).toEqual({
      format: "cravix.aircraft/2",
      ownItems: [read],
    });
    expect(
      upgradeFile({
        format: "cravix.list/1",
        school: SCHOOL,
        type: { habits: {} },
        items: [item],
        after: [],
      }),
    ).toEqual({
      format: "cravix.list/2",
      preferences: PREFERENCES,
      type: { recommended: {} },
      items: [read],
      after: [],
    });
  });

  test("today's files, other formats and what is no file come back as they are", () => {
    for (const value of [
      { format: "cravix.aircraft-type/2", items: [item] },
      { format: "cravix.crew/1", members: [] },
      { format: "__proto__" },
      { format: 1 },
      null,
      [],
    ])
      expect(upgradeFile(value)).toBe(value);
  });

  test("one that is broken stays broken in the same place: it is read, and the check finds it", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("cravix.aircraft-type/1", "cravix.aircraft/1", "cravix.list/1"),
        fc.dictionary(
          fc.constantFrom("items", "ownItems", "after", "rules", "type", "school", "habits"),
          fc.anything(),
        ),
        (format, rest) => {
          expect(upgradeFile({ ...rest, format })).toMatchObject({
            format: format.replace("/1", "/2"),
          });
        },
      ),
    );
  });
});

describe("what a device kept", () => {
  test("a bundle's files and preflights, and the preferences that were set, are read in today's words", () => {
    expect(
      upgradeBundle({
        aircraft: { format: "cravix.aircraft/1", ownItems: [] },
        type: { format: "cravix.aircraft-type/1", items: [] },
        walks: [{ crewId: "ines", school: SCHOOL }, { crewId: "kofi" }],
        openDiscrepancies: [{ id: "a", cause: "fuel.witnesses" }, { id: "b" }],
        laps: {},
      }),
    ).toEqual({
      aircraft: { format: "cravix.aircraft/2", ownItems: [] },
      type: { format: "cravix.aircraft-type/2", items: [] },
      walks: [{ crewId: "ines", preferences: PREFERENCES }, { crewId: "kofi" }],
      openDiscrepancies: [{ id: "a", cause: "fuel.sources" }, { id: "b" }],
      laps: {},
    });
    expect(upgradePlanned({ byRegistration: {}, schools: { "ines:QX-TAR": SCHOOL } })).toEqual({
      byRegistration: {},
      preferences: { "ines:QX-TAR": PREFERENCES },
    });
    expect(upgradePlanned(undefined)).toBeUndefined();
  });
});
