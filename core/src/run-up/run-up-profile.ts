import type { LimitRange, Source } from "../judgement/judgement";
import { formatNumber } from "../units/format";

/** How this type's engine is run up: the figures behind its steps. Limits of single readings stand with the list's items. */
export interface RunUpProfile {
  /** The run-up figure, rpm, and how far beside it the needle may stand. */
  rpm: number;
  within: number;
  /** Which side is turned to first. */
  firstSide: "right" | "left";
  /** What the two sides are called here, where "right" and "left" are not the words: "ignition one". */
  sideWords?: { right: string; left: string };
  cylinders: number;
  fuelSystem: "carburettor" | "injected";
  propeller: "fixed" | "constant speed";
  /** Crankshaft speed at full power, rpm. */
  ratedRpm: number;
  volts: 14 | 28;
  /** A vacuum pump with its gauge; newer panels have none. */
  suction: boolean;
  /** What the heat is: hot air for the carburettor, another way in for the air, or none. */
  heat: "carburettor heat" | "alternate air" | "none";
  /** What a cycle of a constant-speed propeller takes away at least, rpm, and within how many seconds half of it. */
  propellerCheck?: { dropRpm: number; withinS: number };
  /** Above this density altitude the mixture is leaned before the drop is judged, ft. */
  leanAboveFt: number;
  /** What the alternator holds, V. */
  charging: LimitRange;
  /** Suction in the green, inHg. */
  suctionGreen?: LimitRange;
  oilPressure: LimitRange;
  oilTemperature: LimitRange;
  /** Hottest cylinder head at run-up. */
  head: LimitRange;
  idle: LimitRange & { seconds: number };
  /** Clearing a plug: lean for peak, this rpm, so long, at most so often. */
  clear: { rpm: number; seconds: number; tries: number; headMax: LimitRange };
  /** Leaning for the ground: at this rpm to a peak and a drop, then so many turns in; no turns where there is no lever to lean with. */
  groundLean: { rpm: number; turnsIn: number };
  source: Source;
}

/**
 * What one scale division of rpm is worth on an engine that turns this fast, against one run up at 1,800. Never below 0.8. Source: drops in
 * proportion to rpm, by the cube law of propellers; 1,800 as the usual run-up rpm (common practice).
 */
export function rpmScale(profile: Pick<RunUpProfile, "rpm">): number {
  return Math.max(0.8, profile.rpm / 1800);
}

/** Whether there is a lever to lean with: a type that does not lean for the ground has none. */
export const hasMixtureLever = ({ groundLean }: Pick<RunUpProfile, "groundLean">): boolean =>
  groundLean.turnsIn > 0;

const TIMES = ["", "one try", "two tries", "three tries"];

/** How this type's plugs are cleared, in the figures of its own profile. Source: the profile's; leaning for peak is common practice. */
export function clearingWords(profile: Pick<RunUpProfile, "clear" | "groundLean">): string {
  const { rpm, seconds, tries } = profile.clear;
  const how = hasMixtureLever(profile) ? "Lean to peak EGT at" : "Run the engine at";
  const often = TIMES[tries] ?? `${tries} tries`;
  return `${how} ${formatNumber(rpm)} rpm for ${seconds} seconds, then check again. If not cleared after ${often}, taxi back.`;
}
