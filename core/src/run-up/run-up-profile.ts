import type { LimitRange, Source } from "../judgement/judgement";
import { formatNumber } from "../units/format";

/** Run-up figures of a type's engine. Limits of single readings are in the checklist items. */
export interface RunUpProfile {
  /** Run-up rpm and its tolerance. */
  rpm: number;
  within: number;
  /** Side checked first. */
  firstSide: "right" | "left";
  /** Names of the sides, if not "right" and "left": "ignition one". */
  sideWords?: { right: string; left: string };
  cylinders: number;
  fuelSystem: "carburettor" | "injected";
  propeller: "fixed" | "constant speed";
  /** Crankshaft speed at full power, rpm. */
  ratedRpm: number;
  volts: 14 | 28;
  /** Has a vacuum pump with a gauge; newer panels have none. */
  suction: boolean;
  /** Carburettor heat, alternate air, or neither. */
  heat: "carburettor heat" | "alternate air" | "none";
  /** Minimum drop of a constant-speed propeller cycle, rpm, and seconds within which half of it must occur. */
  propellerCheck?: { dropRpm: number; withinS: number };
  /** Density altitude above which the mixture is leaned before the magneto check, ft. */
  leanAboveFt: number;
  /** Alternator voltage, V. */
  charging: LimitRange;
  /** Green arc of suction, inHg. */
  suctionGreen?: LimitRange;
  oilPressure: LimitRange;
  oilTemperature: LimitRange;
  /** Highest CHT during run-up. */
  head: LimitRange;
  idle: LimitRange & { seconds: number };
  /** Clearing a plug: lean for peak, rpm, duration, maximum attempts. */
  clear: { rpm: number; seconds: number; tries: number; headMax: LimitRange };
  /** Ground leaning: at this rpm to a peak and a drop, then this many turns in; zero turns if there is no mixture lever. */
  groundLean: { rpm: number; turnsIn: number };
  source: Source;
}

/**
 * Scale of rpm differences relative to an engine run up at 1,800. Never below 0.8. Source: drops proportional to rpm, by the cube
 * law of propellers; 1,800 as the usual run-up rpm (common practice).
 */
export function rpmScale(profile: Pick<RunUpProfile, "rpm">): number {
  return Math.max(0.8, profile.rpm / 1800);
}

/** True if there is a mixture lever: a type without ground leaning has none. */
export const hasMixtureLever = ({ groundLean }: Pick<RunUpProfile, "groundLean">): boolean =>
  groundLean.turnsIn > 0;

const TIMES = ["", "one try", "two tries", "three tries"];

/** Plug-clearing procedure of a type, from its profile. Source: the profile; leaning for peak is common practice. */
export function clearingText(profile: Pick<RunUpProfile, "clear" | "groundLean">): string {
  const { rpm, seconds, tries } = profile.clear;
  const how = hasMixtureLever(profile) ? "Lean to peak EGT at" : "Run the engine at";
  const often = TIMES[tries] ?? `${tries} tries`;
  return `${how} ${formatNumber(rpm)} rpm for ${seconds} seconds, then check again. If not cleared after ${often}, taxi back.`;
}
