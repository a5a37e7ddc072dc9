import fc from "fast-check";
import { type FuelPlan, fuelMargin } from "./margin/fuel-margin";
import { simulateMargin } from "./margin/simulate-margin";

const plan: FuelPlan = {
  usable: { value: 118, sigma: 4 },
  taxi: { value: 4, sigma: 1.2 },
  climb: { value: 3, sigma: 0.6 },
  burn: { value: 34, sigma: 2.7 },
  flight: { value: 60, sigma: 6 },
  reserveMin: 30,
};

describe("is it enough", () => {
  test("by hand: the margin beyond flight and reserve, and its uncertainty", () => {
    const { marginL, enduranceMin, legalMin, worstMarginL } = fuelMargin(plan);
    // 118 − 4 − 3 − 34 · 1.5 = 60 L; (118 − 7) / 34 · 60 = 195.9 min.
    expect(marginL.value).toBeCloseTo(60, 9);
    expect(enduranceMin).toBeCloseTo(195.88, 2);
    expect(legalMin).toBeCloseTo(165.88, 2);
    // √(4² + 1.2² + 0.6² + (1.5·2.7)² + (34·6/60)² + (2.7·6/60)²) = √(16 + 1.44 + 0.36 + 16.4025 + 11.56 + 0.0729) = 6.7702.
    expect(marginL.sigma).toBeCloseTo(6.7702, 3);
    expect(worstMarginL).toBeCloseTo(60 - 1.644854 * 6.7702, 2);
  });

  test("the worst reasonable case is never better than the best estimate", () => {
    const amount = (max: number) => fc.double({ min: 0, max, noNaN: true });
    fc.assert(
      fc.property(amount(300), amount(30), amount(300), amount(60), (usable, sigma, flight, reserveMin) => {
        const enough = fuelMargin({
          ...plan,
          usable: { value: usable, sigma },
          flight: { value: flight, sigma: 0.1 * flight },
          reserveMin,
        });
        expect(enough.worstMarginL).toBeLessThanOrEqual(enough.marginL.value + 1e-9);
        expect(enough.worstLegalMin).toBeLessThanOrEqual(enough.legalMin + 1e-9);
        expect(enough.worstLegalMin).toBeGreaterThanOrEqual(0);
      }),
    );
  });

  test.each([
    [{ burn: { value: 0, sigma: 0 } }, "more than zero"],
    [{ usable: { value: -1, sigma: 1 } }, "negative"],
    [{ flight: { value: 60, sigma: -1 } }, "negative"],
    [{ taxi: { value: Number.NaN, sigma: 0 } }, "not a number"],
  ])("%j is rejected", (part, reason) => {
    expect(() => fuelMargin({ ...plan, ...part })).toThrow(reason);
  });
});

describe("ten thousand flights", () => {
  test("have the mean and worst case of the closed form", () => {
    const closed = fuelMargin(plan);
    const flown = simulateMargin(plan, 40_000, 7);
    expect(Math.abs(flown.meanL - closed.marginL.value)).toBeLessThan(0.15);
    expect(Math.abs(flown.worstL - closed.worstMarginL)).toBeLessThan(0.4);
    expect(flown.histogram.counts.reduce((a, b) => a + b, 0)).toBe(40_000);
  });

  test("use the reserve in half of the cases at zero margin, and run dry in hardly any", () => {
    const exact = { ...plan, usable: { value: 58, sigma: 4 } };
    expect(fuelMargin(exact).marginL.value).toBeCloseTo(0, 9);
    const flown = simulateMargin(exact, 10_000, 1);
    expect(flown.short).toBeGreaterThan(0.47);
    expect(flown.short).toBeLessThan(0.53);
    expect(flown.dry).toBeLessThan(0.01);
  });

  test("are the same for the same seed, different for another, and reject impossible numbers", () => {
    expect(simulateMargin(plan, 1000, 3)).toEqual(simulateMargin(plan, 1000, 3));
    expect(simulateMargin(plan, 1000, 3).worstL).not.toBe(simulateMargin(plan, 1000, 4).worstL);
    expect(() => simulateMargin(plan, 10, 1)).toThrow("100 to 1,000,000");
  });
});
