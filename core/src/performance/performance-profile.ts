import type { Source } from "../judgement/judgement";

/** Values over pressure altitude, temperature and, if there is more than one, mass. Each axis increases. */
export interface Chart {
  kg: number[];
  pressureAltitudeFt: number[];
  celsius: number[];
  /** By mass, then by pressure altitude, then by temperature. */
  values: number[][][];
}

/** Handbook chart for take-off or landing. */
export interface DistanceChart {
  kind: "chart";
  /** Ground roll and distance to or from 50 ft, m. */
  rollM: Chart;
  over50M: Chart;
  source: Source;
}

/** A single distance, at one mass, at sea level on a standard day, as some handbooks give. Published factors do the rest. */
export interface SingleDistance {
  kind: "single";
  kg: number;
  rollM: number;
  over50M: number;
  source: Source;
}

/** Influences that a chart may already contain. */
export const CHART_CONTAINS = ["wind", "grass", "slope"] as const;
export type ChartContains = (typeof CHART_CONTAINS)[number];

/** The handbook's own corrections; published factors cover the others. */
export interface HandbookCorrections {
  /** Percent shorter per knot of headwind, and longer per knot of tailwind. */
  headwindPercentPerKt?: number;
  tailwindPercentPerKt?: number;
  /** Where the corrections end: a stronger tailwind is off the chart, of a stronger headwind this much is used. */
  mostHeadwindKt?: number;
  mostTailwindKt?: number;
  /** Grass: percent of the ground roll. */
  grassPercentOfRoll?: number;
  wetGrassPercentOfRoll?: number;
  /** Percent longer per percent of slope: uphill for take-off, downhill for landing. */
  slopePercentPerPercent?: number;
  /** Already in the figures: no correction for these is added. */
  contained?: ChartContains[];
  source: Source;
}

export interface PerformanceProfile {
  takeOff: DistanceChart | SingleDistance;
  landing: DistanceChart | SingleDistance;
  corrections?: HandbookCorrections;
  liftOffKt: number;
  /** Over the threshold. */
  approachKt: number;
  climbKt: number;
  /** Feet per minute. */
  climbFpm?: { chart: Chart; source: Source };
  /** Twins: rate of climb on one engine, and accelerate-stop distance, m. */
  oneEngineFpm?: { chart: Chart; source: Source };
  accelerateStopM?: { chart: Chart; source: Source };
  /** Speed for best climb on one engine. */
  oneEngineKt?: number;
}

/** Launch methods of a glider with their wind limits, and the tug's climb. */
export interface LaunchProfile {
  winch?: LaunchLimit;
  aerotow?: LaunchLimit & { climbFpm?: number };
  [way: string]: LaunchLimit | undefined;
}

export interface LaunchLimit {
  maxWindKt?: number;
  maxCrossKt?: number;
  maxTailKt?: number;
  source: Source;
}

/** Declared distances of a runway; absent ones are unknown and never assumed. */
export interface Declared {
  /** Take-off run, take-off, accelerate-stop and landing distance available, m. */
  toraM: number;
  todaM: number;
  asdaM: number;
  ldaM: number;
}

const rises = (axis: readonly number[]) =>
  axis.every((value, i) => i === 0 || value > (axis[i - 1] as number));

/**
 * Faults in a chart: an axis that does not increase, a missing value, a distance that gets shorter with more mass, heat or
 * height.
 */
export function chartFaults(chart: Chart, path: string, falls = false): { path: string; expected: string }[] {
  const faults: { path: string; expected: string }[] = [];
  for (const axis of ["kg", "pressureAltitudeFt", "celsius"] as const)
    if (!rises(chart[axis])) faults.push({ path: `${path}.${axis}`, expected: "increasing numbers" });
  const whole =
    chart.values.length === chart.kg.length &&
    chart.values.every(
      (plane) =>
        plane.length === chart.pressureAltitudeFt.length &&
        plane.every((row) => row.length === chart.celsius.length && row.every(Number.isFinite)),
    );
  if (!whole)
    return [...faults, { path: `${path}.values`, expected: "a number in every cell; one is missing" }];
  const sign = falls ? -1 : 1;
  for (const [i, plane] of chart.values.entries())
    for (const [j, row] of plane.entries())
      for (const [k, value] of row.entries()) {
        const before = [chart.values[i - 1]?.[j]?.[k], plane[j - 1]?.[k], row[k - 1]];
        if (before.some((one) => one !== undefined && sign * (value - one) < 0))
          faults.push({
            path: `${path}.values[${i}][${j}][${k}]`,
            expected: falls
              ? "no better than at a lower mass, altitude or temperature"
              : "no shorter than at a lower mass, altitude or temperature",
          });
      }
  return faults;
}

/** Faults in a profile; paths as in the file. */
export function performanceFaults(profile: PerformanceProfile): { path: string; expected: string }[] {
  return [
    ...(["takeOff", "landing"] as const).flatMap((way) => {
      const one = profile[way];
      if (one.kind === "single")
        return one.over50M < one.rollM
          ? [{ path: `${way}.over50M`, expected: "no less than the ground roll" }]
          : [];
      return [...chartFaults(one.rollM, `${way}.rollM`), ...chartFaults(one.over50M, `${way}.over50M`)];
    }),
    ...(profile.climbFpm ? chartFaults(profile.climbFpm.chart, "climbFpm.chart", true) : []),
    ...(profile.oneEngineFpm ? chartFaults(profile.oneEngineFpm.chart, "oneEngineFpm.chart", true) : []),
    ...(profile.accelerateStopM ? chartFaults(profile.accelerateStopM.chart, "accelerateStopM.chart") : []),
  ];
}
