import { composeList } from "../checklist/list/compose-list";
import type { EventData, EventType, PreflightEvent } from "../checklist/stream/events";
import { foldPreflight } from "../checklist/stream/fold-preflight";
import { event, item, LIST_INPUT, started, streamId, type } from "../testing/small-aircraft";
import { answerTimes } from "./answer-times";
import { hastyText, rushedSequences } from "./hasty-runs";
import { longGapSince } from "./long-gap";
import { minimumSeconds } from "./look-time";
import { comparePace, type EarlierPreflight, stationTimes, stationVisits } from "./station-times";

const FROM = Date.UTC(2026, 4, 1, 9);
const list = composeList({
  ...LIST_INPUT,
  type: {
    ...type,
    items: [
      ...Array.from({ length: 12 }, (_, i) => item(`left.${i}`, "left")),
      ...Array.from({ length: 6 }, (_, i) => item(`right.${i}`, "right")),
    ],
    rules: [],
  },
  aircraft: { ...LIST_INPUT.aircraft, ownItems: [] },
});

/** Events at the given seconds after nine. */
function preflight(...steps: [seconds: number, type: EventType, data: EventData[EventType]][]) {
  const events = [{ ...started(), at: new Date(FROM).toISOString() }];
  for (const [seconds, eventType, data] of steps)
    events.push({
      ...event(eventType, data as never),
      at: new Date(FROM + seconds * 1000).toISOString(),
    } as PreflightEvent);
  return foldPreflight(streamId, events);
}
const answer = (seconds: number, itemId: string): [number, EventType, EventData[EventType]] => [
  seconds,
  "item.answered",
  { itemId, outcome: "checked" },
];

describe("the minimum time for a look", () => {
  test("is longer for feeling, holding and counting than for a glance (common practice)", () => {
    expect(minimumSeconds({ kind: "look" })).toBeLessThan(minimumSeconds({ kind: "feel" }));
    expect(minimumSeconds({ kind: "count", expected: 9 })).toBeGreaterThan(
      minimumSeconds({ kind: "count", expected: 2 }),
    );
    expect(minimumSeconds({ kind: "time", seconds: 60 })).toBe(60);
    expect(minimumSeconds({ kind: "sample" })).toBeGreaterThanOrEqual(5);
  });
});

describe("answers faster than a person can look", () => {
  test("are reported with their items: twelve items in eight seconds (common example)", () => {
    const state = preflight(...Array.from({ length: 12 }, (_, i) => answer(60 + (i * 8) / 12, `left.${i}`)));
    // The first answer came after a minute: only the eleven after it are rushed.
    const [run, ...more] = rushedSequences(list, state);
    expect(more).toEqual([]);
    expect(run?.items).toHaveLength(11);
    expect(run?.stationIds).toEqual(["left"]);
    expect(run && hastyText(run)).toBe("11 items in 7 s: too fast to have looked at each one.");
  });

  test("are not reported if every look had its time, or only three were quick", () => {
    expect(
      rushedSequences(list, preflight(...Array.from({ length: 12 }, (_, i) => answer(i * 4, `left.${i}`)))),
    ).toEqual([]);
    expect(
      rushedSequences(list, preflight(...[60, 60.1, 60.2, 60.3].map((at, i) => answer(at, `left.${i}`)))),
    ).toEqual([]);
  });

  test("are assessed in runs: a slow answer separates two quick runs", () => {
    const quick = (from: number, first: number) =>
      Array.from({ length: 6 }, (_, i) => answer(from + i * 0.1, `left.${first + i}`));
    const runs = rushedSequences(list, preflight(...quick(60, 0), ...quick(200, 6)));
    expect(runs.map((run) => run.items.length)).toEqual([5, 5]);
  });

  test("are not counted for items answered at once from a run-up trace", () => {
    const read = { itemId: "left.0", from: "monitor" as const, notes: [], rpm: [], steps: [] };
    const batch = Array.from({ length: 8 }, (_, i) => answer(90 + i * 0.01, `left.${i}`));
    expect(rushedSequences(list, preflight([90, "run-up.read", read], ...batch))).toEqual([]);
    // The same answers without a trace, or long after it, are rushed.
    expect(rushedSequences(list, preflight(...batch))).toHaveLength(1);
    expect(rushedSequences(list, preflight([60, "run-up.read", read], ...batch))).toHaveLength(1);
  });

  test("are not counted after a flow: the check is quick", () => {
    const state = preflight(
      [50, "station.flowed", { stationId: "left" }],
      ...Array.from({ length: 12 }, (_, i) => answer(60 + i * 0.3, `left.${i}`)),
    );
    expect(rushedSequences(list, state)).toEqual([]);
    expect(stationTimes(list, state).left).toBeCloseTo(50 + 13.3, 6);
  });
});

describe("a station done from memory", () => {
  test("in less time than its looks take is reported like any other", () => {
    const [run] = rushedSequences(list, preflight([3, "station.flowed", { stationId: "left" }]));
    expect(run).toMatchObject({ seconds: 3, leastSeconds: 12, stationIds: ["left"] });
    expect(run?.items).toHaveLength(12);
    expect(rushedSequences(list, preflight([30, "station.flowed", { stationId: "left" }]))).toEqual([]);
  });

  test("right after another counts as one run", () => {
    const state = preflight(
      [30, "station.flowed", { stationId: "left" }],
      [31, "station.flowed", { stationId: "right" }],
    );
    expect(rushedSequences(list, state).map((run) => run.stationIds)).toEqual([["right"]]);
  });
});

describe("time", () => {
  test("of an interruption belongs to no look", () => {
    const state = preflight(
      answer(10, "left.0"),
      [20, "interrupted", { cause: "screen left", since: new Date(FROM + 12_000).toISOString() }],
      [100, "resumed", {}],
      answer(105, "left.1"),
    );
    expect(answerTimes(list, state).map((t) => t.seconds)).toEqual([10, 7]);
  });

  test("with a clock set back does not count", () => {
    expect(
      answerTimes(list, preflight(answer(10, "left.0"), answer(5, "left.1"))).every((t) => t.seconds >= 0),
    ).toBe(true);
  });

  test("is summed by station, and the way between stations is kept with every return", () => {
    const state = preflight(
      answer(10, "left.0"),
      answer(30, "right.0"),
      answer(35, "left.1"),
      answer(36, "right.1"),
    );
    expect(stationTimes(list, state)).toEqual({ left: 15, right: 21 });
    expect(stationVisits(list, state)).toEqual(["left", "right", "left", "right"]);
  });
});

describe("a pilot's pace", () => {
  const earlier = (crewId: string, left: number): EarlierPreflight => ({
    preflightId: `${crewId}${left}`,
    crewId,
    at: "",
    stations: { left },
    visits: [],
  });
  const walks = [60, 80, 70]
    .map((s) => earlier("ines", s))
    .concat([20, 30, 1000].map((s) => earlier("yuki", s)));

  test("is compared with the median of their own preflights and of everybody's", () => {
    expect(comparePace({ left: 34, right: 5 }, walks, "ines")).toEqual([
      { stationId: "left", seconds: 34, ownSeconds: 70, groupSeconds: 65, quick: true },
      { stationId: "right", seconds: 5, quick: false },
    ]);
    expect(comparePace({ left: 36 }, walks, "ines")[0]?.quick).toBe(false);
  });

  test("has no usual time before three preflights", () => {
    expect(comparePace({ left: 1 }, walks.slice(0, 2), "ines")[0]).toEqual({
      stationId: "left",
      seconds: 1,
      quick: false,
    });
  });
});

describe("a long silence", () => {
  const at = (seconds: number) => FROM + seconds * 1000;

  test("of four minutes is an interruption that was not reported", () => {
    const state = preflight(answer(10, "left.0"));
    expect(longGapSince(list, state, at(10 + 239))).toBeUndefined();
    expect(longGapSince(list, state, at(10 + 240))).toBe(new Date(at(10)).toISOString());
  });

  test("does not count before the first answer, during an interruption, or after the signature", () => {
    expect(longGapSince(list, preflight(), at(9999))).toBeUndefined();
    expect(
      longGapSince(list, preflight(answer(10, "left.0"), [20, "interrupted", {}]), at(9999)),
    ).toBeUndefined();
    const signed = preflight(answer(10, "left.0"), [
      20,
      "verdict.signed",
      { verdict: "unfinished", decision: "not flying", reasons: [] },
    ]);
    expect(longGapSince(list, signed, at(9999))).toBeUndefined();
  });
});
