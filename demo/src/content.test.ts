import {
  type Aircraft,
  type AircraftType,
  CONDITIONS,
  type Condition,
  type Item,
} from "@cravix/core/aircraft/aircraft-type";
import { defaultPreferences, type Preferences } from "@cravix/core/aircraft/preferences";
import { composeList } from "@cravix/core/checklist/list/compose-list";
import { NO_TURNAROUND, offeredConditions } from "@cravix/core/checklist/list/turnaround-list";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";
import { FUEL_GRADES } from "@cravix/core/fuel/grade/fuel-grades";
import { neverGroupedReason } from "@cravix/core/groups/never-grouped";
import { blockedBy } from "@cravix/core/ledger/blocked-by";
import { stationSheets } from "@cravix/core/parts/station-sheets";
import { shippedLibrary } from "@cravix/library";
import { airfield, compositions, group, rules } from "./index";

/** Errors once found in one of the six checklists must not return (common practice unless a source is named). */

/** All conditions possible at once on this type; a turnaround excludes many. */
const everything = (type: Pick<AircraftType, "notOffered" | "items">) =>
  offeredConditions(type).filter((condition) => condition !== "turnaround");

const model = (type: AircraftType, aircraft: Aircraft) => [
  aircraft.year,
  ...(type.variants ?? []).flatMap(({ years }) => [years.from, years.to].filter((y) => y !== undefined)),
];
const compose = (
  { type, aircraft }: (typeof group)[number],
  conditions: readonly Condition[],
  more: { year?: number; preferences?: Partial<Preferences> } = {},
) =>
  composeList({
    type,
    aircraft: { ...aircraft, year: more.year ?? aircraft.year },
    conditions: [...conditions],
    openDiscrepancies: [],
    airfield,
    rules,
    preferences: { ...defaultPreferences(type.recommended), ...more.preferences },
  });
const started = (list: ReturnType<typeof compose>): PreflightEvent[] => [
  {
    id: "0",
    type: "preflight.started",
    streamId: "p",
    deviceId: "d",
    crewId: "ines",
    at: "2026-05-01T08:00:00.000Z",
    data: { registration: list.registration, listHash: "sha256:0", conditions: [] },
  },
];
const checked = (ids: readonly string[]): PreflightEvent[] =>
  ids.map((itemId, i) => ({
    id: String(i + 1).padStart(4, "0"),
    type: "item.answered",
    streamId: "p",
    deviceId: "d",
    crewId: "ines",
    at: "2026-05-01T08:00:00.000Z",
    data: { itemId, outcome: "checked" },
  }));
/** What blocks an item when everything except these is done. */
const blockedWithout = (list: ReturnType<typeof compose>, id: string, missing: readonly string[]) => {
  const item = list.items.find((i) => i.id === id) as Item;
  const others = list.items.map((i) => i.id).filter((other) => other !== id && !missing.includes(other));
  return blockedBy(list, foldPreflight("p", [...started(list), ...checked(others)]), item)?.open.map(
    ({ itemId }) => itemId,
  );
};
const of = (registration: string) => {
  const found = group.find(({ aircraft }) => aircraft.registration === registration);
  if (!found) throw new Error(registration);
  return found;
};
const itemOf = (registration: string, id: string) => of(registration).type.items.find((i) => i.id === id);
const position = (items: readonly Item[], id: string) => items.findIndex((item) => item.id === id);

describe.each(group.map((one) => [one.aircraft.registration, one] as const))("%s", (registration, one) => {
  const { type, aircraft } = one;
  const all = compose(one, everything(type));

  test("has its pitot cover off before the heat is switched on, whatever order the pilot preflights in", () => {
    const on = type.items.filter((item) => item.loads?.on?.includes("pitot-heat"));
    const lap = type.stations.filter((s) => s.phase === "lap").map((s) => s.id);
    for (const item of on) {
      for (const order of [lap, [...lap].reverse()]) {
        const { items } = compose(one, everything(type), { preferences: { order } });
        expect(position(items, "left-leading.pitot-cover")).toBeGreaterThanOrEqual(0);
        expect(position(items, "left-leading.pitot-cover")).toBeLessThan(position(items, item.id));
      }
      expect(blockedWithout(all, item.id, ["left-leading.pitot-cover"])).toEqual([
        "left-leading.pitot-cover",
      ]);
    }
  });

  test("moves the controls only after the lock is out", () => {
    const lock = position(all.items, "cockpit.lock");
    if (lock >= 0) expect(position(all.items, "papers.worked-on")).toBeGreaterThan(lock);
  });

  test("lets no hand into the propeller's arc before the ignition was seen off", () => {
    const inside = all.items.filter((item) => item.touches?.includes("propeller"));
    expect(inside.length > 0).toBe(type.runUp !== undefined);
    for (const item of inside)
      expect([item.id, blockedWithout(all, item.id, ["cockpit.ignition"])]).toEqual([
        item.id,
        ["cockpit.ignition"],
      ]);
    // Things in front of the cylinders or at the hub are inside.
    const named =
      /plugs: out|blanks: out|nests|behind the baffles|behind the cylinders|belt: tension|push-rod/i;
    for (const item of type.items)
      if (
        type.runUp &&
        named.test(item.title) &&
        type.stations.find((s) => s.id === item.station)?.role !== "tail"
      )
        expect([item.id, item.touches]).toEqual([item.id, ["propeller"]]);
    expect(type.items.filter(({ title }) => /rock.*spinner|by the spinner/i.test(title))).toEqual([]);
  });

  test("stops for what stops a flight", () => {
    for (const id of ["run-up.brake", "magneto.both", "board.belts", "board.door", "take-off.doors"])
      for (const item of type.items.filter((i) => i.id === id)) expect([id, item.miss]).toEqual([id, "stop"]);
    for (const item of type.items.filter(({ title }) => /creep mark|strut showing|squat switch/i.test(title)))
      expect([item.id, item.miss]).toEqual([item.id, "ask"]);
    // Position lights are required at night (CS-SERA 3215, from memory), and a note by day.
    const lights = (conditions: Condition[]) =>
      compose(one, conditions)
        .items.filter(({ id }) => /^quick\.(left-tip|right-tip|tail)$/.test(id))
        .map(({ miss }) => miss);
    expect(lights(["night"]).every((miss) => miss === "stop")).toBe(true);
    if (offeredConditions(type).includes("first of the day"))
      expect(lights(["first of the day"]).every((miss) => miss === "note")).toBe(true);
    expect(lights(["night"]).length > 0).toBe(type.electrical !== undefined);
  });

  test("says a figure as it judges it, and reads no gauge past its end", () => {
    for (const year of model(type, aircraft))
      for (const item of compose(one, everything(type), { year }).items) {
        if (item.id.startsWith("cockpit.volts")) expect(item.good).toContain(`${item.limit?.min} V or more`);
        if (item.reading?.unit === "rpm" && type.magnetos)
          expect([item.id, item.reading.plausible?.max]).toEqual([item.id, type.magnetos.tachometerMaxRpm]);
      }
    // A gauge reads zero when only unusable fuel is left (CS/FAR 23.1337 (b), from memory).
    for (const { fuel } of [type, ...(type.variants ?? [])])
      for (const { gauge, unusableL } of fuel?.tanks ?? [])
        if (gauge) expect(gauge.points[0]).toEqual({ at: 0, litres: unusableL });
  });

  test("asks of a sample the colour of what is in the tank", () => {
    const colours = new Set(
      (type.fuel?.grades ?? []).flatMap((id) => FUEL_GRADES.find((grade) => grade.id === id)?.colours ?? []),
    );
    if (colours.size < 2) return;
    for (const item of type.items.filter(({ kind }) => kind === "sample"))
      expect(`${item.good} ${item.done}`).not.toMatch(/blue|green|red\b|straw/i);
  });

  test("has no contradiction in any model year on any two kinds of day at once", () => {
    const offered = offeredConditions(type);
    const pairs = offered.flatMap((a, i) =>
      offered.slice(i).map((b): Condition[] => (a === b ? [a] : [a, b])),
    );
    const against = (pair: Condition[]) =>
      pair.includes("turnaround") && pair.some((condition) => NO_TURNAROUND.includes(condition));
    for (const year of model(type, aircraft))
      for (const pair of pairs.filter((one) => !against(one))) {
        const { items, lineUp = [], after = [], type: today } = compose(one, pair, { year });
        const all = [...items, ...lineUp, ...after];
        const where = [registration, year, ...pair];
        // No duplicates, by id or title.
        expect([...where, all.map(({ id }) => id).filter((id, i, ids) => ids.indexOf(id) !== i)]).toEqual([
          ...where,
          [],
        ]);
        const titles = items.map(({ title }) => title);
        expect([...where, titles.filter((title, i) => titles.indexOf(title) !== i)]).toEqual([...where, []]);
        // Waiting items come after what they wait for, and whatever is switched on or moved is put back before boarding.
        for (const rule of today.rules ?? []) {
          const first = position(items, rule.first);
          if (first < 0) continue;
          const early = items
            .slice(0, first)
            .filter((i) => rule.waits.items?.includes(i.id) || i.touches?.includes(rule.waits.touches ?? ""));
          expect([...where, rule.id, early.map(({ id }) => id)]).toEqual([...where, rule.id, []]);
        }
        for (const { id, ledger } of items)
          if (ledger && "back" in ledger)
            expect([
              ...where,
              id,
              items.some((i) => i.ledger && "out" in i.ledger && i.ledger.out === ledger.back),
            ]).toEqual([...where, id, true]);
        // Nothing about equipment this type or year lacks.
        const words = items.map((i) => `${i.title} ${i.good}`).join("; ");
        if (!type.engines)
          expect([...where, /each engine|both engines/i.test(words)]).toEqual([...where, false]);
        if (registration === "QX-TAR") {
          expect([...where, /red cross|standby/i.test(words)]).toEqual([
            ...where,
            year >= 2005 && !pair.includes("turnaround"),
          ]);
          expect([...where, /suction/i.test(words)]).toEqual([
            ...where,
            year < 2005 && !pair.includes("turnaround"),
          ]);
        }
        if (registration === "QX-LUM")
          expect([...where, /pitot heat|mixture/i.test(words)]).toEqual([...where, false]);
        if (registration === "QX-ANS")
          expect([...where, /magneto|\boil\b|\bfuel\b|propeller/i.test(words)]).toEqual([...where, false]);
      }
  });

  test("looks at a light after it was switched on, and before it is off again, whatever the shortest way round is", () => {
    for (const condition of offeredConditions(type)) {
      const { items } = compose(one, [condition]);
      const on = items.findIndex(
        (i) => i.loads?.on?.includes("position") || i.loads?.on?.includes("strobes"),
      );
      const off = items.findIndex(
        (i, k) => k > on && i.loads?.off?.some((load) => load === "position" || load === "strobes"),
      );
      for (const [k, { id, spot }] of items.entries())
        if (spot && id.startsWith("quick."))
          expect([condition, id, on >= 0 && on < k && k < off]).toEqual([condition, id, true]);
      // Items checked from outside with power on are consecutive, so that the shortest route is walked once.
      const spots = items.flatMap(({ spot }, k) => (spot ? [k] : []));
      const first = spots[0] ?? 0;
      expect([condition, spots.map((k) => k - first)]).toEqual([condition, spots.map((_, n) => n)]);
    }
  });

  test("gives each condition something to ask, or says why it is not offered", () => {
    const quiet = new Set(compose(one, []).items.map(({ id }) => id));
    for (const condition of CONDITIONS) {
      const not = type.notOffered?.find((no) => no.condition === condition);
      if (not) expect(not.why.length).toBeGreaterThan(10);
      else if (condition === "turnaround")
        expect(compose(one, [condition]).items.length).toBeLessThan(quiet.size / 2);
      else
        expect([condition, compose(one, [condition]).items.some(({ id }) => !quiet.has(id))]).toEqual([
          condition,
          true,
        ]);
    }
  });

  test("asks alone what has killed, in words that say so (common practice)", () => {
    const named =
      /^((left|right) )?(fuel )?caps?\b|brakes?: (dry|bites)|brakes set|parking brake|control lock|pitot: |ignition.*off|: dip it|seats: adjusted|trim set for|magneto (left|right)|control check|positive control|lock flag|any frost/i;
    const after = new Set(type.stations.filter(({ phase }) => phase === "after").map(({ id }) => id));
    for (const item of type.items)
      if (!after.has(item.station) && named.test(item.title) && item.kind !== "count")
        expect([item.id, neverGroupedReason(item) !== undefined]).toEqual([item.id, true]);
    for (const { items } of type.groups ?? [])
      for (const id of items)
        expect([id, neverGroupedReason(itemOf(registration, id) as Item)]).toEqual([id, undefined]);
  });

  test("can be walked in the order of its list on each kind of day, in each model year", () => {
    for (const year of model(type, aircraft))
      for (const condition of offeredConditions(type)) {
        const list = compose(one, [condition], { year });
        const done: string[] = [];
        const joined = {
          ...(started(list)[0] as PreflightEvent),
          id: "00",
          type: "crew.joined",
          data: { crewId: "kofi" },
        } as PreflightEvent;
        for (const item of list.items) {
          // Only if a rule or gate could apply.
          if (item.touches || list.type.rules?.some((r) => r.waits.items?.includes(item.id))) {
            const state = foldPreflight("p", [...started(list), joined, ...checked(done)]);
            expect([registration, year, condition, item.id, blockedBy(list, state, item)?.open]).toEqual([
              registration,
              year,
              condition,
              item.id,
              undefined,
            ]);
          }
          done.push(item.id);
        }
      }
  });

  test("is logged when it lands, by one name", () => {
    expect(type.items.filter(({ reading }) => reading?.key === "hours.after").map(({ id }) => id)).toEqual([
      "after.hours",
    ]);
  });
});

test("the ignition ends on both, and says which way from the side that was checked last", () => {
  for (const { type } of group) {
    const end = type.items.find((i) => i.id === "magneto.end");
    if (!end) continue;
    expect(type.runUp?.firstSide).toBe("right");
    expect(end.good).not.toMatch(/two clicks/);
    if (!/switches/.test(end.good + end.title)) expect(end.good).toMatch(/check by eye/);
  }
});

test("no engine takes off on another's tank, and none on a tip tank", () => {
  const twin = compose(of("QX-DOV"), []);
  expect(blockedWithout(twin, "take-off.fuel", ["run-up.cross-feed-off"])).toEqual(["run-up.cross-feed-off"]);
  for (const side of ["left", "right"])
    expect(itemOf("QX-DOV", `run-up.cross-feed.${side}`)).toMatchObject({ kind: "time", seconds: 60 });
  expect(itemOf("QX-DOV", "take-off.fuel")?.good).toContain("cross-feed OFF");
  expect(itemOf("QX-HLD", "take-off.fuel")?.good).toContain("never a tip tank");
});

test("the twin's source buttons are in while their pumps run", () => {
  for (const side of ["left", "right"])
    expect(itemOf("QX-DOV", `${side}.suction`)).toMatchObject({ done: "In", miss: "ask" });
});

test("what is turned by hand waits for ignition, throttle, and what holds the aircraft", () => {
  const radial = compose(of("QX-COR"), []);
  for (const first of ["cockpit.ignition", "cockpit.mixture", "cockpit.brake"])
    expect(blockedWithout(radial, "propeller.pull-through", [first])).toEqual([first]);
  const light = compose(of("QX-LUM"), []);
  for (const item of ["oil.burp", "propeller.gearbox"])
    for (const first of ["cockpit.ignition", "cockpit.throttle", "cockpit.brake"])
      expect(blockedWithout(light, item, [first])).toEqual([first]);
  expect(itemOf("QX-LUM", "cockpit.throttle")?.good).toMatch(/idle stop, choke off/);
});

test("the trainer's flaps are down for the look only", () => {
  const { items } = compose(of("QX-TAR"), []);
  const up = items.find((item) => item.ledger && "back" in item.ledger && item.ledger.back === "flaps");
  expect(position(items, up?.id ?? "")).toBeLessThan(position(items, "run-up.place"));
});

test("what must be off before the propeller turns is counted off: tow bar, chocks, the parachute's pin", () => {
  for (const [registration, thing] of [
    ["QX-TAR", "tow bar"],
    ["QX-TAR", "chocks"],
    ["QX-HLD", "tow bar"],
    ["QX-HLD", "chocks"],
    ["QX-DOV", "tow bar"],
    ["QX-DOV", "chocks"],
    ["QX-LUM", "parachute pin"],
  ] as const)
    expect([
      registration,
      thing,
      of(registration).type.items.some((i) => i.ledger && "out" in i.ledger && i.ledger.out === thing),
    ]).toEqual([registration, thing, true]);
  expect(compose(of("QX-LUM"), []).after?.map(({ title }) => title)).toContain("Parachute pin in");
});

test("the glider: the link is read before the belts, the wheels for the ground are asked again, pins before anything is held", () => {
  const glider = compose(of("QX-ANS"), ["just rigged"]);
  expect(position(glider.items, "run-up.rope")).toBeLessThan(position(glider.items, "board.belts"));
  expect(position(glider.items, "launch.dolly")).toBeLessThan(position(glider.items, "run-up.release"));
  const withTwo = (id: string) => blockedWithout(glider, id, ["cockpit.pins"]);
  for (const id of ["left-spoiler.held", "right-spoiler.held", "left-aileron.held", "tail.rudder-held"])
    expect(withTwo(id)).toEqual(["cockpit.pins"]);
  expect(`${itemOf("QX-ANS", "approach.ground")?.title}`).not.toMatch(/drip/);
});

test("a composite glider and fabric wings are not looked over for rivets", () => {
  const words = (registration: string) => JSON.stringify(of(registration).type.items);
  expect(words("QX-ANS")).not.toMatch(/rivet|fabric/);
  expect(words("QX-COR")).not.toMatch(/rivet/);
  // Problems are "logged", not "written up".
  for (const { type } of group) expect(JSON.stringify(type)).not.toMatch(/writ(e|ten) (it )?up/);
});

test.each(
  group.map(({ type }) => [type.name, type] as const),
)("%s asks nothing that has no place in the usual order of its station", (_name, type) => {
  const composition = compositions.find(({ id }) => id === type.id);
  const sheets = stationSheets(shippedLibrary().stations);
  const renamed = new Set(
    composition?.parts.flatMap(({ changes = {} }) => Object.values(changes).flatMap(({ id }) => id ?? [])),
  );
  const strange = type.items.filter(
    ({ id, station }) => !renamed.has(id) && !sheets.get(station)?.order.includes(id),
  );
  expect(strange.map(({ id }) => id)).toEqual([]);
});
