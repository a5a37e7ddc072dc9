import { firstAt, type Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import { valuesBetween } from "../reading/level-change";

/** How far back a step is searched, seconds: older ones were seen when they happened. */
const STEP_BACK_S = 25;
/** A clear step shows within a second; a small one must last several seconds to stand out from the noise. */
const STEP_WINDOWS = [
  { seconds: 1.2, times: 2.4 },
  { seconds: 3.5, times: 1 },
] as const;

/**
 * Time of the last step down by at least this much within a second or two; undefined if rpm only drifted. A warming engine drifts
 * by a few rpm per minute, a key acts at once. Switching off a magneto never raises rpm: a rise means the throttle is still
 * moving.
 */
export function steppedAt(
  trace: Trace,
  rpm: Float64Array,
  since: number,
  now: number,
  least: number,
): number | undefined {
  const piece = valuesBetween(trace, rpm, Math.max(since - 4, now - STEP_BACK_S), now);
  for (const { seconds, times } of STEP_WINDOWS) {
    const at = lastStep(piece, since - 0.5, seconds, least * times);
    if (at !== undefined) return at;
  }
  return undefined;
}

function lastStep(
  { t, y }: { t: number[]; y: number[] },
  from: number,
  seconds: number,
  least: number,
): number | undefined {
  if (t.length < 4) return undefined;
  const interval = ((t.at(-1) as number) - (t[0] as number)) / (t.length - 1);
  const wide = Math.max(seconds, 3.2 * interval);
  const end = (t.at(-1) as number) + interval;
  const levelIn = (begin: number, until: number) =>
    median(orNaN(y.slice(firstAt(t, begin), firstAt(t, until + 1e-6))));
  let last: { at: number; size: number } | undefined;
  let before = false;
  for (const at of t) {
    const whole = at >= from && at - wide >= (t[0] as number) - interval && at + 0.8 + wide <= end;
    const size = whole ? levelIn(at - wide, at) - levelIn(at + 0.8, at + 0.8 + wide) : 0;
    const steps = size >= least;
    if (steps && (!before || size > (last?.size ?? 0))) last = { at, size };
    before = steps;
  }
  return last?.at;
}

/** Time at which rpm first left the level before by at least this much; undefined if it has not. */
export function answeredAt(
  trace: Trace,
  rpm: Float64Array,
  since: number,
  before: number,
  least: number,
): number | undefined {
  const { t, y } = valuesBetween(trace, rpm, since, trace.t.at(-1) ?? since);
  for (let i = 2; i < y.length; i++)
    if (Math.abs(median([y[i - 2] as number, y[i - 1] as number, y[i] as number]) - before) >= least)
      return t[i - 2];
  return undefined;
}

/** The values, or one NaN without any: a median needs one. */
export function orNaN(values: number[]): number[] {
  return values.length > 0 ? values : [Number.NaN];
}
