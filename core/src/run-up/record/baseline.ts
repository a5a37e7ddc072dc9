import type { Judgement } from "../../judgement/judgement";
import { median } from "../../trend/median";
import { theilSen } from "../../trend/theil-sen";
import { formatNumber } from "../../units/format";

/** An earlier run-up of an engine, as recorded. */
export interface PastRunUp {
  at: string;
  engine?: string;
  baseRpm: number;
  rightDrop?: number;
  leftDrop?: number;
  heatDrop?: number;
  densityAltitudeFt?: number;
}

export type BaselineQuantity = "rightDrop" | "leftDrop" | "heatDrop";

/** An engine's usual drop: median and scatter, corrected to today's base rpm and density altitude. */
export interface Baseline {
  middle: number;
  scatter: number;
  count: number;
  /** Whether density altitude was corrected for, which needs enough variation. */
  forAltitude: boolean;
  /** Latest drops including today's, oldest first. */
  last: number[];
  growing: boolean;
}

/** Minimum run-ups for a baseline. */
export const MIN_FOR_BASELINE = 5;
const MIN_FOR_ALTITUDE = 8;
const MIN_SPAN_FT = 1500;
/** Consecutive run-ups, including today's, over which a drop that never decreased counts as increasing. */
const GROWING_OVER = 5;

/**
 * Baseline of an engine: median and scatter of its earlier drops (1.4826 · median absolute deviation, at least half a scale
 * division). Drops are scaled with base rpm by the cube law; with at least eight run-ups over at least 1,500 ft of density
 * altitude, the slope with altitude is removed (Theil–Sen). Undefined for fewer than five. Rpm; valid range: base above zero.
 * Source: Sen (1968); median absolute deviation as in textbooks on robust statistics; cube law: propeller coefficients.
 */
export function baselineOf(
  quantity: BaselineQuantity,
  today: { value: number; baseRpm: number; densityAltitudeFt?: number },
  past: readonly PastRunUp[],
  resolutionRpm: number,
): Baseline | undefined {
  const rows = past
    .flatMap((run) => {
      const drop = run[quantity];
      if (drop === undefined || !(run.baseRpm > 0)) return [];
      return [{ at: run.at, drop: (drop * today.baseRpm) / run.baseRpm, high: run.densityAltitudeFt }];
    })
    .sort((a, b) => (a.at < b.at ? -1 : 1));
  if (rows.length < MIN_FOR_BASELINE) return undefined;
  const placed = rows.filter((row): row is typeof row & { high: number } => row.high !== undefined);
  const heights = placed.map((row) => row.high);
  const forAltitude =
    today.densityAltitudeFt !== undefined &&
    placed.length >= MIN_FOR_ALTITUDE &&
    Math.max(...heights) - Math.min(...heights) >= MIN_SPAN_FT;
  const slope = forAltitude
    ? theilSen(
        heights,
        placed.map((row) => row.drop),
      ).slope
    : 0;
  const drops = rows.map(({ drop, high }) =>
    high === undefined ? drop : drop - slope * (high - (today.densityAltitudeFt ?? high)),
  );
  const middle = median(drops);
  const scatter = Math.max(1.4826 * median(drops.map((drop) => Math.abs(drop - middle))), resolutionRpm / 2);
  const last = [...drops.slice(-(GROWING_OVER - 1)), today.value];
  const growing =
    last.length === GROWING_OVER &&
    theilSen(
      last.map((_, i) => i),
      last,
    ).low > 0 &&
    today.value - (last[0] as number) > resolutionRpm;
  return { middle, scatter, count: rows.length, forAltitude, last, growing };
}

const SUBJECT: Record<BaselineQuantity, string> = {
  rightDrop: "Right drop against its usual value",
  leftDrop: "Left drop against its usual value",
  heatDrop: "Carburettor heat drop against its usual value",
};

/**
 * Judges today's drop against the engine's baseline. Within three times its scatter it is as usual; beyond that, or increasing
 * over five run-ups, it is "watch" even within the limit. Undefined without a baseline. Source: three-sigma control charts
 * (common practice).
 */
export function judgeBaseline(
  quantity: BaselineQuantity,
  today: { value: number; baseRpm: number; densityAltitudeFt?: number },
  past: readonly PastRunUp[],
  resolutionRpm: number,
): Judgement | undefined {
  const baseline = baselineOf(quantity, today, past, resolutionRpm);
  if (!baseline) return undefined;
  const times = (today.value - baseline.middle) / baseline.scatter;
  const far = Math.abs(times) >= 3;
  const usual = `${formatNumber(baseline.middle)} ± ${formatNumber(baseline.scatter)}`;
  const growth = baseline.growing
    ? ` ${far ? "and increasing" : "Increasing"} over the last ${GROWING_OVER} run-ups.`
    : "";
  const base = {
    id: `baseline.${quantity}`,
    subject: SUBJECT[quantity],
    scope: "aircraft" as const,
    reading: { value: today.value, unit: "rpm" as const },
    limit: `usually ${usual} rpm`,
    source: {
      kind: "own limit" as const,
      text: `${baseline.count} earlier run-ups of this engine${baseline.forAltitude ? ", adjusted to today's density altitude" : ""}`,
      example: false,
    },
  };
  if (!far && !baseline.growing)
    return {
      ...base,
      grade: "within limits",
      sentence: `${formatNumber(today.value)} rpm is normal for this engine: usually ${usual}.`,
    };
  return {
    ...base,
    grade: "watch",
    sentence: far
      ? `${formatNumber(today.value)} rpm is well ${times > 0 ? "above" : "below"} the usual ${usual} rpm${growth ? "," : "."}${growth}`
      : `${formatNumber(today.value)} rpm, usually ${usual}.${growth}`,
    action:
      times < 0
        ? "A drop that gets smaller can mean a magneto losing its ground. Check again and log it."
        : "Within limits, but unusual for this engine. Clear the plugs once, check again and log it.",
  };
}
