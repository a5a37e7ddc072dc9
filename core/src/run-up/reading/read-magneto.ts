import { cylindersOf } from "../../trace/trace";
import { median, midmean } from "../../trend/median";
import { rpmScale } from "../run-up-profile";
import type { FoundStep } from "./found-step";
import { JUMPS, jumpiness, meanOf } from "./label-plateaus";
import { valuesBetween } from "./level-change";
import { levelOf } from "./levels/stretch-level";
import { type StretchLevel, splitTransient, unsettledLevel } from "./levels/unsettled-level";
import {
  type Context,
  deviation,
  levelAtEnd,
  restsAtBase,
  rpmOf,
  SHORTEST_S,
  settledRpm,
  settlingUncertainty,
} from "./reading-context";
import type { MagnetoReading, RunUpReading, Side } from "./run-up-reading";

/** Fewer lines than this do not say by themselves where a stretch stood. */
const FEW_LINES = 8;

/** With lines as far between a side has to have three of them, seconds: two may be its way there and its way back. */
const FAR_BETWEEN_S = 1.5;

/** With fewer lines behind the moment in which a hand would have moved it cannot be said that nothing dropped. */
const FEWEST_FOR_NONE = 3;

/** So long before a side says how a probe scatters, seconds. */
const LOOKED_BACK_S = 8;
/** Manners of settling are tried in steps of about two: even between them, one standard deviation as a part. */
const MANNERS_APART = 0.2;

/** No engine runs faster on one magneto: by so much it is no scatter, rpm at 1,800. */
const FASTER_RPM = 10;

/** Reads one side, the step `i`: base, level, drop and how sure it is, how it ran, exhaust by cylinder; into `reading`. */
export function readMagneto(ctx: Context, i: number, side: Side, reading: RunUpReading): void {
  const { trace, steps, clean, profile } = ctx;
  const step = steps[i] as FoundStep;
  const before = steps[i - 1];
  const next = steps[i + 1];
  const rpm = rpmOf(ctx);
  const scale = rpmScale(profile);
  // Without an answer the needle is read from when a hand would have moved.
  const from = step.at + (step.seen ? settled(step) : 3);
  const to = step.until - 0.15;
  const beforeFrom = Math.max(before ? before.at + Math.min(3, 4 * before.settle) : step.at - 5, step.at - 5);
  const fewest = Math.max(1.5, 2.6 * clean.interval);
  // What lies before the stretch is its way there, and no base.
  const least = before ? before.at + Math.min(1.5, 2 * before.settle) : Number.NEGATIVE_INFINITY;
  const calmPiece = valuesBetween(
    trace,
    rpm,
    Math.max(least, Math.min(beforeFrom, step.at - fewest)),
    step.at - 0.1,
  );
  const stoodAt = before?.level;
  if (calmPiece.y.length < 2 && stoodAt !== undefined) {
    // Too few lines in it: where the stretch as a whole stood.
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
  // With lines enough to stand by itself, how it came there says nothing more.
  const few = alone.length < FEW_LINES && way.onTheWay.length + way.there.length > 0;
  const stood = few && !quit ? unsettledLevel(way, ctx.grain) : levelOf(standing, ctx.grain);
  const level = quit ? 0 : stood.value;
  const held = step.until - step.at;
  const calmSigma = Math.max(deviation(calm, median(calm)), 2.2 * scale);
  const shake = quit ? 0 : deviation(standing, median(standing));
  const roughness = quit ? 1 : Math.max(shake, 0.1) / calmSigma;
  // However far apart the lines are, one lies in it.
  const lines = 1.2 * clean.interval;
  const egtBefore: Record<number, number> = {};
  const egtChange: Record<number, number> = {};
  const egtSigma: Record<number, number> = {};
  for (const cylinder of cylindersOf(trace, "egt")) {
    const values = trace.channels[`egt${cylinder}`] as Float64Array;
    // Straight from the other side it is hot already, out of warm air still cool: it is held against both.
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
  // A stop is seen in the lines that there are: lines that are missing do not unsay it.
  if (hole && !quit) made.doubt = "Data missing in the trace here: repeat it.";
  else if (
    !quit &&
    (held < SHORTEST_S ||
      (clean.interval > FAR_BETWEEN_S && whole.length < 3) ||
      (!step.seen && alone.length < FEWEST_FOR_NONE))
  )
    made.doubt = "Too short to settle: repeat it and stay a few seconds longer.";
  else if (!quit && made.drop < -FASTER_RPM * scale)
    made.doubt = "Rpm was higher than on both, so the throttle moved: repeat it.";
  if (step.hardly) made.doubt ??= "Almost no drop: repeat it, watching the key and the tachometer.";
  if (step.uncalled && !quit) made.doubt ??= "This step was not asked for: repeat it.";
  reading.tries.push(made);
  const called = reading.prompted && !step.uncalled;
  // Without prompts a moment on the way back may look like one more try: it takes nothing from one that had settled.
  const settledBefore = !called && reading[side] !== undefined && !reading[side]?.doubt;
  // Nor from one on which it stopped: what looks like a try behind it may be the propeller, or the other side.
  const stoppedBefore = !called && reading[side]?.feel === "quit" && !quit;
  if (!stoppedBefore && (!made.doubt || !settledBefore)) reading[side] = made;
}

/** Straight from the other side: the base is that of the run-up. */
function straightOn(calm: readonly number[], { grain }: Context, { base }: RunUpReading): StretchLevel {
  return { value: base?.value ?? midmean(calm), sigma: levelOf(calm, grain).sigma };
}

/**
 * Where the engine stood on both where a side comes straight out of the warm air, as it seems where the lines are far apart: before the heat, and not in it. Undefined where that is not known, or
 * where what it came back to says that the heat was still on.
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
/** Ice that went meanwhile, and a throttle that was touched, leave it so unsure, rpm at 1,800 (own estimate). */
const BEHIND_HEAT_RPM = 6;

/** So far a hand on the throttle takes it; a key, or warm air, does not: only behind these it settles by itself. Part of the run-up rpm. */
const BY_ITSELF = 0.15;
/** A stretch that is longer stood for itself, seconds. */
const STOOD_S = 8;

/** Where the engine stood on both before the step `i`, whose last lines are `calm`; of a short stretch where it was going. */
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
  // Left before it had settled: where it was going says more than where it was.
  const short = before?.level !== undefined && at - before.at < 5 * before.settle;
  const value = short ? (before.level as number) : levelAtEnd(calm, 4 * rpmScale(profile), grain);
  // What still moved is as unsure as it is far from where it stood.
  return { value, sigma: Math.hypot(calmly.sigma, (value - calmly.value) / 2) };
}

/** So long behind its begin a step has surely settled, seconds. */
const settled = ({ settle }: FoundStep): number => Math.min(3, Math.max(1.2, 4 * settle));

/**
 * Exhaust goes on rising for seconds, and takes as long to fall again: two sides are compared after the same time on each, and from the lower of the
 * two beginnings, since the second may begin while the gas is still hot from the first.
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
