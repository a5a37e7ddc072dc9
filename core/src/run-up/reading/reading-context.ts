import type { CleanTrace } from "../../trace/clean-trace";
import type { Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import type { RunUpProfile } from "../run-up-profile";
import type { FoundStep } from "./found-step";
import { valuesBetween } from "./level-change";
import { levelOf } from "./levels/stretch-level";

/** Input shared by all trace readers. */
export interface Context {
  trace: Trace;
  clean: CleanTrace;
  profile: RunUpProfile;
  steps: readonly FoundStep[];
  /** Display step of the tachometer, rpm. */
  grain: number;
}

export const rpmOf = ({ trace }: Context) => trace.channels.rpm as Float64Array;

/** Rpm values of a step once settled, up to a maximum time from its start. */
export const settledRpm = (ctx: Context, { at, until, settle }: FoundStep, seconds: number): number[] =>
  valuesBetween(
    ctx.trace,
    rpmOf(ctx),
    at + Math.min(3, 4 * settle + 0.5),
    Math.min(until, at + seconds) - 0.1,
  ).y;

/** True for steps after which the engine is at run-up rpm on both. */
export function restsAtBase({ step }: FoundStep): boolean {
  return step === "run-up" || step === "both" || step === "cold" || step === "load";
}

/** Minimum time for a side to settle, seconds. */
export const MIN_S = 2.5;

/** Uncertainty of an entirely unsettled level, rpm at 1,800 (own estimate). */
const UNSETTLED_RPM = 12;

/** Uncertainty of a level left after this many seconds, rpm; `scale` as of `rpmScale`. */
export const settlingUncertainty = (seconds: number, scale: number): number =>
  UNSETTLED_RPM * scale * Math.exp(-seconds / 5);

export function deviation(values: readonly number[], middle: number): number {
  return 1.4826 * median(values.map((value) => Math.abs(value - middle)));
}

export function orNaN(values: number[]): number[] {
  return values.length > 0 ? values : [Number.NaN];
}

/** Level at the end of a piece: its median, or the end of its line if it changes by more than `slope` per second. */
export function levelAtEnd({ t, y }: { t: number[]; y: number[] }, slope: number, grain: number): number {
  const third = Math.floor(y.length / 3);
  const rate = rateOf({ t, y });
  if (Math.abs(rate) <= slope) return levelOf(y, grain).value;
  const seconds = ((t.at(-1) as number) - (t[0] as number)) * (2 / 3);
  return median(y.slice(-third)) + rate * (seconds / 4);
}

/** Rate of change of a piece from its first third to its last, per second; 0 if too short. */
export function rateOf({ t, y }: { t: number[]; y: number[] }): number {
  const third = Math.floor(y.length / 3);
  if (third < 3) return 0;
  const seconds = ((t.at(-1) as number) - (t[0] as number)) * (2 / 3);
  return (median(y.slice(-third)) - median(y.slice(0, third))) / seconds;
}

/** Standard deviation of a uniform distribution is its width divided by this. */
export const EVENLY = Math.sqrt(12);

/** Standard deviation of the level of values; NaN for none. */
export const sigmaOf = (values: readonly number[], grain: number): number =>
  values.length > 0 ? levelOf(values, grain).sigma : Number.NaN;

/** Running median over up to `half` values on each side. */
export function runningMedian(values: readonly number[], half: number): number[] {
  return values.map((_, i) => median(values.slice(Math.max(0, i - half), i + half + 1)));
}
