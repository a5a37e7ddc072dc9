import { errorFunction } from "simple-statistics";

/** Level of a stretch, with its standard deviation. */
export interface StretchLevel {
  value: number;
  sigma: number;
}

/** Samples of a stretch: settled ones, and those during the transient. */
export interface WayAndRest {
  there: readonly number[];
  /** With the remaining share of the change, 0 to 1, for each candidate time constant and start. */
  onTheWay: readonly { value: number; toGo: readonly number[] }[];
  /** Starting level. */
  from: number;
}

/** Noise of a tachometer, rpm, one standard deviation, with prior weights (own estimate): usually a few rpm, more with a misfire. */
const UNREST: readonly { sigma: number; often: number }[] = [
  { sigma: 2, often: 0.18 },
  { sigma: 3.2, often: 0.26 },
  { sigma: 5, often: 0.3 },
  { sigma: 8, often: 0.16 },
  { sigma: 13, often: 0.06 },
  { sigma: 22, often: 0.04 },
];
/** Time constants of an engine after a change, seconds (own estimate: rotating inertia). */
const LAGS_S = [0.35, 0.55, 0.8, 1.1, 1.5];
/** Candidate start offsets between two samples, relative to their interval. */
const BEGINS = [-0.5, -0.17, 0.17, 0.5];
/** A sample sooner after the start may still belong to the previous level, relative to the interval. */
const SURELY_BEHIND = 0.6;

/** Candidate levels per instrument step; finer ones would not matter given the noise, rpm. */
const FINENESS = 16;
const FINEST_RPM = 1.5;
/** Search margin around settled samples, rpm. */
const BESIDE_RPM = 8;
/** Maximum number of candidate levels. */
const MAX_LEVELS = 1500;
/** Search margin beyond the last sample of an unsettled stretch, rpm. */
const BEYOND_RPM = 60;
const ENOUGH_THERE = 4;

/**
 * Splits the samples of a stretch that began at about `at` and had certainly settled from `restsFrom` on; `interval` is the
 * sampling interval. Seconds, rpm.
 */
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
 * Level of a stretch that may not have settled, with its standard deviation: Bayes' rule over levels, noise and time constants. A
 * sample in the transient points to the level, given the remaining share of the change; a value of a coarse instrument is an
 * interval of half a step either side. In the samples' unit.
 * Valid range: at least one sample; `grain` ≥ 0, the instrument's step. Source: Bayes' rule; rounded values as grouped data (from
 * memory).
 * Complexity: O(levels · (values + transient samples)).
 */
export function unsettledLevel({ there, onTheWay, from }: WayAndRest, grain: number): StretchLevel {
  const counts = new Map<number, number>();
  for (const value of there) counts.set(value, (counts.get(value) ?? 0) + 1);
  const nearest = there.length > 0 ? there : onTheWay.slice(-1).map(({ value }) => value);
  const few = onTheWay.length > 0 && there.length < ENOUGH_THERE;
  const beyond = Math.max(1.5 * grain, few ? BEYOND_RPM : BESIDE_RPM);
  const low = Math.min(...nearest) - beyond;
  const high = Math.max(...nearest) + beyond;
  const pitch = Math.max(grain / FINENESS, FINEST_RPM, (high - low) / MAX_LEVELS);
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

/** Minimum likelihood, so that a single wrong sample cannot decide alone. */
const LEAST = 1e-9;

/** Normal distribution function. */
const below = (z: number) => 0.5 * (1 + errorFunction(z / Math.SQRT2));
