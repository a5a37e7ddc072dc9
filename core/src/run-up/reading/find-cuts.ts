import { otherSide } from "../../engine/side";
import { cylindersOf, type Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import type { RunUpProfile } from "../run-up-profile";
import type { FoundStep } from "./found-step";
import { valuesBetween } from "./level-change";
import { deviation } from "./reading-context";

/** No magneto drop or propeller cycle goes below this share of run-up rpm, and recovery takes at most this long, seconds. */
const DEEP = { fixed: 0.82, "constant speed": 0.72 } as const;
const MAX_S = 6;
/** Closing the throttle lowers manifold pressure by at least this, inHg; cutting the ignition does not. */
const THROTTLED_INHG = 2;

/** Minimum time on both after a cut, seconds; and the fall as a multiple of the scatter before it. */
const BACK_S = 3;
const OUT_OF_SCATTER = 6;

/** A brief engine cut that was caught before the engine stopped. */
export interface Cut {
  from: number;
  to: number;
}

/**
 * Finds engine cuts: rpm falls far below run-up rpm from a steady level and returns within seconds. That is a dead magneto,
 * switched back in time. Manifold pressure, if available, distinguishes a closed throttle. Cuts between two samples are found by
 * EGT (`cutsBetweenLines`). Seconds, rpm, inHg, °F. Complexity: O(n).
 * Source: common practice; the figures are own estimates.
 */
export function findCuts(trace: Trace, profile: RunUpProfile): Cut[] {
  const { rpm, map } = trace.channels;
  if (!rpm) return [];
  const { t } = trace;
  const deep = DEEP[profile.propeller] * profile.rpm;
  const near = (value: number) => Math.abs(value - profile.rpm) < 0.07 * profile.rpm;
  const around = (i: number, towards: -1 | 1, seconds = 4): number[] => {
    const seen: number[] = [];
    for (
      let k = i;
      k >= 0 && k < t.length && Math.abs((t[k] as number) - (t[i] as number)) < seconds;
      k += towards
    )
      seen.push(rpm[k] as number);
    return seen;
  };
  const cuts: Cut[] = [];
  for (let i = 1; i < t.length; i++) {
    if (!((rpm[i] as number) < deep) || !((rpm[i - 1] as number) >= deep)) continue;
    let end = i;
    while (end < t.length && (rpm[end] as number) < deep) end++;
    if (end >= t.length || (t[end] as number) - (t[i] as number) > MAX_S) continue;
    // From run-up rpm and back to it, without the flanks.
    const before = around(i - 1, -1).filter(near);
    const after = around(end, 1).filter(near);
    if (before.length < 2 || after.length < 1) continue;
    // A single sample near run-up rpm while the throttle closes is scatter: the return must last, and the fall exceed the
    // scatter.
    const back = around(end, 1, BACK_S);
    if (back.length > 2 && median(back) < (deep + profile.rpm) / 2) continue;
    const stood = median(before);
    const least = Math.min(...Array.from(rpm.slice(i, end)));
    if (stood - least < OUT_OF_SCATTER * deviation(around(i - 1, -1), stood)) continue;
    if (map) {
      const low = Math.min(...Array.from(map.slice(i, end)));
      const calm = median(Array.from(map.slice(Math.max(0, i - 6), Math.max(1, i - 1))));
      if (calm - low > THROTTLED_INHG) continue;
    }
    let from = i - 1;
    while (from > 0 && !near(rpm[from] as number)) from--;
    let to = end;
    while (to < t.length - 1 && !near(rpm[to] as number)) to++;
    const cut = { from: t[from] as number, to: t[to] as number };
    // During a propeller cycle combustion continues: without a fall of EGT there was no cut.
    if (!exhaustFell(trace, cut)) continue;
    cuts.push(cut);
    i = to;
  }
  const between = cutsBetweenLines(trace, profile).filter(
    (one) => !cuts.some(({ from, to }) => one.from <= to && one.to >= from),
  );
  return [...cuts, ...between].sort((a, b) => a.from - b.from);
}

/** Minimum relative dip and return of rpm on the one sample a cut may leave. */
const DIPPED = 0.03;
const BACK = 0.015;
/**
 * All EGT falling by this at once means no combustion, °F: heat, a return from a side and a propeller are slower or smaller.
 * Source: probes of two to five seconds (common practice).
 */
const WENT_OUT_F = 60;
const AT_ONCE_S = 2.5;

/**
 * Cuts between two samples: rpm hardly shows a fall, but all EGT fall together faster than heat, propeller or a return from a
 * side could cause. Requires EGT probes.
 */
function cutsBetweenLines(trace: Trace, profile: RunUpProfile): Cut[] {
  const { t, channels } = trace;
  const rpm = channels.rpm as Float64Array;
  const cylinders = cylindersOf(trace, "egt");
  if (cylinders.length < 3) return [];
  const near = (value: number) => Math.abs(value - profile.rpm) < 0.07 * profile.rpm;
  const cuts: Cut[] = [];
  for (let i = 3; i < t.length - 1; i++) {
    const calm = [i - 3, i - 2, i - 1].map((k) => rpm[k] as number);
    if (!calm.every(near)) continue;
    const stood = median(calm);
    if (!((rpm[i] as number) < (1 - DIPPED) * stood) || !((rpm[i - 1] as number) >= (1 - BACK) * stood))
      continue;
    let end = i;
    while (end < t.length && (rpm[end] as number) < (1 - BACK) * stood) end++;
    if (end >= t.length || (t[end] as number) - (t[i] as number) > MAX_S) continue;
    // Closing the throttle lowers EGT too; a single scattered sample is not a return.
    const back = valuesBetween(trace, rpm, t[end] as number, (t[end] as number) + BACK_S).y;
    if (back.length > 2 && median(back) < (1 - DIPPED) * stood) continue;
    const begin = t[i - 1] as number;
    const until = begin + Math.max(AT_ONCE_S, 1.3 * ((t[i] as number) - begin));
    const falls = cylinders.flatMap((cylinder) => {
      const values = channels[`egt${cylinder}`] as Float64Array;
      const before = valuesBetween(trace, values, t[i - 3] as number, begin).y;
      const behind = valuesBetween(trace, values, begin + 0.01, until).y;
      return before.length > 0 && behind.length > 0 ? [Math.min(...behind) - Math.min(...before)] : [];
    });
    if (falls.length < 3 || median(falls) > -WENT_OUT_F) continue;
    cuts.push({ from: begin, to: t[end] as number });
    i = end;
  }
  return cuts;
}

/** Minimum fall of EGT without combustion, despite slow probes, °F. */
const COOLED_F = 10;

/** True if EGT fell during a cut, by the median of its probes; without probes it is assumed. */
function exhaustFell(trace: Trace, { from, to }: Cut): boolean {
  const changes = cylindersOf(trace, "egt").flatMap((cylinder) => {
    const values = trace.channels[`egt${cylinder}`] as Float64Array;
    const calm = valuesBetween(trace, values, from - 3, from).y;
    const low = valuesBetween(trace, values, from, to + 2).y;
    return calm.length > 0 && low.length > 0 ? [Math.min(...low) - median(calm)] : [];
  });
  return changes.length === 0 || median(changes) < -COOLED_F;
}

/** Time within which a propeller cycle's first fall begins, seconds. */
const PULL_S = 2;

/** Inserts engine cuts into the steps: each cut is a side on which the engine quit, followed by both. */
export function insertEngineCuts(
  steps: readonly FoundStep[],
  cuts: readonly Cut[],
  profile: RunUpProfile,
): FoundStep[] {
  if (cuts.length === 0) return [...steps];
  const other = otherSide(profile.firstSide);
  const made: FoundStep[] = [];
  const tried = () => made.some(({ step }) => step === profile.firstSide);
  // A propeller cycle keeps its start: it can be as deep. A cut after its first fall is a side.
  const pulled = steps.filter(({ step }) => step === "propeller");
  const open = cuts.filter(({ from, to }) => !pulled.some(({ at }) => from < at + PULL_S && to > at - 1));
  /** A cut on the boundary of two steps is counted once. */
  const used = new Set<Cut>();
  /** End of the cut and its recovery: steps found inside belong to it. */
  let taken = Number.NEGATIVE_INFINITY;
  for (const step of steps) {
    if (step.until <= taken) continue;
    let rest: FoundStep = { ...step, at: Math.max(step.at, taken) };
    for (const cut of open) {
      const { from, to } = cut;
      if (from < rest.at - 1 || from >= rest.until || to > rest.until + 8) continue;
      if (used.has(cut)) continue;
      used.add(cut);
      if (from > rest.at) made.push({ ...rest, until: from });
      // A side found there is this cut.
      const side =
        rest.step === "right" || rest.step === "left" ? rest.step : tried() ? other : profile.firstSide;
      made.push({ step: side, at: from, until: to, seen: true, settle: 0.3, cut: true });
      rest = { ...rest, step: "both", at: to, seen: true, until: Math.max(rest.until, to + 0.1) };
      taken = to + 0.1;
    }
    made.push(rest);
  }
  return made;
}
