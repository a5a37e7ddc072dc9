import fc from "fast-check";
import { type Item, PHASES } from "../aircraft/aircraft-type";
import { composeList } from "../checklist/list/compose-list";
import { phaseOf } from "../checklist/list/list-places";
import type { PreflightEvent } from "../checklist/stream/events";
import { foldPreflight } from "../checklist/stream/fold-preflight";
import { answered, event, item, LIST_INPUT, started, streamId, type, undo } from "../testing/small-aircraft";
import { computeVerdict } from "../verdict/verdict";
import { blockedBy } from "./blocked-by";
import { entryText, foldLedger, openEntries } from "./fold-ledger";

/** A trainer with a lock, covers, a battery to be switched off again, a propeller to be left alone, and a gate before boarding. */
const list = composeList({
  ...LIST_INPUT,
  type: {
    ...type,
    stations: [
      ...type.stations,
      { id: "boarding", name: "Boarding", phase: "board" },
      { id: "hangar", name: "After the flight", phase: "after" },
    ],
    items: [
      ...type.items,
      item("ignition", "papers", { kind: "set", title: "Ignition off" }),
      item("on", "papers", { kind: "set", ledger: { out: "battery", how: "on" } }),
      item("cover", "left", {
        kind: "remove",
        ledger: { out: "pitot cover", how: "off", stow: "seat pocket", after: "Pitot cover on" },
      }),
      item("cowl", "right", { kind: "look", ledger: { out: "oil door", how: "open" } }),
      item("cowl.shut", "engine", { kind: "set", ledger: { back: "oil door" } }),
      item("off", "engine", { kind: "set", title: "Battery off", ledger: { back: "battery" } }),
      item("propeller", "left", { kind: "feel", touches: ["propeller"] }),
      item("belts", "boarding"),
      item("log", "hangar", { title: "Write the hours" }),
    ],
    rules: [
      {
        id: "propeller",
        first: "ignition",
        waits: { touches: "propeller" },
        why: "It can fire while a hand is on it.",
      },
    ],
    gates: [{ id: "boarding", before: "board", why: "Nobody boards while something is out there." }],
  },
});
const fold = (...events: PreflightEvent[]) => foldPreflight(streamId, [started(), ...events]);
const byId = (id: string) => list.items.find((i) => i.id === id) as Item;
const stateOf = (thing: string, ...events: PreflightEvent[]) =>
  foldLedger(list, fold(...events)).find((entry) => entry.thing === thing)?.state;

describe("the ledger", () => {
  test("holds switched-on things until off, and opened things until closed", () => {
    expect(stateOf("battery")).toBe("waits");
    expect(stateOf("battery", answered("on"))).toBe("out");
    expect(stateOf("battery", answered("on"), answered("off"))).toBe("back");
    const slip = answered("off");
    expect(stateOf("battery", answered("on"), slip, undo(slip))).toBe("out");
    expect(stateOf("oil door", answered("cowl"))).toBe("out");
  });

  test("counts a removed thing as stowed with the same answer; one that could not be removed still waits", () => {
    expect(stateOf("pitot cover", answered("cover"))).toBe("back");
    expect(stateOf("pitot cover", event("item.answered", { itemId: "cover", outcome: "found" }))).toBe(
      "waits",
    );
  });

  test("names what is open and where it is on the aircraft", () => {
    const open = openEntries(foldLedger(list, fold(answered("lock"), answered("on"))));
    expect(open.map((entry) => entryText(list, entry))).toEqual([
      "battery: still on, at Engine",
      "pitot cover: not removed yet, at Left",
    ]);
  });

  test("blocks the verdict while something is out", () => {
    const all = list.items.map((i) => answered(i.id));
    const withoutOff = all.filter((e) => (e.data as { itemId: string }).itemId !== "off");
    const found = event("item.answered", { itemId: "off", outcome: "found" });
    expect(computeVerdict(list, fold(...withoutOff, found)).outstanding).toMatchObject([
      { thing: "battery" },
    ]);
    expect(computeVerdict(list, fold(...withoutOff, found)).verdict).toBeUndefined();
    expect(computeVerdict(list, fold(...all)).verdict).toBe("ask first");
  });

  test("after the flight lists what was removed, and the type's own last items", () => {
    expect(list.after?.map((i) => i.title)).toEqual(["Write the hours", "Pitot cover on"]);
    // None of it is needed for the verdict.
    expect(list.items.some((i) => i.id === "log")).toBe(false);
    expect(list.stations.some((s) => s.id === "hangar")).toBe(false);
  });
});

describe("an ordering rule", () => {
  test("blocks the propeller until the ignition was seen off", () => {
    expect(blockedBy(list, fold(), byId("propeller"))).toEqual({
      kind: "rule",
      why: "It can fire while a hand is on it.",
      open: [{ text: "Ignition off", itemId: "ignition" }],
    });
    expect(blockedBy(list, fold(answered("ignition")), byId("propeller"))).toBeUndefined();
  });

  test("is not satisfied by a failed or undone ignition check", () => {
    const wrong = event("item.answered", { itemId: "ignition", outcome: "found" });
    expect(blockedBy(list, fold(wrong), byId("propeller"))?.kind).toBe("rule");
    const slip = answered("ignition");
    expect(blockedBy(list, fold(slip, undo(slip)), byId("propeller"))?.kind).toBe("rule");
  });

  test("does not wait for items not on today's checklist", () => {
    const shorter = { ...list, items: list.items.filter((i) => i.id !== "ignition") };
    expect(blockedBy(shorter, fold(), byId("propeller"))).toBeUndefined();
  });
});

describe("the gate before boarding", () => {
  test("names what is open, and leads to the item that closes it", () => {
    const block = blockedBy(list, fold(answered("on"), answered("cowl"), answered("lock")), byId("belts"));
    expect(block).toEqual({
      kind: "gate",
      why: "Nobody boards while something is out there.",
      open: [
        { text: "battery: still on, at Engine", itemId: "off" },
        { text: "pitot cover: not removed yet, at Left", itemId: "cover" },
        { text: "oil door: still open, at Engine", itemId: "cowl.shut" },
      ],
    });
  });

  test("does not let earlier items wait", () => {
    for (const i of list.items.filter((x) => !["belts", "propeller"].includes(x.id)))
      expect(blockedBy(list, fold(), i)).toBeUndefined();
  });

  /** Arbitrary sequences of actions with undo: the answers the preflight accepts. */
  test("cannot be passed with an open ledger by any sequence of answers", () => {
    const doing = fc.record({
      itemId: fc.constantFrom(...list.items.map((i) => i.id)),
      outcome: fc.constantFrom("checked" as const, "checked" as const, "found" as const),
      undo: fc.boolean(),
    });
    let passed = 0;
    fc.assert(
      fc.property(fc.array(doing, { minLength: 30, maxLength: 120, size: "max" }), (doings) => {
        const events: PreflightEvent[] = [started()];
        for (const { itemId, outcome, undo: takeBack } of doings) {
          const before = foldPreflight(streamId, events);
          const last = before.undoable.at(-1)?.eventId;
          if (takeBack && last && ["lock", "cover", "off"].includes(itemId)) {
            events.push(event("item.undone", { eventId: last }));
            continue;
          }
          if (blockedBy(list, before, byId(itemId))) continue;
          events.push(event("item.answered", { itemId, outcome }));
          if (PHASES.indexOf(phaseOf(list, byId(itemId))) < PHASES.indexOf("board")) continue;
          passed++;
          // When boarding is answered, nothing is off, on or open: checked independently of the gate.
          const checked = (id: string) => before.answers[id]?.outcome === "checked";
          expect(checked("lock") && checked("cover")).toBe(true);
          expect(!checked("on") || checked("off")).toBe(true);
          expect(!checked("cowl") || checked("cowl.shut")).toBe(true);
        }
      }),
      { numRuns: 400 },
    );
    // Only meaningful if the gate was passed at all.
    expect(passed).toBeGreaterThan(20);
  });
});
