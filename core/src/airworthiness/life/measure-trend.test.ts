import fc from "fast-check";
import { measureTrend, overLimit, readMeasure, sameUnit, usageAt } from "./measure-trend";

const hours = (at: string) => Number(at);
const look = (x: number, measure?: string) => ({
  at: String(x).padStart(6, "0"),
  ...(measure && { measure }),
});
const LIMIT = { most: 6, unit: "mm", source: "the wheel's card" };

describe("measurements as people write them", () => {
  it.each([
    ["4 mm", 4, "mm"],
    ["4mm", 4, "mm"],
    ["about 3,5 mm.", 3.5, "mm"],
    ["3 drops a minute", 3, "drops a minute"],
    ["3 drops/min", 3, "drops a minute"],
    ["2 drops per minute", 2, "drops a minute"],
    ["12", 12, ""],
  ])("%s", (text, value, unit) => {
    expect(readMeasure(text)).toEqual({ value, unit });
  });

  it.each([
    "a little",
    "",
    "2 to 3 mm",
    "3 mm and 4 mm",
    "9".repeat(40),
    "1e9 mm 2",
  ])("%s is no single number", (text) => {
    expect(readMeasure(text)).toBeUndefined();
  });
});

describe("how a measurement develops", () => {
  it("by hand: a millimetre in ten hours, from 2 at 0 h to 4 at 20 h, reaches six after 20 h more", () => {
    const trend = measureTrend([look(0, "2 mm"), look(10, "3 mm"), look(20, "4 mm")], hours, LIMIT);
    expect(trend).toMatchObject({ unit: "mm", grows: true, over: false });
    expect(trend?.slope?.middle).toBeCloseTo(0.1, 9);
    expect(trend?.toLimit?.middle).toBeCloseTo(20, 6);
    expect(trend?.toLimit?.earliest).toBeLessThanOrEqual(20 + 1e-9);
  });

  it("no forecast from two measurements, from one moment, or without growth", () => {
    expect(measureTrend([look(0, "2 mm"), look(10, "3 mm")], hours, LIMIT)?.slope).toBeUndefined();
    expect(
      measureTrend([look(5, "2 mm"), look(5, "3 mm"), look(5, "4 mm")], () => 5, LIMIT)?.slope,
    ).toBeUndefined();
    const level = measureTrend([look(0, "3 mm"), look(9, "3 mm"), look(20, "3 mm")], hours, LIMIT);
    expect(level).toMatchObject({ grows: false });
    expect(level?.toLimit).toBeUndefined();
  });

  it("uses the unit of the last measurement, and counts the others", () => {
    const trend = measureTrend(
      [look(0, "a smear"), look(5, "1 cm"), look(10, "2 drops a minute"), look(20, "4 drops/min")],
      hours,
    );
    expect(trend).toMatchObject({ unit: "drops a minute", left: 2 });
    expect(trend?.points.map(({ x, value }) => [x, value])).toEqual([
      [0, 2],
      [10, 4],
    ]);
    expect(measureTrend([look(0), look(4)], hours)).toBeUndefined();
  });

  it("is over at the limit itself, and only in the limit's unit", () => {
    expect(overLimit("6 mm", LIMIT)).toBe("The limit is 6 mm (the wheel's card).");
    expect(overLimit("5.9 mm", LIMIT)).toBeUndefined();
    expect(overLimit("7 cm", LIMIT)).toBeUndefined();
    expect(overLimit(undefined, LIMIT)).toBeUndefined();
    expect(measureTrend([look(0, "6 mm")], hours, LIMIT)).toMatchObject({ over: true });
  });

  it("one outlier does not change it", () => {
    const looks = [0, 10, 20, 30, 40, 50, 60].map((x) => look(x, `${2 + x / 10} mm`));
    looks[3] = look(30, "40 mm");
    expect(measureTrend(looks, hours)?.slope?.middle).toBeCloseTo(0.1, 1);
  });

  it("never forecasts later than the slowest observed growth, or before now", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 50 }), { minLength: 3, maxLength: 12 }),
        fc.integer({ min: 1, max: 100 }),
        (steps, most) => {
          let value = 0;
          const looks = steps.map((step, i) => {
            value += step / 10;
            return look(i * 10, `${value.toFixed(1)} mm`);
          });
          const trend = measureTrend(looks, hours, { ...LIMIT, most });
          if (!trend?.toLimit) return;
          expect(trend.toLimit.middle).toBeGreaterThanOrEqual(trend.toLimit.earliest - 1e-9);
          expect(trend.toLimit.earliest).toBeGreaterThanOrEqual(0);
        },
      ),
    );
  });

  it("hours of the day itself come after the look before the flight", () => {
    const flown = usageAt(
      [
        { date: "2026-05-02", uses: { hours: 2 } },
        { date: "2026-05-01", uses: { hours: 1.5, landings: 3 } },
      ],
      "hours",
    );
    expect(flown("2026-05-01T07:00:00.000Z")).toBe(0);
    expect(flown("2026-05-02T07:00:00.000Z")).toBe(1.5);
    expect(flown("2026-05-03T07:00:00.000Z")).toBe(3.5);
    expect(usageAt([], undefined)("1970-01-03T00:00:00.000Z")).toBe(2);
  });

  it("units with the same meaning are equal", () => {
    expect(new Set(["drops/min", "Drops a minute", "drops per  minute."].map(sameUnit)).size).toBe(1);
  });
});
