import { normalNumbers, seededRandom } from "../../../units/seeded-random";
import { instrumentResolution, levelOf } from "./stretch-level";

/** Noisy values around a level, as shown by an instrument with steps. */
function shown(level: number, scatter: number, grain: number, lines: number, seed: number): number[] {
  const normal = normalNumbers(seededRandom(seed));
  return Array.from({ length: lines }, () => Math.round((level + scatter * normal()) / grain) * grain);
}

describe("the level of a segment", () => {
  it("of a tachometer in steps of 25 is between two steps", () => {
    const level = (truth: number) => levelOf(shown(truth, 9, 25, 400, 3), 25).value;
    expect(level(1725)).toBeCloseTo(1725, -0.5);
    expect(Math.abs(level(1737) - 1737)).toBeLessThan(3);
    expect(Math.abs(level(1731) - 1731)).toBeLessThan(3);
  });

  it("of a fine one is not moved by outliers", () => {
    const values = shown(1725, 3, 1, 40, 5);
    expect(Math.abs(levelOf([...values, 2600, 2600, 2600], 1).value - 1725)).toBeLessThan(2);
  });

  it("has an honest uncertainty: two sigma contain the truth in at least nine of ten, for any steps", () => {
    for (const grain of [1, 10, 25]) {
      let held = 0;
      const cases = 400;
      for (let i = 0; i < cases; i++) {
        const truth = 1700 + ((i * 7.3) % 60);
        const { value, sigma } = levelOf(shown(truth, 2 + (i % 6), grain, 5 + (i % 20), i), grain);
        if (Math.abs(value - truth) <= 2 * sigma + 0.5) held++;
      }
      expect([grain, held / cases >= 0.88]).toEqual([grain, true]);
    }
  });

  it("of a tachometer without scatter has the uncertainty of the rounding", () => {
    const { sigma } = levelOf(Array(12).fill(1725), 25);
    // Every instrument has some noise: closer to a step boundary it would have crossed it once in twelve samples.
    expect(sigma).toBeGreaterThan(4);
    expect(sigma).toBeLessThan(25 / Math.sqrt(12));
    expect(levelOf(Array(12).fill(1725), 1).sigma).toBeLessThan(0.5);
  });

  it("steps are the smallest distance between two shown values", () => {
    expect(instrumentResolution([1700, 1725, 1725, 1800])).toBe(25);
    expect(instrumentResolution([1700, 1701, 1725, Number.NaN])).toBe(1);
    expect(instrumentResolution([1700, 1700])).toBe(0);
  });
});
