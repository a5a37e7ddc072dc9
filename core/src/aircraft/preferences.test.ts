import fc from "fast-check";
import { type ComposeInput, composeList } from "../checklist/list/compose-list";
import { confirmOptions } from "../checklist/list/confirm-options";
import { hashString } from "../checklist/list/hash-string";
import { orderByRules } from "../checklist/list/order-by-rules";
import { currentItem, nextFlowStation } from "../checklist/next-item";
import { resumePoint } from "../checklist/resume-point";
import type { PreflightEvent, ReturnWay } from "../checklist/stream/events";
import { foldPreflight } from "../checklist/stream/fold-preflight";
import { blockedBy, stationBlockedBy } from "../ledger/blocked-by";
import {
  aircraft,
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
import { applyVariant } from "./apply-variant";
import {
  defaultPreferences,
  ITEMS_BACK,
  type Preferences,
  preferenceReasons,
  WALKAROUNDS_BEFORE_FLOW,
} from "./preferences";

const prefer = (part: Partial<Preferences> = {}): Preferences => ({
  ...defaultPreferences(undefined),
  ...part,
});
const fold = (...events: PreflightEvent[]) => foldPreflight(streamId, [started(), ...events]);
const compose = (part: Partial<ComposeInput>) => composeList({ ...LIST_INPUT, ...part });

describe("preferences", () => {
  test("default to read-and-do, the checklist's own route, and resuming at the start of the station", () => {
    expect(defaultPreferences(undefined)).toEqual({
      method: "read-and-do",
      hand: "as listed",
      surfaces: "moved",
      brake: "brake first",
      afterInterruption: "start of the station",
      sample: "discarded",
    });
  });

  test("take the methods for surfaces and brake from the type, with its reason", () => {
    const recommended = {
      surfaces: { way: "looked at" as const, why: "Thin skins." },
      brake: { way: "controls first" as const, why: "One cable." },
    };
    expect(defaultPreferences(recommended)).toMatchObject({ surfaces: "looked at", brake: "controls first" });
    expect(preferenceReasons(recommended, 0)).toMatchObject({ surfaces: "Thin skins.", brake: "One cable." });
  });

  test("offer the flow after ten complete walkarounds (common practice)", () => {
    expect(preferenceReasons(undefined, WALKAROUNDS_BEFORE_FLOW - 1).method).toContain("You have 9");
    expect(preferenceReasons(undefined, WALKAROUNDS_BEFORE_FLOW).method).toContain("from memory");
  });

  test("leave out items of other methods", () => {
    const two = {
      ...type,
      items: [
        item("move", "left", { method: "surfaces moved" }),
        item("look", "left", { method: "surfaces looked at" }),
        item("all", "left"),
      ],
    };
    const ids = (s: Preferences | undefined) =>
      compose({ type: two, aircraft: { ...aircraft, ownItems: [] }, ...(s && { preferences: s }) }).items.map(
        (i) => i.id,
      );
    expect(ids(prefer())).toEqual(["move", "all"]);
    expect(ids(prefer({ surfaces: "looked at" }))).toEqual(["look", "all"]);
    expect(ids(undefined)).toEqual(["move", "all"]);
  });

  test("put brake and controls in the chosen order", () => {
    const two = {
      ...type,
      items: [item("brake", "left"), item("controls", "left")],
      rules: [
        { id: "b", first: "brake", waits: { items: ["controls"] }, why: "b", method: "brake first" as const },
        {
          id: "c",
          first: "controls",
          waits: { items: ["brake"] },
          why: "c",
          method: "controls first" as const,
        },
      ],
    };
    const list = (brake: Preferences["brake"]) =>
      compose({ type: two, aircraft: { ...aircraft, ownItems: [] }, preferences: prefer({ brake }) });
    expect(list("brake first").items.map((i) => i.id)).toEqual(["brake", "controls"]);
    const cable = list("controls first");
    expect(cable.items.map((i) => i.id)).toEqual(["controls", "brake"]);
    const brake = cable.items[1];
    expect(brake && blockedBy(cable, fold(), brake)?.why).toBe("c");
    expect(brake && blockedBy(cable, fold(answered("controls")), brake)).toBeUndefined();
  });

  test("follow the pilot's own route, and leave everything else unchanged", () => {
    const turned = compose({ preferences: prefer({ start: "right" }) });
    expect(turned.stations.map((s) => s.id)).toEqual(["papers", "right", "left", "engine"]);
    expect(turned.preferences?.start).toBe("right");
  });
});

describe("the order of one station", () => {
  test("changes only where a rule requires it, and not at all for circular rules", () => {
    const items = ["a", "b", "c", "d"].map((id) => item(id, "left"));
    const rule = (first: string, ...waits: string[]) => ({
      id: first,
      first,
      waits: { items: waits },
      why: "why",
    });
    const ids = (...rules: ReturnType<typeof rule>[]) => orderByRules(items, rules).map((i) => i.id);
    expect(ids()).toEqual(["a", "b", "c", "d"]);
    expect(ids(rule("c", "a"))).toEqual(["c", "a", "b", "d"]);
    expect(ids(rule("d", "b"), rule("c", "d"))).toEqual(["a", "c", "d", "b"]);
    expect(ids(rule("a", "b"), rule("b", "a"))).toEqual(["a", "b", "c", "d"]);
  });
});

describe("model years", () => {
  const variant = (from: number | undefined, to: number | undefined, minimumQt: number) => ({
    id: `v${minimumQt}`,
    name: `${minimumQt} quarts`,
    what: "another sump",
    years: { ...(from && { from }), ...(to && { to }) },
    oil: { minimumQt, maximumQt: 8, containerQt: 1, source },
  });
  const two = { ...type, variants: [variant(undefined, 1985, 4), variant(1986, undefined, 5)] };

  test("change the limits of the type, and the checklist says so", () => {
    expect(applyVariant(two, 1985).type.oil?.minimumQt).toBe(4);
    expect(applyVariant(two, 1986).type.oil?.minimumQt).toBe(5);
    const list = compose({ type: two, aircraft: { ...aircraft, year: 1970 } });
    expect(list.type.oil?.minimumQt).toBe(4);
    expect(list.variant).toEqual({ name: "4 quarts", what: "another sump" });
  });

  test("without a description leave the type unchanged", () => {
    const [old] = two.variants;
    expect(applyVariant({ ...type, variants: old ? [old] : [] }, 1999)).toEqual({
      type: { ...type, variants: [old] },
    });
    expect(compose({}).variant).toBeUndefined();
  });
});

describe("value checks", () => {
  const provable = Array.from({ length: 8 }, (_, i) =>
    item(`p${i}`, "left", { proof: { ask: `What is on plate ${i}?`, fact: `plate.${i}` } }),
  );
  const facts = Object.fromEntries(provable.map((_, i) => [`plate.${i}`, `1${i}/2027`]));
  const preflight = (seed: string | undefined, own: Record<string, string> = facts) =>
    compose({
      type: { ...type, items: provable },
      aircraft: { ...aircraft, ownItems: [], facts: own },
      ...(seed !== undefined && { seed }),
    });
  const asked = (seed: string) => preflight(seed).items.flatMap((i) => (i.kind === "confirm" ? [i.id] : []));

  test("are asked at three items, the same for the same preflight, and announced", () => {
    expect(asked("walk")).toHaveLength(3);
    expect(asked("walk")).toEqual(asked("walk"));
    expect(preflight("walk").differences.filter((d) => d.why === "value to be read out")).toHaveLength(3);
    expect(preflight("walk").items.find((i) => i.kind === "confirm")?.confirm?.ask).toMatch(
      /What is on plate/,
    );
  });

  test("rotate through all items, so that they cannot be foreseen", () => {
    const times = new Map<string, number>();
    for (let n = 0; n < 400; n++)
      for (const id of asked(`walk ${n}`)) times.set(id, (times.get(id) ?? 0) + 1);
    // 400 preflights × 3 of 8: 150 times each on average; within 30 (more than three standard deviations).
    for (const { id } of provable) expect(Math.abs((times.get(id) ?? 0) - 150)).toBeLessThan(35);
  });

  test("are not asked for facts not on file, or without a preflight", () => {
    expect(preflight(undefined).items.some((i) => i.kind === "confirm")).toBe(false);
    expect(preflight("walk", {}).items.some((i) => i.kind === "confirm")).toBe(false);
  });

  test("offer the fact among similar ones, at a different position each preflight", () => {
    const places = new Set(
      Array.from({ length: 40 }, (_, i) => confirmOptions("06/2028", `w${i}`).indexOf("06/2028")),
    );
    expect([...places].sort()).toEqual([0, 1, 2, 3]);
  });

  test("spread probabilities evenly over 32 bits", () => {
    const low = Array.from({ length: 2000 }, (_, i) => hashString(`walk-${i}`) / 2 ** 32);
    expect(low.reduce((sum, x) => sum + x, 0) / 2000).toBeCloseTo(0.5, 1);
  });
});

describe("a second person", () => {
  const list = compose({
    type: { ...type, items: [item("held", "left", { second: true }), item("alone", "left")] },
    aircraft: { ...aircraft, ownItems: [] },
  });
  const [held, alone] = list.items;

  test("is needed where one moves and another holds", () => {
    if (!held || !alone) throw new Error("no items");
    expect(blockedBy(list, fold(), held)).toMatchObject({ kind: "second person", open: [] });
    expect(blockedBy(list, fold(), alone)).toBeUndefined();
    const here = event("crew.joined", { crewId: "kofi" });
    expect(blockedBy(list, fold(here), held)).toBeUndefined();
    expect(blockedBy(list, fold(here, event("crew.left", { crewId: "kofi" })), held)).toBeDefined();
  });

  test("is logged with their answers", () => {
    const state = fold(
      event("crew.joined", { crewId: "kofi" }),
      event("item.answered", { itemId: "held", outcome: "checked", byCrewId: "kofi" }),
    );
    expect(state.joined).toEqual(["kofi"]);
    expect(state.answers.held?.byCrewId).toBe("kofi");
  });
});

describe("flow, then check", () => {
  const list = compose({ preferences: prefer({ method: "flow, then check" }) });
  const flowing = (...events: PreflightEvent[]) => nextFlowStation(list, fold(...events))?.id;
  const cockpit = [answered("docs"), answered("lock")];
  const flow = (stationId: string) => event("station.flowed", { stationId });

  test("asks for the stations from memory, one by one, then reads them all", () => {
    expect(flowing()).toBeUndefined();
    expect(flowing(...cockpit)).toBe("left");
    expect(flowing(...cockpit, flow("left"))).toBe("right");
    expect(flowing(...cockpit, flow("left"), flow("right"))).toBeUndefined();
    expect(currentItem(list, fold(...cockpit, flow("left"), flow("right")))?.id).toBe("left.skin");
  });

  test("lets a station be checked at once, and undone", () => {
    expect(flowing(...cockpit, event("item.visited", { itemId: "left.skin" }))).toBeUndefined();
    const slip = flow("left");
    expect(flowing(...cockpit, slip, undo(slip))).toBe("left");
    expect(fold(...cockpit, slip).undoable.at(-1)?.eventId).toBe(slip.id);
  });

  test("keeps what the check caught", () => {
    const state = fold(
      ...cockpit,
      flow("left"),
      event("item.answered", { itemId: "left.skin", outcome: "checked", caught: true }),
    );
    expect(state.answers["left.skin"]?.caught).toBe(true);
    expect(state.flowed.left?.seconds).toBeGreaterThan(0);
  });

  test("stops at a station with an item that has to wait, until it is postponed", () => {
    const two = compose({
      preferences: prefer({ method: "flow, then check" }),
      type: { ...type, items: [...type.items, item("held", "left", { second: true })] },
    });
    const at = fold(...cockpit);
    expect(stationBlockedBy(two, at, "left")).toMatchObject({
      item: { id: "held" },
      block: { kind: "second person" },
    });
    expect(stationBlockedBy(two, at, "right")).toBeUndefined();
    const later = fold(...cockpit, event("item.postponed", { itemId: "held" }));
    expect(stationBlockedBy(two, later, "left")).toBeUndefined();
    expect(nextFlowStation(two, later)?.id).toBe("left");
  });

  test("is not used in read-and-do", () => {
    expect(nextFlowStation(compose({ preferences: prefer() }), fold(...cockpit))).toBeUndefined();
  });
});

describe("after an interruption", () => {
  const list = composeList(LIST_INPUT);
  const lap = [answered("left.skin"), answered("left.hinges"), answered("right.skin")];
  const state = fold(answered("docs"), answered("lock"), ...lap);
  const here = currentItem(list, state);
  const back = (way: ReturnWay) => {
    if (!here) throw new Error("nothing to do");
    const { itemId, again } = resumePoint(list, state, here, way);
    return [itemId, again];
  };

  test("the preflight resumes as far back as the rule says", () => {
    expect(here?.id).toBe("own.rail");
    expect(back("where I was")).toEqual(["own.rail", 0]);
    expect(back("start of the station")).toEqual(["right.skin", 1]);
    expect(back("some items back")).toEqual(["left.skin", ITEMS_BACK]);
    expect(back("start of the step")).toEqual(["left.skin", 3]);
  });

  test("findings stay", () => {
    const found = event("item.answered", { itemId: "right.skin", outcome: "found" });
    const seen = fold(
      answered("docs"),
      answered("lock"),
      answered("left.skin"),
      answered("left.hinges"),
      found,
    );
    if (!here) throw new Error("nothing to do");
    expect(resumePoint(list, seen, here, "start of the station")).toEqual({
      itemId: "own.rail",
      undo: [],
      again: 0,
    });
  });

  test("nothing after the resume point is lost, for any answers and any rule", () => {
    fc.assert(
      fc.property(
        fc.subarray(list.items.map((i) => i.id)),
        fc.constantFrom<ReturnWay>(
          "where I was",
          "some items back",
          "start of the station",
          "start of the step",
        ),
        (ids, way) => {
          const events = ids.map((id) => answered(id));
          const before = fold(...events);
          const at = currentItem(list, before);
          if (!at) return;
          const target = resumePoint(list, before, at, way);
          const after = fold(
            ...events,
            ...target.undo.map((eventId) => event("item.undone", { eventId })),
            event("item.visited", { itemId: target.itemId }),
          );
          expect(currentItem(list, after)?.id).toBe(target.itemId);
          expect(Object.keys(after.answers)).toHaveLength(ids.length - target.again);
        },
      ),
    );
  });
});

describe("an item added for the aircraft", () => {
  test("stays in the file when retired and is no longer asked", () => {
    const retired = {
      ...aircraft,
      ownItems: aircraft.ownItems.map((i) => ({ ...i, retired: "2026-04-01" })),
    };
    expect(compose({ aircraft: retired }).items.map((i) => i.id)).not.toContain("own.rail");
    expect(compose({}).items.map((i) => i.id)).toContain("own.rail");
  });
});
