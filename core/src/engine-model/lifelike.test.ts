import { CASE_ENGINES, runUpCase } from "../testing/run-up-cases";
import { Monitor, type MonitorSample } from "./monitor";

const engine = CASE_ENGINES[1] as (typeof CASE_ENGINES)[number];
const lines = (seed: number, lifelike: boolean, seconds = 40): MonitorSample[] => {
  const monitor = new Monitor({ ...runUpCase("none", 3, engine, seed).options, seed, hz: 4, lifelike });
  return Array.from({ length: seconds * 4 }, () => monitor.next());
};
const spread = (values: readonly number[]) => Math.max(...values) - Math.min(...values);

describe("an engine as they are met", () => {
  it("is the same for the same seed, another for another", () => {
    expect(lines(5, true)).toEqual(lines(5, true));
    expect(lines(5, true).at(-1)?.egt).not.toEqual(lines(6, true).at(-1)?.egt);
  });

  it("has cylinders that differ by tens of degrees more than a textbook's", () => {
    const spreads = (lifelike: boolean) =>
      Array.from({ length: 12 }, (_, i) => spread(lines(20 + i, lifelike, 5).at(-1)?.egt ?? []));
    const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
    // The range of six draws from a normal distribution with deviation thirty averages 2.53 deviations (e.g. Tippett 1925; from
    // memory).
    expect(mean(spreads(true))).toBeGreaterThan(0.7 * 2.53 * 30);
    expect(mean(spreads(true))).toBeLessThan(1.5 * 2.53 * 30);
    expect(mean(spreads(true))).toBeGreaterThan(1.3 * mean(spreads(false)));
  });

  it("shows its rpm in the steps of its tachometer: fine ones, tens and twenty-fives all come", () => {
    const steps = new Set(
      Array.from({ length: 16 }, (_, i) => {
        const rpm = lines(40 + i, true, 10).map((line) => line.rpm);
        return [25, 10, 1].find((step) => rpm.every((value) => value % step === 0)) ?? 0;
      }),
    );
    expect([...steps].sort((a, b) => a - b)).toEqual([1, 10, 25]);
  });
});
