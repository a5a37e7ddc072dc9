import { errorFunction } from "simple-statistics";

/** What a needle stood at over a stretch, and how sure that is: one standard deviation. */
export interface StretchLevel {
  value: number;
  sigma: number;
}

/** The lines of a stretch: those from when on it had settled, and those before. */
export interface WayAndRest {
  there: readonly number[];
  /** Each with the part of the way that was still to go, 0 to 1, once for every manner of settling that is thought of. */
  onTheWay: readonly { value: number; toGo: readonly number[] }[];
  /** Where it came from. */
  from: number;
}

/** How restless a needle is, rpm, one standard deviation, and how often (own estimate): some rpm mostly, more where a cylinder misses. */
const UNREST: readonly { sigma: number; often: number }[] = [
  { sigma: 2, often: 0.18 },
  { sigma: 3.2, often: 0.26 },
  { sigma: 5, often: 0.3 },
  { sigma: 8, often: 0.16 },
  { sigma: 13, often: 0.06 },
  { sigma: 22, often: 0.04 },
];
/** How soon an engine may settle behind a key or a lever, seconds (own estimate: what turns has its inertia). */
const LAGS_S = [0.35, 0.55, 0.8, 1.1, 1.5];
/** Where its begin may lie between two lines, parts of their distance. */
const BEGINS = [-0.5, -0.17, 0.17, 0.5];
/** A line that comes sooner behind the begin may still be of before, parts of a line's distance. */
const SURELY_BEHIND = 0.6;

/** So many levels to each step of the instrument are weighed; finer than this, rpm, says nothing more under the unrest of any needle. */
const FINENESS = 16;
const FINEST_RPM = 1.5;
/** So far beside its lines a level may lie that they stood at, rpm. */
const BESIDE_RPM = 8;
/** More are not weighed, however wild the lines are. */
const MOST_LEVELS = 1500;
/** So far beyond the last lines a level may lie that nothing had come to, rpm. */
const BEYOND_RPM = 60;
const ENOUGH_THERE = 4;

/** The lines of a stretch that began at about `at` and had surely settled from `restsFrom` on; `interval` is how far apart they are. Seconds, rpm. */
export function splitTransient(
  { t, y }: { t: readonly number[]; y: readonly number[] },
  { at, restsFrom, from, interval }: { at: number; restsFrom: number; from: number; interval: number },
): WayAndRest {
  const there: number[] = [];
  const onTheWay: { value: number; toGo: number[] }[] = [];
  t.forEach((when, i) => {
    const value = y[i] as number;
    if (when >= restsFrom) there.push(value);
    else if (when - at > SURELY_BEHIND * interval)
      onTheWay.push({
        value,
        toGo: LAGS_S.flatMap((lag) =>
          BEGINS.map((beside) => Math.exp(-Math.max(0, when - at - beside * interval) / lag)),
        ),
      });
  });
  return { there, onTheWay, from };
}

/**
 * The level of a stretch that may have been left before it stood, and how sure it is: mean and deviation by Bayes' rule over every level, every unrest of the needle and every manner of settling. A line
 * on the way says where it leads, as far as one knows how much of the way was still to go; a figure of a coarse instrument says that the needle was within half a step of it. In the lines' unit.
 * Valid range: at least one line; `grain` ≥ 0, the instrument's step. Source: Bayes' rule; a rounded figure as an interval is the likelihood of grouped data (from memory).
 * Complexity: O(levels · (figures + lines on the way)).
 */
export function unsettledLevel({ there, onTheWay, from }: WayAndRest, grain: number): StretchLevel {
  const counts = new Map<number, number>();
  for (const value of there) counts.set(value, (counts.get(value) ?? 0) + 1);
  const nearest = there.length > 0 ? there : onTheWay.slice(-1).map(({ value }) => value);
  const few = onTheWay.length > 0 && there.length < ENOUGH_THERE;
  const beyond = Math.max(1.5 * grain, few ? BEYOND_RPM : BESIDE_RPM);
  const low = Math.min(...nearest) - beyond;
  const high = Math.max(...nearest) + beyond;
  const pitch = Math.max(grain / FINENESS, FINEST_RPM, (high - low) / MOST_LEVELS);
  const half = Math.max(grain, 1) / 2;
  const manners = onTheWay[0]?.toGo.length ?? 0;
  const squares = new Float64Array(manners);
  const found: { level: number; log: number }[] = [];
  let most = Number.NEGATIVE_INFINITY;
  for (let level = low; level <= high; level += pitch) {
    for (let manner = 0; manner < manners; manner++) {
      let square = 0;
      for (const { value, toGo } of onTheWay)
        square += (value - level - (toGo[manner] as number) * (from - level)) ** 2;
      squares[manner] = square;
    }
    for (const { sigma, often } of UNREST) {
      let log = Math.log(often);
      for (const [figure, count] of counts) {
        const within = below((figure + half - level) / sigma) - below((figure - half - level) / sigma);
        log += count * Math.log(Math.max(within, LEAST));
      }
      if (manners > 0) {
        const variance = sigma ** 2 + grain ** 2 / 12;
        let sum = 0;
        for (let manner = 0; manner < manners; manner++)
          sum += Math.exp(-(squares[manner] as number) / (2 * variance));
        log += Math.log(Math.max(sum / manners, LEAST ** onTheWay.length));
        log -= (onTheWay.length * Math.log(variance)) / 2;
      }
      most = Math.max(most, log);
      found.push({ level, log });
    }
  }
  let weight = 0;
  let first = 0;
  let second = 0;
  for (const { level, log } of found) {
    const part = Math.exp(log - most);
    weight += part;
    first += part * (level - low);
    second += part * (level - low) ** 2;
  }
  const mean = first / weight;
  return { value: low + mean, sigma: Math.sqrt(Math.max(0, second / weight - mean ** 2)) };
}

/** Nothing is impossible: one line that is wrong shall not decide alone. */
const LEAST = 1e-9;

/** The part of a normal distribution below so many standard deviations. */
const below = (z: number) => 0.5 * (1 + errorFunction(z / Math.SQRT2));
