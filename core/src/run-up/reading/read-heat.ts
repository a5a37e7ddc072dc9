import { cylindersOf } from "../../trace/trace";
import { median } from "../../trend/median";
import { rpmScale } from "../run-up-profile";
import { meanOf } from "./channel-means";
import { propellerRecoveryTime } from "./find-steps";
import type { FoundStep } from "./found-step";
import { valuesBetween } from "./level-change";
import { levelOf } from "./levels/stretch-level";
import {
  type Context,
  EVENLY,
  levelAtEnd,
  MIN_S,
  orNaN,
  rateOf,
  restsAtBase,
  rpmOf,
  runningMedian,
  settledRpm,
  settlingUncertainty,
  sigmaOf,
} from "./reading-context";
import type { HeatReading, RunUpReading } from "./run-up-reading";

/** How clearly the step is carburettor heat: duration, steady base, falling EGT. */
function plainness({ held, doubt, egtChange }: HeatReading): number {
  return (doubt ? 0 : 1) + (held >= MIN_S ? 1 : 0) + (egtChange === undefined || egtChange < -6 ? 1 : 0);
}

/** Chooses the later of two heat checks; without prompts only if it is at least as clear. */
export function clearerReading(
  before: HeatReading | undefined,
  now: HeatReading,
  prompted: boolean,
): HeatReading {
  return before && !prompted && plainness(before) > plainness(now) ? before : now;
}

/** Recovery time after a propeller cycle, seconds. */
const BACK_S = 1.5;
/** Neither ice nor the throttle moves rpm this far from run-up rpm: something else was going on. */
const NO_BASE = 0.12;
/** Share of the previous rpm that counts as recovered. */
const BACK_TO = 0.97;

/**
 * Reads carburettor heat, step `i`: drop from the steady base, development, rpm afterwards, and why it is unreliable if it is.
 * rpm, seconds, °F.
 */
export function readHeat(ctx: Context, i: number, { base: runUp, prompted }: RunUpReading): HeatReading {
  const { trace, steps } = ctx;
  const runUpBase = runUp?.value;
  const step = steps[i] as FoundStep;
  const cold = steps[i + 1]?.step === "cold" ? steps[i + 1] : undefined;
  const rpm = rpmOf(ctx);
  const scale = rpmScale(ctx.profile);
  const before = steps[i - 1];
  const settled =
    before?.step === "propeller"
      ? propellerRecoveryTime(trace, before.at, step.at - 0.1, scale)
      : before
        ? before.at + Math.min(3, 4 * before.settle)
        : 0;
  const calm = valuesBetween(
    trace,
    rpm,
    Math.min(step.at - 1.5, Math.max(step.at - 4, settled)),
    step.at - 0.1,
  );
  // A propeller still recovering is not a base: use that of the magnetos.
  const climbs = before?.step === "propeller" && rateOf(calm) > 6 * scale;
  const own = levelAtEnd({ t: calm.t, y: orNaN(calm.y) }, 4 * scale, ctx.grain);
  const base = climbs && runUpBase !== undefined ? Math.max(own, runUpBase) : own;
  const hotPiece = valuesBetween(trace, rpm, step.at, step.until - 0.15);
  const half = Math.max(1, Math.round(0.8 / Math.max(ctx.clean.interval, 0.1)));
  const smooth = runningMedian(hotPiece.y, half);
  const hotRow = smooth.slice(Math.floor(smooth.length * 0.12));
  const least = hotRow.length > 0 ? Math.min(...hotRow) : base;
  const atEnd = median(orNaN(valuesBetween(trace, rpm, step.until - 2, step.until - 0.15).y));
  const lateRow = valuesBetween(trace, rpm, step.at + 2.5, step.until - 0.15).y;
  const late = median(orNaN(lateRow));
  // Without ice rpm is steady; the minimum of noisy values would exaggerate the drop.
  const standing =
    Math.abs(atEnd - late) < 9 * rpmScale(ctx.profile) && Math.abs(late - least) < 14 * rpmScale(ctx.profile);
  const hot = standing ? late : least;
  const lowest = smooth.indexOf(least);
  const hotSigma = Math.hypot(
    sigmaOf(standing ? lateRow : hotPiece.y.slice(Math.max(0, lowest - half), lowest + half + 1), ctx.grain),
    settlingUncertainty(step.until - step.at, scale),
    // The median is a value the tachometer displays.
    ctx.grain / EVENLY,
  );
  // A base that is not the engine's own is uncertain by its distance from it.
  const baseSigma = Math.hypot(sigmaOf(calm.y, ctx.grain), (base - own) / 2);
  const egt = cylindersOf(trace, "egt").flatMap((cylinder) => {
    const values = trace.channels[`egt${cylinder}`] as Float64Array;
    const change =
      meanOf(trace, values, step.until - 1.5, step.until) - meanOf(trace, values, step.at - 2, step.at);
    return Number.isNaN(change) ? [] : [change];
  });
  const made: HeatReading = {
    from: step.at,
    to: cold?.until ?? step.until,
    held: step.until - step.at,
    base,
    hot,
    drop: base - hot,
    dropSigma: Math.hypot(baseSigma, hotSigma),
    seen: step.seen && Math.abs(base - hot) >= 6 * rpmScale(ctx.profile),
    roseWhileHot: Math.max(0, atEnd - hot),
    ...(climbs && { doubt: "Rpm was still recovering from the propeller cycle: repeat it." }),
  };
  // A recovered propeller leaves the engine on both; one still pulled does not.
  const cycled =
    before?.step === "propeller" &&
    !climbs &&
    step.at - settled >= BACK_S &&
    own > BACK_TO * (steps[i - 2]?.level ?? own);
  // Without a prompt and a steady base it may be anything.
  const beside = runUpBase !== undefined && Math.abs(base - runUpBase) > NO_BASE * runUpBase;
  if (!prompted && before && ((!restsAtBase(before) && !cycled) || beside))
    made.doubt ??= "Rpm was not steady on both before it: repeat it.";
  if (step.uncalled) made.doubt ??= "This step was not asked for: repeat it.";
  if (egt.length > 0) made.egtChange = median(egt);
  if (cold) {
    const again = settledRpm(ctx, cold, 9);
    // Left too soon: use the level of the whole stretch.
    const coldAgain = again.length >= 3 ? levelOf(again, ctx.grain).value : cold.level;
    if (coldAgain !== undefined) {
      made.coldAgain = coldAgain;
      made.gain = coldAgain - base;
      made.gainSigma = Math.hypot(
        baseSigma,
        again.length >= 3 ? sigmaOf(again, ctx.grain) : 0,
        settlingUncertainty(cold.until - cold.at, scale),
      );
    }
  }
  return made;
}
