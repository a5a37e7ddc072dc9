import { readFileSync } from "node:fs";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import { checkEvent, contentHash } from "@cravix/contract";
import { FILE_FORMATS, jsonSchema, readFile, readFileText, readList } from "@cravix/contract/files";
import type { AircraftType, Condition } from "@cravix/core/aircraft/aircraft-type";
import { defaultPreferences } from "@cravix/core/aircraft/preferences";
import { composeList } from "@cravix/core/checklist/list/compose-list";
import { itemsOf } from "@cravix/core/checklist/list/list-places";
import { offeredConditions } from "@cravix/core/checklist/list/turnaround-list";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { foldDiscrepancies } from "@cravix/core/checklist/stream/fold-discrepancies";
import { foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";
import type { Source } from "@cravix/core/judgement/judgement";
import { blockedBy } from "@cravix/core/ledger/blocked-by";
import { foldLedger, openEntries } from "@cravix/core/ledger/fold-ledger";
import { topicOf } from "@cravix/core/readings/reading-keys";
import { bestOrder, routeLengthM } from "@cravix/core/route/best-order";
import { routeProblem } from "@cravix/core/route/route-problem";
import { isInside, walkingDistances } from "@cravix/core/route/walking-distance";
import { judgeBaseline } from "@cravix/core/run-up/record/baseline";
import { pastRunUps } from "@cravix/core/run-up/record/run-up-memory";
import { convert } from "@cravix/core/units/convert";
import { judgePreflight } from "@cravix/core/verdict/judge-preflight";
import Ajv2020 from "ajv/dist/2020";
import { airfield, group, qxTar, rules, scenarioFiles, tarrow4, trainerHistory } from "./index";

const NOW = new Date("2026-05-01T12:00:00.000Z");
/** All conditions possible at once on this type; a turnaround excludes many. */
const everything = (type: Pick<AircraftType, "notOffered" | "items">) =>
  offeredConditions(type).filter((condition) => condition !== "turnaround");

const list = composeList({
  type: tarrow4,
  aircraft: qxTar,
  conditions: [],
  openDiscrepancies: [],
  airfield,
  rules,
});

test.each(
  scenarioFiles.map((file) => [JSON.stringify(file).slice(0, 90), file] as const),
)("%s is a valid file", (_name, file) => {
  expect(readFile(JSON.parse(JSON.stringify(file)))).toEqual({ file: JSON.parse(JSON.stringify(file)) });
});

test("lists that were composed and pinned before words were changed are lists today", () => {
  const file = join(__dirname, "../../core/src/testing/recorded-preflights.json.gz");
  const { lists } = JSON.parse(gunzipSync(readFileSync(file)).toString()) as {
    lists: Record<string, object>;
  };
  expect(Object.keys(lists).length).toBeGreaterThan(5);
  for (const [hash, recorded] of Object.entries(lists)) {
    expect(contentHash(recorded)).toBe(hash);
    // The memory of the demo differs in form from a device's.
    const { memory: _memory, ...rest } = recorded as { memory?: unknown };
    expect(readList(rest)).toMatchObject({ list: { format: "cravix.list/2" } });
  }
});

test.each(
  group.map(({ type }) => [type.name, type] as const),
)("%s says of every place what it is for, of every item which part and what it is about", (_name, type) => {
  expect(type.stations.filter(({ role }) => !role)).toEqual([]);
  expect(type.items.filter(({ part, topic }) => !part || !topic)).toEqual([]);
  // An item's topic matches its reading's.
  for (const { reading, topic, id } of type.items)
    if (topicOf(reading?.key)) expect([id, topic]).toEqual([id, topicOf(reading?.key)]);
  expect(type.items.filter(({ drill }) => drill)).toHaveLength(1);
  expect(type.items.filter(({ choicesFrom }) => choicesFrom === "runways")).toHaveLength(1);
});

describe("QX-TAR", () => {
  test("has a preflight of at least ten stations, thirteen drains, two tanks", () => {
    expect(itemsOf(list, "lap").length).toBeGreaterThanOrEqual(45);
    expect(list.stations.filter((s) => s.phase === "lap" && s.x !== undefined).length).toBeGreaterThanOrEqual(
      10,
    );
    expect(list.items.filter((item) => item.kind === "sample")).toHaveLength(13);
    expect(tarrow4.fuel?.tanks.map((tank) => tank.calibration?.points.length)).toEqual([8, 8]);
  });

  test("says of every limit where it is from, and that it is an example", () => {
    const sources: Source[] = [];
    JSON.stringify(tarrow4, (key, value) => {
      if (key === "source") sources.push(value);
      return value;
    });
    expect(sources.length).toBeGreaterThan(12);
    expect(sources.every((source) => source.example && source.text.length > 5)).toBe(true);
  });

  test("holds in its tanks what its calibrations say, to the gallon", () => {
    for (const tank of tarrow4.fuel?.tanks ?? [])
      expect(tank.calibration?.points.at(-1)?.litres).toBeCloseTo(convert(25.9, "US gal", "L"), 0);
  });
});

describe("its weeks of history", () => {
  const history = trainerHistory(NOW);
  const preflights = [...new Set(history.events.map((e) => e.streamId))];

  test("are the same for the same day, and all in the past", () => {
    expect(trainerHistory(NOW).events).toEqual(history.events);
    expect(history.events.every((e) => "event" in checkEvent(e, NOW))).toBe(true);
    expect(new Set(history.events.map((e) => e.id)).size).toBe(history.events.length);
  });

  test("are whole preflights, each against its own pinned list", () => {
    expect(preflights.length).toBeGreaterThanOrEqual(12);
    for (const id of preflights) {
      const state = foldPreflight(id, history.events);
      const pinned = history.lists.get(state.listHash ?? "");
      expect(contentHash(pinned)).toBe(state.listHash);
      expect(pinned?.items.filter((item) => !state.answers[item.id])).toEqual([]);
      expect(state.signed?.decision).toBe("fly");
      const worst =
        pinned &&
        judgePreflight(pinned, state).judgements.filter((j) => ["stop", "ask", "unjudged"].includes(j.grade));
      // What the pilot did not know of the flight, he went without knowingly.
      const waived = Object.keys(state.waived ?? {}).map((subject) => `unknown.${subject}`);
      expect(worst?.filter(({ cause = "" }) => !waived.includes(cause))).toEqual([]);
    }
  });

  test("leave one discrepancy open, measured again by everyone since", () => {
    const open = foldDiscrepancies(history.events).filter((d) => !d.closed);
    expect(open).toHaveLength(1);
    expect(open[0]).toMatchObject({ stationId: "right-gear", measure: "4 mm" });
    expect(open[0]?.observations.length).toBeGreaterThanOrEqual(3);
  });

  test("let one magneto drop more from flight to flight, inside its limit: only its own baseline tells", () => {
    const readings = [...preflights].sort().flatMap((streamId) =>
      Object.entries(foldPreflight(streamId, history.events).readings).map(([key, { value, at }]) => ({
        preflightId: streamId,
        key,
        value,
        at,
      })),
    );
    const runUps = pastRunUps(readings, undefined);
    expect(runUps).toHaveLength(16);
    const { leftDrop = 0, rightDrop = 0, ...last } = runUps.at(-1) ?? { baseRpm: 0 };
    const before = runUps.slice(0, -1);
    expect(leftDrop).toBeLessThanOrEqual(tarrow4.magnetos?.maxDropRpm ?? 0);
    expect(
      judgeBaseline("leftDrop", { value: leftDrop, baseRpm: last.baseRpm }, before, 10)?.sentence,
    ).toMatch(/increasing/i);
    expect(judgeBaseline("rightDrop", { value: rightDrop, baseRpm: last.baseRpm }, before, 10)?.grade).toBe(
      "within limits",
    );
  });

  test("use more oil an hour from week to week", () => {
    const readings = preflights.map((id) => foldPreflight(id, history.events).readings);
    const use = readings.slice(1).flatMap((now, i) => {
      const before = readings[i];
      const hours = (now.hours?.value ?? 0) - (before?.hours?.value ?? 0);
      const used = (before?.["oil.level"]?.value ?? 0) - (now["oil.level"]?.value ?? 0);
      // A quart was added in between, so this is not consumption.
      return used > 0 ? [used / hours] : [];
    });
    const mean = (list: number[]) => list.reduce((sum, x) => sum + x, 0) / list.length;
    expect(mean(use.slice(-4))).toBeGreaterThan(1.4 * mean(use.slice(0, 4)));
  });
});

describe("the six aircraft of the group", () => {
  const least: Record<string, number> = {
    "QX-TAR": 95,
    "QX-HLD": 110,
    "QX-LUM": 80,
    "QX-DOV": 110,
    "QX-ANS": 80,
    "QX-COR": 100,
  };
  const ajv = new Ajv2020({ allErrors: true });
  const compiled = new Map<string, ReturnType<typeof ajv.compile>>();
  const published = (format: string) => {
    const { schema, what } = FILE_FORMATS[format] ?? {};
    if (!schema || !what) throw new Error(format);
    const { $id: _id, ...rest } = jsonSchema(schema, format, what);
    const check = compiled.get(format) ?? ajv.compile(rest);
    compiled.set(format, check);
    return check;
  };

  test("and all other files hold against the published JSON Schema, by a validator that knows nothing of us", () => {
    for (const file of scenarioFiles) {
      const check = published(file.format);
      expect([check(JSON.parse(JSON.stringify(file))), check.errors]).toEqual([true, null]);
      expect(readFileText(JSON.stringify(file))).toHaveProperty("file");
    }
  });

  test("are rejected by both when a field is missing, unknown or of another kind", () => {
    const check = published("cravix.aircraft-type/2");
    for (const { type } of group) {
      const spoil: ((file: Record<string, unknown> & { items: Record<string, unknown>[] }) => void)[] = [
        (file) => delete file.name,
        (file) => Object.assign(file, { colour: "red" }),
        (file) => Object.assign(file.items[0] ?? {}, { kind: "guess" }),
        (file) => delete file.items[3]?.why,
        (file) => Object.assign(file.items[5] ?? {}, { ledger: { out: "cover" } }),
        (file) => Object.assign(file.items[7] ?? {}, { when: ["full moon"] }),
        (file) => Object.assign(file, { stations: "none" }),
      ];
      for (const change of spoil) {
        const file = JSON.parse(JSON.stringify(type));
        change(file);
        expect(check(file)).toBe(false);
        expect(readFileText(JSON.stringify(file))).toHaveProperty("faults");
      }
    }
  });

  describe.each(
    group.map(({ aircraft, type }) => [aircraft.registration, aircraft, type] as const),
  )("%s", (registration, aircraft, type) => {
    const compose = (conditions: readonly Condition[], more: object = {}) =>
      composeList({
        type,
        aircraft,
        conditions: [...conditions],
        openDiscrepancies: [],
        airfield,
        rules,
        preferences: defaultPreferences(type.recommended),
        ...more,
      });

    test("has a whole list on a quiet day, and more on every other", () => {
      const quiet = compose([]).items.length;
      expect(quiet).toBeGreaterThanOrEqual(least[registration] ?? 999);
      expect(compose(everything(type)).items.length).toBeGreaterThan(quiet + 8);
    });

    test("gives every part its reason, asks nothing twice in the same words, and says what it does on the button", () => {
      for (const year of [aircraft.year, 1970, 2015]) {
        const { items } = compose(everything(type), { aircraft: { ...aircraft, year } });
        const titles = items.map((item) => item.title);
        expect(titles.filter((title, i) => titles.indexOf(title) !== i)).toEqual([]);
      }
      expect(type.items.filter((item) => item.why.length < 12)).toEqual([]);
      const plain = ["look", "feel", "set", "remove", "sample", "time"];
      expect(type.items.filter((item) => plain.includes(item.kind) && !item.done).map((i) => i.id)).toEqual(
        type.items.filter((i) => i.kind === "remove" && !i.done).map((i) => i.id),
      );
    });

    test("puts back what it puts out, and takes nothing back that was never out", () => {
      const out = type.items.flatMap((i) =>
        i.ledger && "out" in i.ledger && i.ledger.how !== "off" ? [i.ledger.out] : [],
      );
      const back = type.items.flatMap((i) => (i.ledger && "back" in i.ledger ? [i.ledger.back] : []));
      expect([...back].sort()).toEqual([...out].sort());
    });

    test("can be walked from the first item to the last on any day, in the order of its list, without a stop", () => {
      const days: Condition[][] = [
        [],
        ["night", "frost"],
        ["rain", ...everything(type).filter((condition) => condition === "just rigged")],
        ["turnaround", "rain"],
        everything(type),
      ];
      for (const conditions of days) {
        const list = compose(conditions, { seed: conditions.join() });
        const events = [
          start(list),
          { ...start(list), id: "0001", type: "crew.joined", data: { crewId: "kofi" } },
        ];
        for (const [i, item] of list.items.entries()) {
          const state = foldPreflight("p", events as PreflightEvent[]);
          expect([item.id, blockedBy(list, state, item)?.open]).toEqual([item.id, undefined]);
          events.push({
            ...start(list),
            id: String(i + 10).padStart(4, "0"),
            type: "item.answered",
            data: { itemId: item.id, outcome: "checked" },
          } as unknown as (typeof events)[number]);
        }
        expect(openEntries(foldLedger(list, foldPreflight("p", events as PreflightEvent[])))).toEqual([]);
      }
    });

    test("looks at lights and heat from outside by the shortest way from the door round them and back", () => {
      const { plan, stations } = type;
      const spots = compose(everything(type)).items.flatMap(
        (item) => stations.find((s) => s.id === item.spot) ?? [],
      );
      // A glider has no lights to walk around for.
      expect(spots.length >= 3).toBe(type.electrical !== undefined);
      if (!plan?.door) throw new Error("no door");
      const metres = walkingDistances(plan, [plan.door, ...spots.map(({ x = 0, y = 0 }) => ({ x, y }))]);
      const round = (order: readonly number[]) => {
        const way = [0, ...order, 0];
        return way.slice(1).reduce((sum, to, k) => sum + (metres[way[k] ?? 0]?.[to] ?? 0), 0);
      };
      const orders = (left: readonly number[]): number[][] =>
        left.length === 0
          ? [[]]
          : left.flatMap((k) => orders(left.filter((other) => other !== k)).map((rest) => [k, ...rest]));
      const asListed = spots.map((_, k) => k + 1);
      expect(round(asListed)).toBeCloseTo(Math.min(...orders(asListed).map(round)), 6);
    });

    test("has a route whose stations stand outside of it, and whose length is that of a preflight round it", () => {
      const problem = routeProblem(type);
      if (!problem) throw new Error("no lap");
      const walls = (type.plan?.walls ?? []).map((wall) => wall.map(([x, y]) => ({ x, y })));
      for (const { x = 0, y = 0 } of problem.stations)
        expect(walls.some((wall) => isInside({ x, y }, wall))).toBe(false);
      const own = routeLengthM(
        problem,
        problem.stations.map((_, i) => i),
      );
      const best = bestOrder(problem);
      expect(best.exact).toBe(true);
      expect(best.metres).toBeLessThanOrEqual(own + 1e-9);
      // Once around an aircraft of seven to seventeen metres.
      expect(own).toBeGreaterThan(20);
      expect(own).toBeLessThan(80);
    });
  });

  test("the trainer of 1984 has a primer, fourteen volts and another oil minimum", () => {
    const old = (year: number) =>
      composeList({ type: tarrow4, aircraft: { ...qxTar, year }, conditions: [], openDiscrepancies: [] });
    const ids = (year: number) => old(year).items.map((item) => item.id);
    expect(ids(1984)).toEqual(
      expect.arrayContaining(["cockpit.primer", "run-up.volts-14", "run-up.suction"]),
    );
    expect(ids(1998)).not.toContain("cockpit.primer");
    expect(ids(1998)).toContain("cockpit.annunciators");
    expect(ids(2010)).not.toContain("run-up.suction");
    expect([old(1984).type.oil?.minimumQt, old(1998).type.oil?.minimumQt]).toEqual([5, 6]);
  });

  test("the glider just rigged has every surface held by a second person, after its pins were seen", () => {
    const { aircraft, type } = group.find((g) => g.aircraft.registration === "QX-ANS") ?? {};
    if (!aircraft || !type) throw new Error("no glider");
    const list = composeList({ type, aircraft, conditions: ["just rigged"], openDiscrepancies: [] });
    const held = list.items.filter((item) => item.when?.includes("just rigged") && item.second);
    expect(held.map((item) => item.id)).toEqual([
      "left-aileron.held",
      "left-spoiler.held",
      "tail-left.held",
      "tail.rudder-held",
      "right-aileron.held",
      "right-spoiler.held",
    ]);
    expect(type.fuel ?? type.oil ?? type.magnetos ?? type.electrical).toBeUndefined();
  });
});

const start = (list: ReturnType<typeof composeList>) => ({
  id: "0000",
  type: "preflight.started",
  streamId: "p",
  deviceId: "d",
  crewId: "ines",
  at: NOW.toISOString(),
  data: { registration: list.registration, listHash: "", conditions: [] },
});
