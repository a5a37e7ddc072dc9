import { checkEvent, contentHash, readFile } from "@cravix/contract";
import {
  composeList,
  convert,
  foldDiscrepancies,
  foldPreflight,
  itemsOf,
  judgePreflight,
  type Source,
} from "@cravix/core";
import { airfield, qxTar, rules, scenarioFiles, tarrow4, trainerHistory } from "./index";

const NOW = new Date("2026-05-01T12:00:00.000Z");
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

describe("QX-TAR", () => {
  test("has a walk of at least ten stations, thirteen drains, two tanks", () => {
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

  test("asks nothing twice in the same words, and gives every part its reason", () => {
    const titles = tarrow4.items.map((item) => item.title);
    expect(new Set(titles).size).toBe(titles.length);
    expect(tarrow4.items.every((item) => item.why.length > 12)).toBe(true);
  });

  test("turns off what it turns on", () => {
    const out = tarrow4.items.flatMap((i) =>
      i.ledger && "out" in i.ledger && i.ledger.how !== "off" ? [i.ledger.out] : [],
    );
    const back = tarrow4.items.flatMap((i) => (i.ledger && "back" in i.ledger ? [i.ledger.back] : []));
    expect(back).toEqual(out);
  });

  test("holds in its tanks what its calibrations say, to the gallon", () => {
    for (const tank of tarrow4.fuel?.tanks ?? [])
      expect(tank.calibration?.points.at(-1)?.litres).toBeCloseTo(convert(25.9, "US gal", "L"), 0);
  });
});

describe("its weeks of history", () => {
  const history = trainerHistory(NOW);
  const preflights = [...new Set(history.events.map((e) => e.preflightId))];

  test("are the same for the same day, and all in the past", () => {
    expect(trainerHistory(NOW).events).toEqual(history.events);
    expect(history.events.every((e) => "event" in checkEvent(e, NOW))).toBe(true);
    expect(new Set(history.events.map((e) => e.id)).size).toBe(history.events.length);
  });

  test("are whole walks, each against its own pinned list", () => {
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
      expect(worst).toEqual([]);
    }
  });

  test("leave one discrepancy open, measured again by everyone since", () => {
    const open = foldDiscrepancies(history.events).filter((d) => !d.closed);
    expect(open).toHaveLength(1);
    expect(open[0]).toMatchObject({ stationId: "right-gear", measure: "4 mm" });
    expect(open[0]?.observations.length).toBeGreaterThanOrEqual(3);
  });

  test("use more oil an hour from week to week", () => {
    const readings = preflights.map((id) => foldPreflight(id, history.events).readings);
    const use = readings.slice(1).flatMap((now, i) => {
      const before = readings[i];
      const hours = (now.hours?.value ?? 0) - (before?.hours?.value ?? 0);
      const used = (before?.["oil.level"]?.value ?? 0) - (now["oil.level"]?.value ?? 0);
      // A quart was added in between: not a measure of what was used.
      return used > 0 ? [used / hours] : [];
    });
    const mean = (list: number[]) => list.reduce((sum, x) => sum + x, 0) / list.length;
    expect(mean(use.slice(-4))).toBeGreaterThan(1.4 * mean(use.slice(0, 4)));
  });
});
