import { foldLoads } from "../checklist/fold-loads";
import { composeList } from "../checklist/list/compose-list";
import type { PreflightEvent } from "../checklist/stream/events";
import { foldPreflight } from "../checklist/stream/fold-preflight";
import {
  aircraft,
  answered,
  item,
  LIST_INPUT,
  source,
  started,
  streamId,
  type,
  undo,
} from "../testing/small-aircraft";
import { batteryState, type ElectricalProfile, judgeBattery, usedAmpereHours } from "./battery";

const profile: ElectricalProfile = {
  volts: 28,
  batteryAh: 24,
  loads: [
    { id: "bus", name: "battery bus", amps: 3 },
    { id: "heat", name: "pitot heat", amps: 9 },
  ],
  usable: [
    { celsius: 25, part: 1 },
    { celsius: -20, part: 0.5 },
    { celsius: 0, part: 0.75 },
  ],
  start: [
    { celsius: -20, ah: 6 },
    { celsius: 0, ah: 4 },
    { celsius: 25, ah: 2.5 },
  ],
  lapMin: 6,
  source,
};

describe("ampere-hours", () => {
  test("are amperes times hours, added up (definition: 12 A for five minutes is 1 Ah)", () => {
    expect(usedAmpereHours([{ amps: 12, seconds: 300 }])).toBeCloseTo(1, 12);
    expect(
      usedAmpereHours([
        { amps: 3, seconds: 3600 },
        { amps: 20, seconds: 180 },
      ]),
    ).toBeCloseTo(4, 12);
    expect(usedAmpereHours([])).toBe(0);
  });

  test("below zero are rejected", () => {
    expect(() => usedAmpereHours([{ amps: -1, seconds: 1 }])).toThrow("cannot be negative");
    expect(() => usedAmpereHours([{ amps: 1, seconds: Number.NaN }])).toThrow("not a number");
  });
});

describe("what is left for the start", () => {
  test("follows the profile's tables, joined by straight lines and held at their ends", () => {
    expect(batteryState(profile, [], 0, 25)).toMatchObject({ availableAh: 24, needAh: 2.5, marginAh: 21.5 });
    expect(batteryState(profile, [], 0, -10)).toMatchObject({ availableAh: 15, needAh: 5 });
    expect(batteryState(profile, [], 0, -40)).toMatchObject({ availableAh: 12, needAh: 6 });
    expect(batteryState(profile, [], 0, 40)).toMatchObject({ availableAh: 24 });
  });

  test("says how many minutes the start is still safe with what is on", () => {
    // 24 − 1 − 2.5 = 20.5 Ah at 12 A: 102.5 minutes.
    const state = batteryState(profile, [{ amps: 12, seconds: 300 }], 12, 25);
    expect(state.minutesLeft).toBeCloseTo(102.5, 9);
    expect(batteryState(profile, [], 0, 25).minutesLeft).toBeUndefined();
  });

  test("is not guessed for a temperature that cannot be, or without a table", () => {
    expect(() => batteryState(profile, [], 0, 90)).toThrow("out of range");
    expect(() => batteryState({ ...profile, usable: [] }, [], 0, 10)).toThrow(
      "no values for different temperatures",
    );
  });
});

describe("the battery, judged", () => {
  const hour = (amps: number) => [{ amps, seconds: 3600 }];

  test("is within limits after a brisk route, watched after a long one, and asked about when the start is not safe", () => {
    expect(judgeBattery(profile, [{ amps: 12, seconds: 240 }], 15)).toMatchObject({ grade: "within limits" });
    expect(judgeBattery(profile, [{ amps: 12, seconds: 500 }], 15)).toMatchObject({ grade: "watch" });
    const flat = judgeBattery(profile, hour(12), -10);
    expect(flat).toMatchObject({ grade: "ask", margin: { value: -2, unit: "Ah" } });
    expect(flat.sentence).toContain("3.0 Ah left at −10 °C, the start needs 5.0 Ah");
    expect(flat.caution).toBeDefined();
  });

  test("is not judged without a profile or a temperature", () => {
    expect(judgeBattery(undefined, hour(1), 10).grade).toBe("unjudged");
    expect(judgeBattery(profile, hour(1), undefined).grade).toBe("unjudged");
  });
});

describe("the electrical route as it was walked", () => {
  const list = composeList({
    ...LIST_INPUT,
    aircraft,
    type: {
      ...type,
      electrical: profile,
      items: [
        item("on", "papers", { loads: { on: ["bus"] } }),
        item("heat", "papers", { loads: { on: ["heat", "nobody's"] } }),
        item("look", "left"),
        item("off", "left", { loads: { off: ["all"] } }),
        item("run", "run"),
      ],
      stations: [...type.stations, { id: "run", name: "Run", phase: "run-up" }],
    },
  });
  /** Events a minute apart. */
  const minutes = (...events: PreflightEvent[]) =>
    events.map((event, i) => ({ ...event, at: new Date(Date.UTC(2026, 4, 1, 10, i)).toISOString() }));
  const at = (minute: number) => Date.UTC(2026, 4, 1, 10, minute);
  const loads = (now: number, ...events: PreflightEvent[]) =>
    foldLoads(list, foldPreflight(streamId, minutes(started(), ...events)), now);

  test("begins with the battery and ends with it, each load for its own time", () => {
    const walked = loads(at(9), answered("on"), answered("heat"), answered("look"), answered("off"));
    expect(walked.spans).toEqual([
      { amps: 3, seconds: 60 },
      { amps: 12, seconds: 120 },
    ]);
    expect(walked).toMatchObject({ on: [], amps: 0 });
    expect(walked.onSince).toBeUndefined();
  });

  test("runs on until now while something is on", () => {
    const left = loads(at(31), answered("on"));
    expect(left).toMatchObject({ amps: 3, onSince: at(1), spans: [{ amps: 3, seconds: 1800 }] });
    expect(left.on.map((load) => load.name)).toEqual(["battery bus"]);
  });

  test("was never on where the answer was undone, and is paid by the engine once that runs", () => {
    const slip = answered("on");
    expect(loads(at(5), slip, undo(slip)).spans).toEqual([]);
    expect(loads(at(60), answered("on"), answered("run")).spans).toEqual([{ amps: 3, seconds: 60 }]);
  });
});
