import type { CleanTrace } from "../../trace/clean-trace";
import type { Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import type { RunUpProfile } from "../run-up-profile";
import type { FoundStep } from "./found-step";
import { valuesBetween } from "./level-change";
import { levelOf } from "./levels/stretch-level";

/** What every part of a reading looks at. */
export interface Context {
  trace: Trace;
  clean: CleanTrace;
  profile: RunUpProfile;
  steps: readonly FoundStep[];
  /** In which steps the tachometer shows its values, rpm. */
  grain: number;
}

export const rpmOf = ({ trace }: Context) => trace.channels.rpm as Float64Array;

/** The rpm of a step once it has settled, as far as it goes and no longer than so many seconds from its begin. */
export const settledRpm = (ctx: Context, { at, until, settle }: FoundStep, seconds: number): number[] =>
  valuesBetween(
    ctx.trace,
    rpmOf(ctx),
    at + Math.min(3, 4 * settle + 0.5),
    Math.min(until, at + seconds) - 0.1,
  ).y;

/** Where the engine stands on both at the run-up figure: behind these steps, once it has settled. */
export function restsAtBase({ step }: FoundStep): boolean {
  return step === "run-up" || step === "both" || step === "cold" || step === "load";
}

/** A side that was left sooner than this has not settled, seconds. */
export const SHORTEST_S = 2.5;

/** How far from its level a stretch is left after no time at all, rpm at 1,800: what has not settled is as unsure (own estimate). */
const UNSETTLED_RPM = 12;

/** How unsure a level is that was left after so many seconds, rpm; `scale` as of `rpmScale`. */
export const settlingUncertainty = (seconds: number, scale: number): number =>
  UNSETTLED_RPM * scale * Math.exp(-seconds / 5);

export function deviation(values: readonly number[], middle: number): number {
  return 1.4826 * median(values.map((value) => Math.abs(value - middle)));
}

export function orNaN(values: number[]): number[] {
  return values.length > 0 ? values : [Number.NaN];
}

/** The level at the end of a piece: its middle, or where its line ends when it still climbs or falls by more than `slope` a second. */
export function levelAtEnd({ t, y }: { t: number[]; y: number[] }, slope: number, grain: number): number {
  const third = Math.floor(y.length / 3);
  const rate = rateOf({ t, y });
  if (Math.abs(rate) <= slope) return levelOf(y, grain).value;
  const seconds = ((t.at(-1) as number) - (t[0] as number)) * (2 / 3);
  return median(y.slice(-third)) + rate * (seconds / 4);
}

/** How fast a piece climbs from its first third to its last, a second; 0 where it is too short to say. */
export function rateOf({ t, y }: { t: number[]; y: number[] }): number {
  const third = Math.floor(y.length / 3);
  if (third < 3) return 0;
  const seconds = ((t.at(-1) as number) - (t[0] as number)) * (2 / 3);
  return (median(y.slice(-third)) - median(y.slice(0, third))) / seconds;
}

/** What lies anywhere between two ends has their distance by this as its standard deviation. */
export const EVENLY = Math.sqrt(12);

/** How sure the level of a row is, one standard deviation; not a number where there is nothing in it. */
export const sigmaOf = (values: readonly number[], grain: number): number =>
  values.length > 0 ? levelOf(values, grain).sigma : Number.NaN;

/** Each value as the middle of those up to `half` before and behind it. */
export function runningMedian(values: readonly number[], half: number): number[] {
  return values.map((_, i) => median(values.slice(Math.max(0, i - half), i + half + 1)));
}
