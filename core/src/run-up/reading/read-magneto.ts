import { cylindersOf } from "../../trace/trace";
import { median, midmean } from "../../trend/median";
import { rpmScale } from "../run-up-profile";
import { JUMPS, jumpiness, meanOf } from "./channel-means";
import type { FoundStep } from "./found-step";
import { valuesBetween } from "./level-change";
import { levelOf } from "./levels/stretch-level";
import { type StretchLevel, splitTransient, unsettledLevel } from "./levels/unsettled-level";
import {
  type Context,
  deviation,
  levelAtEnd,
  MIN_S,
  restsAtBase,
  rpmOf,
  settledRpm,
  settlingUncertainty,
} from "./reading-context";
import type { MagnetoReading, RunUpReading, Side } from "./run-up-reading";

/** Fewer samples than this cannot determine a level alone. */
const FEW_LINES = 8;

/** At this sampling interval a side needs three samples, seconds: two may be the way there and back. */
const FAR_BETWEEN_S = 1.5;

/** Minimum samples after the hand would have moved, to conclude that nothing dropped. */
const MIN_FOR_NONE = 3;

/** Time before a side used to measure a probe's scatter, seconds. */
const LOOKED_BACK_S = 8;
/** Relative uncertainty between candidate time constants, which are a factor of about two apart. */
const MANNERS_APART = 0.2;

/** No engine runs faster on one magneto: a rise beyond this is not scatter, rpm at 1,800. */
const FASTER_RPM = 10;

/** Reads one side, step `i`, into `reading`: base, level, drop with uncertainty, running, EGT by cylinder. */
export function readMagneto(ctx: Context, i: number, side: Side, reading: RunUpReading): void {
  const { trace, steps, clean, profile } = ctx;
  const step = steps[i] as FoundStep;
  const before = steps[i - 1];
  const next = steps[i + 1];
  const rpm = rpmOf(ctx);
  const scale = rpmScale(profile);
  // Without a response rpm is read from when the hand would have moved.
  const from = step.at + (step.seen ? settled(step) : 3);
  const to = step.until - 0.15;
  const beforeFrom = Math.max(before ? before.at + Math.min(3, 4 * before.settle) : step.at - 5, step.at - 5);
  const fewest = Math.max(1.5, 2.6 * clean.interval);
  // Earlier samples belong to the previous transient.
  const least = before ? before.at + Math.min(1.5, 2 * before.settle) : Number.NEGATIVE_INFINITY;
  const calmPiece = valuesBetween(
    trace,
    rpm,
    Math.max(least, Math.min(beforeFrom, step.at - fewest)),
    step.at - 0.1,
  );
  const stoodAt = before?.level;
  if (calmPiece.y.length < 2 && stoodAt !== undefined) {
    // Too few samples: use the level of the whole stretch.
    calmPiece.t = [step.at - 1, step.at];
    calmPiece.y = [stoodAt, stoodAt];
  }
  const calm = calmPiece.y;
  const alone = valuesBetween(trace, rpm, from, to).y;
  const whole = valuesBetween(trace, rpm, step.at, Math.max(to, step.at + 0.5)).y;
  if (calm.length < 2 || whole.length < 2) return;
  const straight = before?.step === "right" || before?.step === "left";
  const behindHeat = before?.step === "heat" ? bothBehindHeat(calm, ctx, i) : undefined;
  const stoodOnBoth =
    behindHeat ?? (straight ? straightOn(calm, ctx, reading) : baseBefore(calmPiece, ctx, i));
  const base = stoodOnBoth.value;
  const quit = step.cut === true || Math.min(...whole) < 0.12 * profile.rpm;
  const standing = alone.length >= 4 ? alone : whole.slice(-Math.max(2, Math.floor(whole.length / 3)));
  const way = splitTransient(valuesBetween(trace, rpm, step.at, to), {
    at: step.at,
    restsFrom: from,
    from: straight ? (reading.tries.at(-1)?.level ?? base) : base,
    interval: clean.interval,
  });
  // With enough settled samples, the transient adds nothing.
  const few = alone.length < FEW_LINES && way.onTheWay.length + way.there.length > 0;
  const stood = few && !quit ? unsettledLevel(way, ctx.grain) : levelOf(standing, ctx.grain);
  const level = quit ? 0 : stood.value;
  const held = step.until - step.at;
  const calmSigma = Math.max(deviation(calm, median(calm)), 2.2 * scale);
  const shake = quit ? 0 : deviation(standing, median(standing));
  const roughness = quit ? 1 : Math.max(shake, 0.1) / calmSigma;
  // At any sampling interval, one sample is inside.
  const lines = 1.2 * clean.interval;
  const egtBefore: Record<number, number> = {};
  const egtChange: Record<number, number> = {};
  const egtSigma: Record<number, number> = {};
  for (const cylinder of cylindersOf(trace, "egt")) {
    const values = trace.channels[`egt${cylinder}`] as Float64Array;
    // Directly from the other side EGT is hot already, after heat still cool: compare with both.
    const calmTo = straight || behindHeat ? (reading.base?.to ?? step.at) : step.at;
    const wasFrom = calmTo - Math.max(2, lines);
    const isFrom = Math.max(step.at + 1.5, to - Math.max(1.5, lines));
    const was = meanOf(trace, values, wasFrom, calmTo);
    const is = meanOf(trace, values, isFrom, to);
    if (Number.isNaN(was) || Number.isNaN(is)) continue;
    egtBefore[cylinder] = was;
    egtChange[cylinder] = is - was;
    const scatter = jumpiness(valuesBetween(trace, values, calmTo - LOOKED_BACK_S, to).y) / JUMPS;
    const count = (from: number, until: number) => valuesBetween(trace, values, from, until).y.length;
    egtSigma[cylinder] = scatter * Math.sqrt(1 / count(wasFrom, calmTo) + 1 / count(isFrom, to));
  }
  const made: MagnetoReading = {
    side,
    from: step.at,
    to: step.until,
    base,
    level,
    drop: base - level,
    dropSigma: Math.hypot(stoodOnBoth.sigma, stood.sigma, settlingUncertainty(held, scale)),
    seen: step.seen,
    held,
    roughness,
    feel: quit ? "quit" : roughness > 2.6 && shake > 8.5 * scale ? "rough" : "smooth",
    egtBefore,
    egtChange,
    egtSigma,
    egtBeside: egtChange,
  };
  if (next?.step === "both") {
    const back = settledRpm(ctx, next, 8);
    if (back.length >= 3) {
      const stoodBack = levelOf(back, ctx.grain);
      made.back = stoodBack.value;
      made.backSigma = stoodBack.sigma;
      made.backAfter = next.settle * 3;
      made.backAfterSigma = Math.hypot(MANNERS_APART * made.backAfter, clean.interval / Math.sqrt(12));
    }
  }
  const hole = clean.problems.some(
    (p) => p.kind === "gap" && (p.from ?? 0) < step.until && (p.to ?? 0) > step.at - 1,
  );
  // A stop shows in the samples there are, whatever is missing.
  if (hole && !quit) made.doubt = "Data missing in the trace here: repeat it.";
  else if (
    !quit &&
    (held < MIN_S ||
      (clean.interval > FAR_BETWEEN_S && whole.length < 3) ||
      (!step.seen && alone.length < MIN_FOR_NONE))
  )
    made.doubt = "Too short to settle: repeat it and stay a few seconds longer.";
  else if (!quit && made.drop < -FASTER_RPM * scale)
    made.doubt = "Rpm was higher than on both, so the throttle moved: repeat it.";
  if (step.hardly) made.doubt ??= "Almost no drop: repeat it, watching the key and the tachometer.";
  if (step.uncalled && !quit) made.doubt ??= "This step was not asked for: repeat it.";
  reading.tries.push(made);
  const called = reading.prompted && !step.uncalled;
  // Without prompts, a moment on the way back may look like a repeat: it does not replace a settled result.
  const settledBefore = !called && reading[side] !== undefined && !reading[side]?.doubt;
  // Nor a side on which the engine quit: a later "side" may be the propeller, or the other side.
  const stoppedBefore = !called && reading[side]?.feel === "quit" && !quit;
  if (!stoppedBefore && (!made.doubt || !settledBefore)) reading[side] = made;
}

/** Directly from the other side: use the run-up base. */
function straightOn(calm: readonly number[], { grain }: Context, { base }: RunUpReading): StretchLevel {
  return { value: base?.value ?? midmean(calm), sigma: levelOf(calm, grain).sigma };
}

/**
 * Level on both for a side that follows directly after heat, as coarse traces suggest: the level before heat. Undefined if
 * unknown, or if the level afterwards shows that heat was still on.
 */
function bothBehindHeat(
  calm: readonly number[],
  { steps, grain, profile }: Context,
  i: number,
): StretchLevel | undefined {
  const both = steps.slice(0, i).findLast(restsAtBase)?.level;
  if (both === undefined) return undefined;
  const next = steps[i + 1];
  const back = next?.step === "both" ? next.level : undefined;
  const hot = median(calm);
  if (back !== undefined && Math.abs(back - hot) < Math.abs(back - both)) return undefined;
  return { value: both, sigma: Math.hypot(levelOf(calm, grain).sigma, BEHIND_HEAT_RPM * rpmScale(profile)) };
}
/** Uncertainty from melting ice and throttle changes, rpm at 1,800 (own estimate). */
const BEHIND_HEAT_RPM = 6;

/** Beyond this change the throttle was moved; a key or heat settles by itself. Relative to run-up rpm. */
const BY_ITSELF = 0.15;
/** A longer stretch has settled, seconds. */
const STOOD_S = 8;

/** Level on both before step `i`, whose last samples are `calm`; for a short stretch, the level it was approaching. */
function baseBefore(calm: { t: number[]; y: number[] }, ctx: Context, i: number): StretchLevel {
  const { trace, steps, clean, profile, grain } = ctx;
  const { at } = steps[i] as FoundStep;
  const before = steps[i - 1];
  const from = steps[i - 2]?.level;
  const calmly = levelOf(calm.y, grain);
  if (
    before &&
    from !== undefined &&
    calm.y.length < FEW_LINES &&
    before.at > at - STOOD_S &&
    Math.abs(from - median(calm.y)) < BY_ITSELF * profile.rpm
  ) {
    const way = splitTransient(valuesBetween(trace, rpmOf(ctx), before.at, at - 0.1), {
      at: before.at,
      restsFrom: before.at + settled(before),
      from,
      interval: clean.interval,
    });
    if (way.onTheWay.length + way.there.length > 1) return unsettledLevel(way, grain);
  }
  // Left before it had settled: the approached level says more than the last value.
  const short = before?.level !== undefined && at - before.at < 5 * before.settle;
  const value = short ? (before.level as number) : levelAtEnd(calm, 4 * rpmScale(profile), grain);
  // An unsettled level is uncertain by its distance from the last value.
  return { value, sigma: Math.hypot(calmly.sigma, (value - calmly.value) / 2) };
}

/** Settling time after the start of a step, seconds. */
const settled = ({ settle }: FoundStep): number => Math.min(3, Math.max(1.2, 4 * settle));

/**
 * EGT keeps rising for seconds and falls as slowly: compare sides after the same time on each, starting from the lower of the
 * two, since the second may begin while EGT is still hot from the first.
 */
export function compareSides({ trace, clean }: Context, { right, left }: RunUpReading): void {
  if (!right || !left) return;
  const short = Math.min(right.held, left.held);
  for (const made of [right, left]) {
    made.egtBeside = Object.fromEntries(
      Object.keys(made.egtBefore).flatMap((name) => {
        const cylinder = Number(name);
        const was = Math.min(
          right.egtBefore[cylinder] ?? Number.POSITIVE_INFINITY,
          left.egtBefore[cylinder] ?? Number.POSITIVE_INFINITY,
        );
        const values = trace.channels[`egt${cylinder}`] as Float64Array;
        const end = made.from + short - 0.15;
        const is = meanOf(
          trace,
          values,
          Math.max(made.from + 1.5, end - Math.max(1.5, 1.2 * clean.interval)),
          end,
        );
        return Number.isNaN(is) ? [] : [[cylinder, is - was]];
      }),
    );
  }
}
