import type { Source } from "../judgement/judgement";

/** Numbers over pressure altitude, temperature and, where there is more than one, mass. Each axis goes up; as many numbers as the axes cross. */
export interface Chart {
  kg: number[];
  pressureAltitudeFt: number[];
  celsius: number[];
  /** By mass, then by pressure altitude, then by temperature. */
  values: number[][][];
}

/** What a handbook says of one of take-off and landing. */
export interface DistanceChart {
  kind: "chart";
  /** On the ground, and to or from 50 ft, m. */
  rollM: Chart;
  over50M: Chart;
  source: Source;
}

/** All that some handbooks give: one distance, at one mass, at sea level on a standard day. The published factors do the rest. */
export interface SingleDistance {
  kind: "single";
  kg: number;
  rollM: number;
  over50M: number;
  source: Source;
}

/** How the handbook itself corrects its distances; what it does not name is corrected by the published factors. */
export interface HandbookCorrections {
  /** By so many percent shorter for each knot against, and longer for each from behind. */
  headwindPercentPerKt?: number;
  tailwindPercentPerKt?: number;
  /** Dry grass: percent of the ground roll. */
  grassPercentOfRoll?: number;
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
  /** Feet a minute. */
  climbFpm?: { chart: Chart; source: Source };
  /** With one engine, and the distance to accelerate and stop, m: twins. */
  oneEngineFpm?: { chart: Chart; source: Source };
  accelerateStopM?: { chart: Chart; source: Source };
  /** Speed for the best climb with one engine. */
  oneEngineKt?: number;
}

/** How a glider may be launched, and in which wind; its tug's climb. */
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

/** What a runway declares; where it declares nothing, that is not known and no number stands for it. */
export interface Declared {
  /** Take-off run, take-off, accelerate-stop and landing distance available, m. */
  toraM: number;
  todaM: number;
  asdaM: number;
  ldaM: number;
}

const rises = (axis: readonly number[]) =>
  axis.every((value, i) => i === 0 || value > (axis[i - 1] as number));

/** What a chart cannot mean: an axis that does not rise, a hole, a distance that gets shorter where it is heavier, hotter or higher. */
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

/** What a profile cannot mean; paths as in the file. */
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
