import { normalNumbers, seededRandom } from "../../../units/seeded-random";
import { splitTransient, unsettledLevel } from "./unsettled-level";

/** A first-order lag with known level, time constant and noise. */
function stretch(
  level: number,
  {
    from = 1800,
    lag = 0.8,
    unrest = 3,
    grain = 1,
    seconds = 4,
    every = 1,
    seed = 1,
    late = 0,
    restsFrom = 3,
  } = {},
) {
  const normal = normalNumbers(seededRandom(seed));
  const t: number[] = [];
  const y: number[] = [];
  for (let at = every * (0.2 + late); at <= seconds; at += every) {
    const rpm = level + (from - level) * Math.exp(-at / lag) + unrest * normal();
    t.push(10 + at);
    y.push(Math.round(rpm / grain) * grain);
  }
  return {
    way: splitTransient({ t, y }, { at: 10, restsFrom: 10 + restsFrom, from, interval: every }),
    t,
    y,
  };
}

const CASES = Array.from({ length: 240 }, (_, i) => ({
  truth: 1650 + ((i * 13.7) % 110),
  lag: 0.4 + ((i * 0.37) % 1),
  unrest: 2 + (i % 6),
  late: (i % 8) / 10,
  seed: i,
}));

describe("a segment that ended before it settled", () => {
  it("with four lines is extrapolated, closer than its last line", () => {
    let ours = 0;
    let last = 0;
    for (const { truth, ...how } of CASES) {
      const { way, y } = stretch(truth, how);
      ours += (unsettledLevel(way, 1).value - truth) ** 2;
      last += ((y.at(-1) as number) - truth) ** 2;
    }
    expect(Math.sqrt(ours / CASES.length)).toBeLessThan(7);
    expect(ours).toBeLessThan(0.9 * last);
  });

  it("has an honest uncertainty: two sigma contain the truth in nine of ten and more", () => {
    for (const grain of [1, 10, 25]) {
      const held = CASES.filter(({ truth, ...how }) => {
        const { way } = stretch(truth, { ...how, grain });
        const { value, sigma } = unsettledLevel(way, grain);
        return Math.abs(value - truth) <= 2 * sigma + 0.5;
      });
      expect([grain, held.length / CASES.length >= 0.9]).toEqual([grain, true]);
    }
  });

  it("with two lines on the way only reports that it is uncertain", () => {
    const brief = stretch(1700, { seconds: 2.1, lag: 1 });
    const long = stretch(1700, { seconds: 9, lag: 1 });
    expect(unsettledLevel(brief.way, 1).sigma).toBeGreaterThan(3 * unsettledLevel(long.way, 1).sigma);
  });
});

it("outliers cost no more than calm lines, and a level among them is still found", () => {
  const wild = Array.from({ length: 7 }, (_, i) => (i % 2 ? 7900 : 40));
  const { value, sigma } = unsettledLevel({ there: wild, onTheWay: [], from: 1800 }, 1);
  expect(value).toBeGreaterThan(0);
  expect(value).toBeLessThan(8000);
  expect(Number.isFinite(sigma)).toBe(true);
});

describe("a tachometer in steps of 25", () => {
  it("is estimated between its steps, closer than the mean of its values", () => {
    let ours = 0;
    let mean = 0;
    for (const { truth, ...how } of CASES) {
      const { way } = stretch(truth, { ...how, grain: 25, seconds: 14, every: 0.5 });
      ours += (unsettledLevel({ ...way, onTheWay: [] }, 25).value - truth) ** 2;
      mean += (way.there.reduce((sum, value) => sum + value, 0) / way.there.length - truth) ** 2;
    }
    expect(ours).toBeLessThan(0.8 * mean);
  });

  it("shifted by one whole step shifts the level by as much, with the same uncertainty", () => {
    const { way } = stretch(1712, { grain: 25, seconds: 8, unrest: 6 });
    const moved = {
      ...way,
      from: way.from + 25,
      there: way.there.map((value) => value + 25),
      onTheWay: way.onTheWay.map(({ value, toGo }) => ({ value: value + 25, toGo })),
    };
    const before = unsettledLevel(way, 25);
    const after = unsettledLevel(moved, 25);
    expect(after.value - before.value).toBeCloseTo(25, 6);
    expect(after.sigma).toBeCloseTo(before.sigma, 6);
  });
});
