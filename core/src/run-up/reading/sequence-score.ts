import type { RunUpProfile } from "../run-up-profile";
import { isSide, type LabelHypothesis, type PlateauLabel } from "./plateau-label";
import type { Plateau } from "./plateaus";

/**
 * Weights of what follows what, as log likelihoods; 0 is the usual order. Our own, by the usual order of a run-up (common
 * practice) and checked against simulated and generated traces.
 */
const ORDER = {
  sameSideGoesOn: -0.6,
  sameLabelGoesOn: -0.2,
  /** Repeats are usually done for both sides in turn. */
  sideAgain: -0.9,
  sideAgainInTurn: -0.4,
  sideAgainBeforeHeat: -0.6,
  firstAgainBeforeSecond: -3.4,
  secondBeforeFirst: -2.6,
  straightFromOtherSide: -0.9,
  sideNotFromBase: -3,
  sideAfterHeat: -0.8,
  heatNotFromBase: -3,
  heatAfterOneSide: -2,
  heatBeforeSides: -1,
  heatAgain: -0.5,
  propellerNotFromBase: -2.5,
  fixedPropeller: -9,
  baseFirst: -0.5,
  baseAfterPower: -0.5,
  slowAfterSide: -2,
  slowAfterHeat: -1,
  stopAfterUnfinishedSides: -1.5,
  stopNotFromBase: -1,
  stopAfterSides: -0.5,
  stopFromBase: -2,
  powerAfterHeat: -0.3,
  power: -0.5,
} as const;

/** Weights of a second level under one label. Levels in rpm of a usual engine. */
const LEVELS = {
  /** Rpm by which one side's level may differ, and what a misfiring side adds per rpm of its noise. */
  sideApart: 4,
  perSigma: 0.5,
  perRpmApart: 2.5,
  sideMost: 6,
  /** A rise with heat on is melting ice. */
  heatRises: -0.5,
  heatApart: 12,
  perHeatRpmApart: 10,
  heatMost: 3,
} as const;

/**
 * Score of continuing under the same label. One side has one level: a second level is the other side, or both. A rise with heat
 * on is melting ice. `scale` relates rpm to a usual engine.
 */
export function howItGoesOn(
  { labels, last }: Pick<LabelHypothesis, "labels" | "last">,
  label: PlateauLabel,
  { rpm, sigma }: Plateau,
  scale: number,
): number {
  if (!last || labels.at(-1) !== label) return 0;
  const apart = Math.abs(rpm - last.rpm) / scale;
  const unsure = LEVELS.sideApart + (LEVELS.perSigma * Math.max(last.sigma, sigma)) / scale;
  if (isSide(label)) return -Math.min(LEVELS.sideMost, Math.max(0, (apart - unsure) / LEVELS.perRpmApart));
  // With heat off it is higher too.
  if (label !== "heat") return 0;
  return rpm > last.rpm
    ? LEVELS.heatRises
    : -Math.min(LEVELS.heatMost, Math.max(0, (apart - LEVELS.heatApart) / LEVELS.perHeatRpmApart));
}

type Before = Pick<LabelHypothesis, "labels" | "done" | "long">;

/** Score of a label after the previous ones; 0 for the usual order. */
export function howItFollows(before: Before, label: PlateauLabel, profile: RunUpProfile): number {
  const last = before.labels.at(-1);
  if (last === label) return isSide(label) ? ORDER.sameSideGoesOn : ORDER.sameLabelGoesOn;
  switch (label) {
    case "first":
    case "second":
      return (
        turnOf(before.done, label) +
        againOf(before, label, profile) +
        sideAfter(before, label) +
        (before.done.has("heat") ? ORDER.sideAfterHeat : 0)
      );
    case "heat":
      return heatAfter(before);
    case "propeller":
      return (
        (last === "base" ? 0 : ORDER.propellerNotFromBase) +
        (profile.propeller === "fixed" ? ORDER.fixedPropeller : 0)
      );
    case "base":
      return last === undefined ? ORDER.baseFirst : last === "power" ? ORDER.baseAfterPower : 0;
    case "idle":
    case "ground":
      return isSide(last) ? ORDER.slowAfterSide : last === "heat" ? ORDER.slowAfterHeat : 0;
    case "stopped":
      return stoppedAfter(before);
    case "power":
      return last === "heat" ? ORDER.powerAfterHeat : ORDER.power;
    case "other":
      return 0;
  }
}

/** The first side comes first, once. */
function turnOf(done: Before["done"], label: "first" | "second"): number {
  if (label === "second") return done.has("first") ? 0 : ORDER.secondBeforeFirst;
  return done.has("first") && !done.has("second") ? ORDER.firstAgainBeforeSecond : 0;
}

function againOf({ labels, done }: Before, label: "first" | "second", profile: RunUpProfile): number {
  if (!done.has("first") || !done.has("second")) return 0;
  const lastSide = labels.findLast(isSide);
  const early = profile.heat === "none" || done.has("heat") ? 0 : -ORDER.sideAgainBeforeHeat;
  return (lastSide === label ? ORDER.sideAgain : ORDER.sideAgainInTurn) - early;
}

function sideAfter({ labels }: Before, label: "first" | "second"): number {
  const last = labels.at(-1);
  if (last === "base") return 0;
  const other = label === "first" ? "second" : "first";
  return last === other ? ORDER.straightFromOtherSide : ORDER.sideNotFromBase;
}

function heatAfter({ labels, done }: Before): number {
  const sides = done.has("second") ? 0 : done.has("first") ? ORDER.heatAfterOneSide : ORDER.heatBeforeSides;
  return (
    (labels.at(-1) === "base" ? 0 : ORDER.heatNotFromBase) + sides + (done.has("heat") ? ORDER.heatAgain : 0)
  );
}

/** Nobody shuts down from run-up rpm: an engine that stops there quit on one side. */
function stoppedAfter({ labels, done, long }: Before): number {
  const last = labels.at(-1);
  const both = done.has("first") && done.has("second");
  if (isSide(last)) return long && !both ? ORDER.stopAfterUnfinishedSides : 0;
  if (last !== "base") return ORDER.stopNotFromBase;
  return both || (done.has("first") && long) ? ORDER.stopAfterSides : ORDER.stopFromBase;
}
