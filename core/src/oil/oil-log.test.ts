import { normalNumbers, seededRandom } from "../units/seeded-random";
import { judgeOil, type OilProfile, oilAdditionFault } from "./judge-oil";
import { compareOilUse, judgeOilUse } from "./judge-oil-use";
import { forecastOil, type OilEntry, oilTrend } from "./oil-consumption";

const source = { kind: "handbook", text: "servicing", example: true } as const;
const profile: OilProfile = {
  minimumQt: 6,
  maximumQt: 8,
  throwsOffQt: 7.5,
  containerQt: 1,
  markedFor: "cold",
  hotReadsLowerQt: 0.5,
  grades: ["W100", "15W50"],
  source,
};

const day = (n: number) => new Date(Date.UTC(2026, 0, 1 + n, 9)).toISOString();

/** An engine read before every flight and topped up by whole quarts, with the dipstick read to about a tenth. */
function engine(
  flights: number,
  perH: (flight: number) => number,
  seed: number,
  readingError = 0.1,
): OilEntry[] {
  const normal = normalNumbers(seededRandom(seed));
  const entries: OilEntry[] = [];
  let level = 7.4;
  let hours = 1000;
  for (let flight = 0; flight < flights; flight++) {
    const qt = Math.max(0, Math.round((level + readingError * normal()) * 10) / 10);
    entries.push({ at: day(flight), entry: "level", qt, hours });
    if (level < 6.5) {
      entries.push({ at: day(flight + 0.1), entry: "added", qt: 1, hours });
      level += 1;
    }
    hours += 1.2;
    level -= 1.2 * perH(flight);
  }
  return entries;
}

describe("an oil level", () => {
  const judge = (levelQt: number, heat?: "hot" | "cold") =>
    judgeOil({ levelQt, profile, longFlight: false, ...(heat && { heat }) });

  test("is filled only to where the engine throws it off", () => {
    expect(judge(6.5).judgement.action).toContain(
      "1 container of 1.0 US qt would fit below 7.5 US qt, above which",
    );
    expect(judge(6.6).judgement.action).toContain("Add no oil");
    expect(judge(5.4).addContainers).toBe(1);
  });

  test("read hot on a dipstick marked for cold is corrected", () => {
    expect(judge(6.4, "hot")).toMatchObject({ levelQt: 6.9, judgement: { grade: "within limits" } });
    // Below the minimum on the dipstick, above it only by the correction: read it cold, or ask.
    expect(judge(5.7, "hot")).toMatchObject({
      levelQt: 6.2,
      judgement: { grade: "ask", action: "Read it again when the engine is cold, or ask a mechanic." },
    });
    expect(judge(5.7, "cold").judgement.grade).toBe("stop");
    expect(judge(5.7, "hot").judgement.sentence).toContain("marked for cold oil: 5.7 corrects to 6.2 US qt");
    expect(
      judgeOil({ levelQt: 6.3, profile: { ...profile, markedFor: "hot" }, longFlight: false, heat: "cold" })
        .levelQt,
    ).toBeCloseTo(5.8, 9);
  });

  test.each([
    [{ qt: 1, grade: "W100", sealed: true }, 6.2, undefined],
    [{ qt: 1, grade: "W100", sealed: true }, 6.8, "over the limit of 7.5"],
    [{ qt: 1, grade: "W80", sealed: true }, 6, "not approved for this engine"],
    [{ qt: 1, grade: "W100", sealed: false }, 6, "unopened"],
    [{ qt: 0, sealed: true }, 6, "how much oil"],
  ])("an addition of %j to %d: %s", (oil, level, why) => {
    const answer = oilAdditionFault(oil, profile, level);
    if (why === undefined) expect(answer).toBeUndefined();
    else expect(answer).toContain(why);
  });
});

describe("consumption", () => {
  test("counts what was added", () => {
    // 7.0, then 6.4 after 3 h, one quart added, 7.0 after 5 h: 0.6 and then 1 − 0.6 = 0.4 more.
    const { use } = oilTrend([
      { at: day(1), entry: "level", qt: 7, hours: 10 },
      { at: day(2), entry: "level", qt: 6.4, hours: 13 },
      { at: day(2.1), entry: "added", qt: 1 },
      { at: day(3), entry: "level", qt: 7, hours: 15 },
    ]);
    expect(use.map((u) => [u.hours, Number(u.usedQt.toFixed(9)), u.addedQt])).toEqual([
      [10, 0, 0],
      [13, 0.6, 0],
      [15, 1, 1],
    ]);
  });

  test("a reading after the addition replaces the one before it, and the quart is not counted twice", () => {
    const { use } = oilTrend([
      { at: day(1), entry: "level", qt: 5.5, hours: 10 },
      { at: day(1.1), entry: "added", qt: 1, hours: 10 },
      { at: day(1.2), entry: "level", qt: 6.5, hours: 10 },
      { at: day(2), entry: "level", qt: 6, hours: 12 },
    ]);
    expect(use.map((u) => [u.hours, u.usedQt])).toEqual([
      [10, 0],
      [12, 0.5],
    ]);
  });

  test("is what the engine uses, within its interval, whatever was added", () => {
    for (const seed of [1, 2, 3]) {
      const { overall, change } = oilTrend(engine(40, () => 0.2, seed));
      // Dipsticks are read to tenths: the interval may end exactly there.
      expect(overall?.low).toBeLessThan(0.2 + 1e-9);
      expect(overall?.high).toBeGreaterThan(0.2 - 1e-9);
      expect(Math.abs((overall?.perH ?? 0) - 0.2)).toBeLessThan(0.02);
      expect(change).toBeUndefined();
    }
  });

  test("that doubles is found, with date and previous rate", () => {
    const trend = oilTrend(engine(60, (flight) => (flight < 35 ? 0.12 : 0.36), 4, 0.05));
    expect(trend.change?.z).toBeGreaterThan(6);
    expect(Math.abs((trend.change?.hours ?? 0) - (1000 + 35 * 1.2))).toBeLessThan(4);
    expect(trend.change?.before.perH).toBeCloseTo(0.12, 1);
    expect(trend.recent?.perH).toBeGreaterThan(0.3);
    const judged = judgeOilUse(trend, 7.2, 6);
    expect(judged).toMatchObject({ grade: "watch", sentence: expect.stringContaining("up from") });
  });

  test("of a healthy engine is hardly ever reported as changed", () => {
    const called = Array.from(
      { length: 100 },
      (_, seed) => oilTrend(engine(45, () => 0.2, 100 + seed)).change,
    );
    expect(called.filter(Boolean).length).toBeLessThanOrEqual(2);
  });

  test("with too few readings is reported as such", () => {
    const trend = oilTrend(engine(5, () => 0.2, 1));
    expect(trend).toMatchObject({ tooFew: "5 oil readings with hour meter. A trend needs 6." });
    expect(trend.recent).toBeUndefined();
    expect(judgeOilUse(trend, 7, 6)).toBeUndefined();
    expect(oilTrend([]).tooFew).toContain("No oil reading");
  });

  test("a meter that went back is reported and left out; a negative level is rejected", () => {
    const entries = engine(8, () => 0.2, 1);
    const { faults, use } = oilTrend([...entries, { at: day(99), entry: "level", qt: 7, hours: 900 }]);
    expect(faults).toEqual([{ at: day(99), reason: expect.stringContaining("Check the readings") }]);
    expect(use).toHaveLength(8);
    expect(() => oilTrend([{ at: day(1), entry: "level", qt: -1, hours: 1 }])).toThrow("negative");
  });
});

describe("the forecast", () => {
  const rate = { perH: 0.25, low: 0.2, high: 0.4, readings: 12 };

  // By hand: one quart above the minimum at a quarter per hour is four hours: three flights of 1.2 h; by the interval two to
  // four.
  test("is in this aircraft's usual flights", () => {
    expect(forecastOil(7, 6, rate, 1.2)).toEqual({ flights: 3, atLeast: 2, atMost: 4, hours: 4 });
    expect(forecastOil(5.5, 6, rate, 1.2)?.flights).toBe(0);
    expect(forecastOil(7, 6, { ...rate, low: -0.1 }, 1.2)).not.toHaveProperty("atMost");
    expect(forecastOil(7, 6, { ...rate, perH: 0 }, 1.2)).toBeUndefined();
    expect(() => forecastOil(7, 6, rate, 0)).toThrow("more than zero");
  });

  test("is one sentence, and a note if the next flight reaches the minimum", () => {
    const trend = { recent: rate, usualFlightH: 1.2 };
    expect(judgeOilUse(trend, 7, 6)).toMatchObject({
      grade: "within limits",
      sentence:
        "0.25 qt/h recently (0.20 to 0.40). Above the minimum for about 3 more flights of 1 h 12 min (2 to 4).",
    });
    expect(judgeOilUse(trend, 6.1, 6)).toMatchObject({
      grade: "note",
      sentence: expect.stringContaining("next usual flight"),
    });
  });

  test("a sudden loss is a finding even at a good level; a reading error is not", () => {
    const trend = { recent: rate, usualFlightH: 1.2 };
    expect(judgeOilUse(trend, 7, 6, { usedQt: 1.4, hours: 1.2 })).toMatchObject({ grade: "ask" });
    expect(judgeOilUse(trend, 7, 6, { usedQt: 0.5, hours: 1.2 })?.grade).toBe("within limits");
    expect(judgeOilUse(trend, 7, 6, { usedQt: -0.1, hours: 1.2 })?.grade).toBe("within limits");
  });

  test("two engines are compared", () => {
    const left = oilTrend(engine(30, () => 0.45, 5, 0.05));
    const right = oilTrend(engine(30, () => 0.15, 6, 0.05));
    expect(compareOilUse(left, right)).toMatchObject({
      grade: "watch",
      sentence: expect.stringContaining("left engine uses more"),
    });
    expect(compareOilUse(right, right)?.grade).toBe("within limits");
    expect(compareOilUse(left, oilTrend([]))).toBeUndefined();
  });
});
