import type { Judgement } from "../judgement/judgement";
import { theilSen } from "../trend/theil-sen";
import { formatNumber } from "../units/format";

const FEWEST = 6;
const MIN_DAYS = 30;
const DAY = 86_400_000;
/** Smallest drift worth reporting, feet per month. */
const WORTH_FT = 5;

/**
 * Judges altimeter drift: a robust line through its errors over the months including today, and when it would leave the
 * tolerance. Reported only if the line's interval excludes zero. Errors in feet; valid range: six readings over at least thirty
 * days, undefined otherwise. Source: Sen (1968); the meaning of drift is common practice.
 */
export function judgeAltimeterDrift(
  errors: readonly { at: string; errorFt: number }[],
  toleranceFt: number | undefined,
): Judgement | undefined {
  const days = errors.map(({ at }) => Date.parse(at) / DAY);
  const first = Math.min(...days);
  const last = Math.max(...days);
  if (errors.length < FEWEST || last - first < MIN_DAYS) return undefined;
  const line = theilSen(
    days.map((day) => day - first),
    errors.map(({ errorFt }) => errorFt),
  );
  const perMonth = line.slope * 30.4;
  if ((line.low <= 0 && line.high >= 0) || Math.abs(perMonth) < WORTH_FT) return undefined;
  const now = line.intercept + line.slope * (last - first);
  const left =
    toleranceFt === undefined ? undefined : toleranceFt - Math.abs(now) * Math.sign(now * line.slope || 1);
  const months = left === undefined ? undefined : left / Math.abs(perMonth);
  return {
    id: "altimeter.drift",
    subject: "Altimeter drift",
    scope: "aircraft",
    grade: "watch",
    reading: { value: perMonth, unit: "ft" },
    sentence: `It reads ${formatNumber(Math.abs(perMonth))} ft ${perMonth > 0 ? "higher" : "lower"} every month${months !== undefined && months > 0 && months < 24 ? `: outside its ${formatNumber(toleranceFt ?? 0)} ft tolerance in about ${formatNumber(Math.max(1, months))} ${Math.round(months) === 1 ? "month" : "months"}` : ""}.`,
    action:
      "Altimeter or static system is drifting. Have it checked before it is out of tolerance and before instrument flight.",
    source: { kind: "own limit", text: `${errors.length} readings of this aircraft`, example: false },
  };
}
