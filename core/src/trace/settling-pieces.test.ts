import { normalNumbers, seededRandom } from "../units/seeded-random";
import { beginsOf, settlingPieces } from "./settling-pieces";

/** Consecutive levels, each approached with the same lag. */
function settled(
  levels: readonly { level: number; seconds: number }[],
  { hz = 4, lag = 0.8, noise = 3, seed = 1 },
) {
  const normal = normalNumbers(seededRandom(seed));
  const t: number[] = [];
  const y: number[] = [];
  const begins: number[] = [];
  let value = levels[0]?.level ?? 0;
  let at = 0;
  for (const { level, seconds } of levels) {
    begins.push(at);
    for (let n = Math.round(seconds * hz); n > 0; n--) {
      at += 1 / hz;
      value += (level - value) * (1 - Math.exp(-1 / hz / lag));
      t.push(at);
      y.push(value + normal() * noise);
    }
  }
  return { t, y, begins };
}

const LEAST = { penalty: 14, least: 2.2 };

describe("a row that settles from level to level", () => {
  it("is cut where it leaves each, and told what it comes to, at four lines a second and at one", () => {
    const levels = [1760, 1800, 1730, 1800, 1745, 1800].map((level, i) => ({
      level,
      seconds: i < 2 ? 12 : 6,
    }));
    for (const hz of [4, 1]) {
      const { t, y, begins } = settled(levels, { hz });
      const pieces = settlingPieces(t, y, LEAST);
      expect(pieces).toHaveLength(levels.length);
      pieces.forEach((piece, i) => {
        expect(Math.abs(piece.level - (levels[i]?.level ?? 0))).toBeLessThan(8);
        expect(Math.abs((t[piece.from] as number) - (begins[i] as number))).toBeLessThanOrEqual(1 / hz + 0.3);
      });
    }
  });

  it("has three seconds on one side in it at one line a second", () => {
    const { t, y } = settled(
      [
        { level: 1800, seconds: 12 },
        { level: 1725, seconds: 3 },
        { level: 1800, seconds: 9 },
      ],
      { hz: 1, lag: 0.6 },
    );
    const pieces = settlingPieces(t, y, LEAST);
    expect(pieces).toHaveLength(3);
    expect(Math.abs((pieces[1]?.level ?? 0) - 1725)).toBeLessThan(14);
  });

  it("that stands is mostly one piece, however noisy it is and in whatever steps it is written", () => {
    let [one, all] = [0, 0];
    for (const noise of [1, 5, 12])
      for (const step of [1, 10, 25])
        for (let seed = 1; seed <= 8; seed++) {
          const { t, y } = settled([{ level: 1804, seconds: 40 }], { noise, seed });
          const written = y.map((value) => Math.round(value / step) * step);
          const { length } = settlingPieces(t, written, LEAST);
          expect(length).toBeLessThanOrEqual(3);
          all++;
          if (length === 1) one++;
        }
    expect(one / all).toBeGreaterThan(0.85);
  });

  it("is the same whatever is added to it, and the same when it is turned over", () => {
    const { t, y } = settled(
      [
        { level: 1800, seconds: 10 },
        { level: 1700, seconds: 8 },
      ],
      {},
    );
    const cuts = (row: readonly number[]) => settlingPieces(t, row, LEAST).map(({ from }) => from);
    expect(cuts(y.map((value) => value + 5000))).toEqual(cuts(y));
    expect(cuts(y.map((value) => -value))).toEqual(cuts(y));
  });

  it("has its pieces without a hole between them; nothing is no piece, and anything that is not a number is rejected", () => {
    const { t, y } = settled(
      [900, 1400, 1100, 1800].map((level) => ({ level, seconds: 5 })),
      { noise: 6 },
    );
    const pieces = settlingPieces(t, y, LEAST);
    expect(pieces[0]?.from).toBe(0);
    expect(pieces.at(-1)?.to).toBe(y.length);
    pieces.slice(1).forEach((piece, i) => {
      expect(piece.from).toBe(pieces[i]?.to);
    });
    expect(settlingPieces([], [], LEAST)).toEqual([]);
    expect(() => settlingPieces([0, 1], [1, Number.NaN], LEAST)).toThrow("not a number");
    expect(() => settlingPieces([0, 1], [1, 2], { penalty: 1, least: 0 })).toThrow("scatter");
  });
});

describe("where a piece begins", () => {
  /** Two noisy levels in direct succession, one sample per second. */
  const row = (first: number, second: number, at: number, seed: number) => {
    const normal = normalNumbers(seededRandom(seed));
    const t = Array.from({ length: 40 }, (_, i) => i);
    return { t, y: t.map((time) => (time < at ? first : second) + 4 * normal()) };
  };
  const borders = (apart: number) =>
    Array.from({ length: 60 }, (_, seed) => {
      const at = 12 + (seed % 14);
      const { t, y } = row(1740, 1740 - apart, at, seed);
      const pieces = settlingPieces(t, y, { penalty: 6, least: 2 });
      const ranges = beginsOf(t, y, pieces, 2);
      return pieces.length === 2 ? { at, range: ranges[1] as [number, number] } : undefined;
    }).filter((one) => one !== undefined);

  it("lies inside the stated times in at least nine of ten", () => {
    for (const apart of [10, 20, 60]) {
      const found = borders(apart);
      expect(found.length).toBeGreaterThan(10);
      const inside = found.filter(({ at, range }) => at >= range[0] && at <= range[1] + 0.01);
      expect([apart, inside.length / found.length >= 0.9]).toEqual([apart, true]);
    }
  });

  it("is the surer the further the levels are apart", () => {
    const width = (apart: number) => {
      const found = borders(apart);
      return found.reduce((sum, { range }) => sum + range[1] - range[0], 0) / found.length;
    };
    expect(width(60)).toBeLessThan(width(10));
    expect(width(60)).toBeLessThan(2.5);
  });
});
