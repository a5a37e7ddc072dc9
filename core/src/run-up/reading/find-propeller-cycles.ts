import { cylindersOf, type Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import type { RunUpProfile } from "../run-up-profile";
import type { FoundStep } from "./found-step";
import { valuesBetween } from "./level-change";
import { deviation } from "./reading-context";

/** A propeller pulled towards coarse and pushed back, too quickly to leave a steady level. */
export interface PropellerCycle {
  /** Last sample before the fall and first sample after the recovery, seconds. */
  from: number;
  to: number;
}

/** Smallest fall as a share of the rpm before it: with manifold pressure to confirm it, and without. */
const FALL = { confirmed: 0.06, alone: 0.1 } as const;
/** The cycle ends when rpm is back within this share. */
const RECOVERED = 0.03;
/** Longest fall and recovery, seconds: a lever held longer leaves a level and is found by it. */
const MAX_S = 10;
/** Time before the fall that shows the rpm it starts from, seconds. */
const BEFORE_S = 4;
/** The fall as a multiple of the scatter before it. */
const OUT_OF_SCATTER = 5;

/** Coarse blades load the engine, so manifold pressure rises by at least this, inHg; a magneto or the throttle does not do that. */
const LOADED_INHG = 0.7;
/** EGT changes by less than this, °F: one magneto makes it rise further, a cut makes it fall further. */
const SAME_EGT_F = 18;

/**
 * Finds short propeller cycles by their shape: rpm falls from run-up power and comes back within seconds while EGT stays; if
 * manifold pressure is recorded it must rise. A trace with neither manifold pressure nor EGT shows none, because then a cycle looks
 * like a magneto. Valid range: times increasing; a constant-speed propeller, otherwise none is found. Complexity: O(n).
 * Source: effects on rpm, manifold pressure and EGT are textbook; the figures are own estimates.
 */
export function findPropellerCycles(trace: Trace, profile: RunUpProfile): PropellerCycle[] {
  const { rpm, map } = trace.channels;
  if (!rpm || profile.propeller !== "constant speed") return [];
  if (!map && cylindersOf(trace, "egt").length === 0) return [];
  const { t } = trace;
  const cycles: PropellerCycle[] = [];
  for (let i = 1; i < t.length; i++) {
    const stood = levelBefore(trace, i, profile);
    if (!stood || (rpm[i] as number) > (1 - RECOVERED) * stood.rpm) continue;
    let end = i;
    let lowest = rpm[i] as number;
    while (end < t.length && !((rpm[end] as number) >= (1 - RECOVERED) * stood.rpm)) {
      lowest = Math.min(lowest, rpm[end] as number);
      end++;
    }
    const cycle = { from: t[i - 1] as number, to: t[Math.min(end, t.length - 1)] as number };
    if (end < t.length && isCycle(trace, cycle, stood, lowest)) cycles.push(cycle);
    i = end;
  }
  return cycles;
}

/** Run-up rpm just before sample `i`, with its scatter; undefined if the engine was not at run-up rpm. */
function levelBefore(
  { t, channels }: Trace,
  i: number,
  profile: RunUpProfile,
): { rpm: number; scatter: number } | undefined {
  const rpm = channels.rpm as Float64Array;
  const before: number[] = [];
  for (let k = i - 1; k >= 0 && (t[i] as number) - (t[k] as number) < BEFORE_S; k--)
    if (Math.abs((rpm[k] as number) - profile.rpm) < 0.1 * profile.rpm) before.push(rpm[k] as number);
  if (before.length < 2) return undefined;
  const level = median(before);
  return { rpm: level, scatter: deviation(before, level) };
}

function isCycle(
  trace: Trace,
  { from, to }: PropellerCycle,
  stood: { rpm: number; scatter: number },
  lowest: number,
): boolean {
  const fall = stood.rpm - lowest;
  const { map } = trace.channels;
  // NaN where manifold pressure is missing or stuck.
  const rise = map ? changeOf(trace, map, { from, to }, Math.max) : Number.NaN;
  const known = !Number.isNaN(rise);
  if (known && rise < LOADED_INHG) return false;
  const least = known ? FALL.confirmed : FALL.alone;
  if (to - from > MAX_S || fall < least * stood.rpm || fall < OUT_OF_SCATTER * stood.scatter) return false;
  const exhaust = cylindersOf(trace, "egt").flatMap((cylinder) => {
    const values = trace.channels[`egt${cylinder}`] as Float64Array;
    const change = changeOf(trace, values, { from, to }, (...y) => median(y));
    return Number.isNaN(change) ? [] : [change];
  });
  return exhaust.length > 0 ? Math.abs(median(exhaust)) < SAME_EGT_F : known;
}

/** Change of a channel during a cycle against the seconds before it; NaN without values. */
function changeOf(
  trace: Trace,
  values: Float64Array,
  { from, to }: PropellerCycle,
  during: (...y: number[]) => number,
): number {
  const before = valuesBetween(trace, values, from - BEFORE_S, from).y;
  const then = valuesBetween(trace, values, from + 0.01, to).y;
  return before.length > 0 && then.length > 0 ? during(...then) - median(before) : Number.NaN;
}

/** A step that starts this close to a cycle is the cycle, taken for something else, seconds. */
const SAME_START_S = 1.5;

/** Inserts propeller cycles into the steps; as elsewhere, the time back at run-up rpm belongs to the propeller step. */
export function insertPropellerCycles(
  steps: readonly FoundStep[],
  cycles: readonly PropellerCycle[],
): FoundStep[] {
  const made: FoundStep[] = [];
  for (const step of steps) {
    let rest: FoundStep = { ...step };
    for (const cycle of cycles) {
      if (rest.step === "propeller" || cycle.from >= rest.until - 0.3 || cycle.from < rest.at - SAME_START_S)
        continue;
      const isThis = Math.abs(cycle.from - rest.at) < SAME_START_S;
      if (isThis ? !canBeMistaken(rest, cycle) : !standsAtBase(rest)) continue;
      if (!isThis) made.push({ ...rest, until: cycle.from });
      const { perhapsBoth: _, level: __, ...plain } = rest;
      rest = {
        ...plain,
        step: "propeller",
        seen: true,
        settle: 0.5,
        at: isThis ? rest.at : cycle.from,
        atRange: isThis ? (rest.atRange ?? [cycle.from, cycle.from]) : [cycle.from, cycle.from],
      };
    }
    const last = made.at(-1);
    if (last?.step === "propeller" && (rest.step === "propeller" || isReturn(rest))) last.until = rest.until;
    else made.push(rest);
  }
  return made;
}

const standsAtBase = ({ step }: FoundStep): boolean =>
  step === "run-up" || step === "both" || step === "cold" || step === "load";

/** Back at run-up rpm after what was taken for heat or a side. */
const isReturn = ({ step }: FoundStep): boolean => step === "cold" || step === "run-up" || step === "both";

/** Heat or a short side that is no longer than the cycle, or the return to run-up rpm just before it. */
const canBeMistaken = (step: FoundStep, { to }: PropellerCycle): boolean =>
  step.step === "heat" || standsAtBase(step) || (isSide(step) && !step.cut && step.until <= to + 2);

const isSide = ({ step }: FoundStep): boolean => step === "right" || step === "left";
