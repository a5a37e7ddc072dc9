import { type RunUpProfile, rpmScale } from "../run-up-profile";
import { isSide, type LabelHypothesis, NEVER, type PlateauLabel } from "./plateau-label";
import type { Signature } from "./plateau-signature";
import type { Plateau } from "./plateaus";

/**
 * Levels at which a label is possible: fractions of run-up rpm, or rpm of a usual engine where named so. Own values: effects on
 * rpm are textbook, the limits were checked against simulated and generated traces.
 */
const LEVEL = {
  turns: 0.08,
  idleMost: 0.42,
  idleMarginRpm: 70,
  highIdleRpm: 55,
  groundAboveIdleRpm: 60,
  groundMost: 0.9,
  /** Bursts of power while taxiing can reach nearly run-up rpm. */
  groundUsual: 0.78,
  baseMost: 0.2,
  baseSpread: 0.07,
  /** Rpm by which a return to the base may miss it. */
  backRpm: 7,
  backSpreadRpm: 9,
  sideLeastRpm: 6,
  sideMost: 0.45,
  /** One magneto costs at most a fifth of rpm: a much lower level without a cut is not a side. */
  sideWithoutCutMost: 0.3,
  sideDeep: 0.22,
  sideSmallRpm: 24,
  sideTinyRpm: 14,
  /** Rpm by which a repeated side may drop otherwise than before. */
  unlikeRpm: 15,
  unlikeSpreadRpm: 10,
  heatMost: 0.22,
  heatRise: 0.14,
  /** Heat costs at most a tenth of rpm. */
  heatUsual: 0.085,
  heatSpread: 0.02,
  heatLeastRpm: 6,
  /** Rpm by which melting ice raises rpm. */
  meltedRpm: 15,
  cycled: 0.12,
  propellerLeast: 0.05,
  propellerMost: 0.5,
  power: 1.018,
  clearlyPower: 1.045,
  changedBase: 1.07,
} as const;

/** Temperatures that tell one label from another, °F, and manifold pressure, inHg. Textbook effects; own limits. */
const TELLS = {
  /** A cut cylinder. */
  cut: -110,
  coolsAfterSide: -9,
  staysAfterSide: -2,
  melting: -12,
  hotterOnSide: 12,
  warmerOnSide: 4,
  risesFromBase: 3,
  coolsAtOtherSide: -12,
  colderWithHeat: -6,
  tooHotForHeat: 14,
  heatOffAgain: 10,
  stillMelting: 8,
  loadedMap: 1,
  propellerMap: 0.7,
  propellerHot: 30,
  propellerCold: -25,
} as const;

/** Durations, seconds. Own estimates; common practice: three to fifteen seconds per side, back to both at once if it quits. */
const TIME = {
  brief: 1.5,
  /** Nobody stays on a dead side: a longer cool stretch is the throttle. */
  dead: 8,
  shortSide: 1.3,
  longSide: 45,
  overshoot: 4.5,
  /** After a side EGT is unchanged for the first, and has recovered with slow probes after the second. */
  hot: 3,
  cooled: 9,
} as const;

/** Weights, log likelihoods; 0 is a good fit. Our own, checked against simulated and generated traces. */
const WEIGHT = {
  highIdle: -1.2,
  perGroundExcess: 0.05,
  briefBase: -2,
  backAndCooling: 1.5,
  backAndHot: -2.5,
  coolingOnBoth: -3,
  onBase: 1,
  offBasePower: 1.15,
  quits: -0.5,
  quitsAgain: -4,
  cut: 4,
  sideDeep: -5,
  sideTiny: -2.5,
  sideSmall: -1,
  coolsAtOtherSide: -2.5,
  sideWithoutRise: -2.5,
  longSide: -2,
  shortSide: -2,
  hotter: 3,
  colder: -4,
  unlikeMost: 1.8,
  noHeatEffect: -3,
  heatOff: -5,
  heatUnmeasured: -0.1,
  colderWithHeat: 3,
  hotterWithHeat: -5,
  loaded: -5,
  risesWithHeat: -1.5,
  cutWithHeat: -5,
  propellerLoads: 3,
  propellerDoesNot: -2,
  propellerEgt: -3,
  cutWithPropeller: -4,
  power: -1,
  slightPower: -1.4,
  changedBase: 2,
  other: -7,
} as const;

interface Candidate {
  plateau: Plateau;
  hypothesis: LabelHypothesis;
  signature: Signature;
  profile: RunUpProfile;
  /** Run-up rpm, and its relation to a usual engine. */
  aim: number;
  scale: number;
  /** Rpm below the base; 0 without one. */
  drop: number;
  /** Recovery of EGT from the previous side, 0 to 1. */
  cooled: number;
  before: PlateauLabel | undefined;
}

/** Score of a label for a stretch; 0 is a good fit, `NEVER` impossible. Complexity: O(1). */
export function emissionScore(
  label: PlateauLabel,
  plateau: Plateau,
  hypothesis: LabelHypothesis,
  signature: Signature,
  profile: RunUpProfile,
): number {
  return FITS[label](
    {
      plateau,
      hypothesis,
      signature,
      profile,
      aim: profile.rpm,
      scale: rpmScale(profile),
      drop: hypothesis.base ? hypothesis.base.rpm - plateau.rpm : 0,
      cooled: hasCooled(hypothesis),
      before: hypothesis.labels.at(-1),
    },
    label,
  );
}

const FITS: Readonly<Record<PlateauLabel, (candidate: Candidate, label: PlateauLabel) => number>> = {
  stopped: ({ plateau: { rpm }, aim }) => (rpm < LEVEL.turns * aim ? 0 : NEVER),
  idle: fitsIdle,
  ground: fitsGround,
  base: fitsBase,
  first: fitsSide,
  second: fitsSide,
  heat: fitsHeat,
  propeller: fitsPropeller,
  power: fitsPower,
  other: () => WEIGHT.other,
};

/** Until EGT has recovered from the previous side, its fall is no sign of a new step. */
function hasCooled({ labels, last }: LabelHypothesis): number {
  const before = labels.at(-2);
  if (!last || before === undefined || !isSide(before)) return 1;
  return Math.min(1, Math.max(0, (last.to - last.onset - TIME.hot) / (TIME.cooled - TIME.hot)));
}

const idleTopOf = ({ profile, aim, scale }: Candidate): number =>
  (profile.idle.max ?? LEVEL.idleMost * aim) + LEVEL.idleMarginRpm * scale;

/** Slightly above the idle range, taxi rpm is more likely than a high idle. */
function fitsIdle(candidate: Candidate): number {
  const {
    plateau: { rpm },
    aim,
    scale,
  } = candidate;
  const top = idleTopOf(candidate);
  if (rpm < LEVEL.turns * aim || rpm > top) return NEVER;
  return rpm > top - LEVEL.highIdleRpm * scale ? WEIGHT.highIdle : 0;
}

function fitsGround(candidate: Candidate): number {
  const {
    plateau: { rpm },
    aim,
    scale,
  } = candidate;
  if (rpm <= idleTopOf(candidate) - LEVEL.groundAboveIdleRpm * scale || rpm >= LEVEL.groundMost * aim)
    return NEVER;
  return -Math.max(0, rpm / aim - LEVEL.groundUsual) / WEIGHT.perGroundExcess;
}

function fitsBase(candidate: Candidate): number {
  const {
    plateau: { rpm, from, to },
    hypothesis: { base, last },
    aim,
    drop,
    scale,
  } = candidate;
  const rested = last !== undefined && last === base && last.to - last.from < TIME.brief;
  if (!base || rested) {
    // A short pause while opening the throttle is not a base.
    const brief = to - from < TIME.brief ? WEIGHT.briefBase : 0;
    return Math.abs(rpm - aim) > LEVEL.baseMost * aim
      ? NEVER
      : brief - ((rpm - aim) / (LEVEL.baseSpread * aim)) ** 2;
  }
  const off = Math.abs(drop) / scale;
  return (
    backFromSide(candidate) +
    coolingOnBoth(candidate) +
    (off <= LEVEL.backRpm
      ? WEIGHT.onBase
      : -(((off - LEVEL.backRpm) / LEVEL.backSpreadRpm) ** WEIGHT.offBasePower))
  );
}

/** After a side EGT falls, even with slow probes. */
function backFromSide({ before, signature: { since } }: Candidate): number {
  if (!isSide(before) || since === undefined) return 0;
  if (since < TELLS.coolsAfterSide) return WEIGHT.backAndCooling;
  return since > TELLS.staysAfterSide ? WEIGHT.backAndHot : 0;
}

/** Cooler than just before on both, with rpm no lower: heat melting ice. */
function coolingOnBoth({ before, profile, signature: { since }, cooled }: Candidate): number {
  return before === "base" && profile.heat !== "none" && (since ?? 0) < TELLS.melting
    ? WEIGHT.coolingOnBoth * cooled
    : 0;
}

function fitsSide(candidate: Candidate, label: PlateauLabel): number {
  const {
    plateau: { rpm, onset, from, to },
    hypothesis: { base, done },
    signature: { fall = 0 },
    aim,
    drop,
    scale,
  } = candidate;
  // It quits on one side: that magneto is dead.
  if (base && rpm < LEVEL.turns * aim)
    return done.has("first") && done.has("second") ? WEIGHT.quitsAgain : WEIGHT.quits;
  if (!base || drop < LEVEL.sideLeastRpm * scale || drop > LEVEL.sideMost * aim) return NEVER;
  const isCut = fall < TELLS.cut && to - onset < TIME.dead;
  if (!isCut && drop > LEVEL.sideWithoutCutMost * aim) return NEVER;
  // Below the usual range the signature must support it.
  const deep = !isCut && drop > LEVEL.sideDeep * aim ? WEIGHT.sideDeep : 0;
  const small =
    drop < LEVEL.sideTinyRpm * scale
      ? WEIGHT.sideTiny
      : drop < LEVEL.sideSmallRpm * scale
        ? WEIGHT.sideSmall
        : 0;
  const long =
    to - from > TIME.longSide
      ? WEIGHT.longSide
      : to - onset < TIME.shortSide && !isCut
        ? WEIGHT.shortSide
        : 0;
  const hotter = hotterOnSide(candidate);
  return (
    (isCut ? WEIGHT.cut : 0) +
    deep +
    small +
    long +
    (isCut ? 0 : turnedFrom(candidate)) +
    unlikeBefore(candidate, label as "first" | "second") +
    (isCut ? Math.max(0, hotter) : hotter)
  );
}

/** Directly from the other side EGT stays; from both it rises. */
function turnedFrom({ before, signature: { since }, cooled }: Candidate): number {
  if (since === undefined) return 0;
  if (isSide(before)) return since < TELLS.coolsAtOtherSide ? WEIGHT.coolsAtOtherSide : 0;
  return before === "base" && since < TELLS.risesFromBase ? WEIGHT.sideWithoutRise * cooled : 0;
}

/** A repeated side drops as before, which identifies it. */
function unlikeBefore({ hypothesis, before, drop, scale }: Candidate, label: "first" | "second"): number {
  const was = hypothesis.dropped[label];
  return was === undefined || before === label
    ? 0
    : -Math.min(
        WEIGHT.unlikeMost,
        Math.max(0, (Math.abs(drop - was) / scale - LEVEL.unlikeRpm) / LEVEL.unlikeSpreadRpm),
      );
}

function hotterOnSide({ signature: { egt }, cooled }: Candidate): number {
  if (egt === undefined) return 0;
  if (egt > TELLS.hotterOnSide) return WEIGHT.hotter;
  return egt > TELLS.warmerOnSide ? 0 : WEIGHT.colder * cooled;
}

function fitsHeat(candidate: Candidate): number {
  const {
    hypothesis: { base },
    signature: { since, fall = 0 },
    profile,
    aim,
    drop,
    scale,
    cooled,
    before,
  } = candidate;
  if (!base || profile.heat === "none" || drop > LEVEL.heatMost * aim || drop < -LEVEL.heatRise * aim)
    return NEVER;
  const melts = isMelting(candidate);
  const melted = melts || (before === "base" && (since ?? 0) < TELLS.melting && cooled > 0.5);
  if (Math.abs(drop) < LEVEL.heatLeastRpm * scale && !melted) return WEIGHT.noHeatEffect;
  // After heat is off EGT rises again, even with slow probes.
  if (before === "heat" && (since ?? 0) > TELLS.heatOffAgain) return WEIGHT.heatOff;
  const deep = Math.max(0, (drop / aim - LEVEL.heatUsual) / LEVEL.heatSpread);
  return (
    coolerWithHeat(candidate) -
    deep +
    loadedByPropeller(candidate) +
    (drop < 0 && !melts ? WEIGHT.risesWithHeat : 0) +
    (fall < TELLS.cut ? WEIGHT.cutWithHeat : 0)
  );
}

/** Melting ice raises rpm back to base while heat is still on. */
function isMelting({ before, plateau: { rpm }, hypothesis, signature, scale, drop }: Candidate): boolean {
  const { since } = signature;
  return (
    before === "heat" &&
    rpm > (hypothesis.last?.rpm ?? rpm) + LEVEL.meltedRpm * scale &&
    (since === undefined ? drop > 0 : since < TELLS.stillMelting)
  );
}

/** Compared with just before: an earlier base may still have been hot from a side. */
function coolerWithHeat({ before, signature: { since, egt }, cooled, drop }: Candidate): number {
  const colder = before === "base" ? since : egt;
  if (colder === undefined || egt === undefined) return WEIGHT.heatUnmeasured;
  if (colder < TELLS.colderWithHeat) return before === "propeller" ? 0 : WEIGHT.colderWithHeat * cooled;
  const hot = (egt > TELLS.tooHotForHeat && drop > 0) || ((since ?? 0) > TELLS.tooHotForHeat && drop < 0);
  return hot ? WEIGHT.hotterWithHeat : 0;
}

/** Much lower rpm with higher manifold pressure is a propeller, not heat. */
function loadedByPropeller({ profile, drop, aim, signature: { map } }: Candidate): number {
  const cycled = profile.propeller === "constant speed" && drop > LEVEL.cycled * aim;
  return cycled && map !== undefined && map > TELLS.loadedMap ? WEIGHT.loaded : 0;
}

function fitsPropeller({ hypothesis, profile, drop, aim, signature }: Candidate): number {
  const { map, egt, fall = 0 } = signature;
  if (
    !hypothesis.base ||
    profile.propeller !== "constant speed" ||
    drop < LEVEL.propellerLeast * aim ||
    drop > LEVEL.propellerMost * aim
  )
    return NEVER;
  const loads =
    map === undefined ? 0 : map > TELLS.propellerMap ? WEIGHT.propellerLoads : WEIGHT.propellerDoesNot;
  const odd = egt !== undefined && (egt > TELLS.propellerHot || egt < TELLS.propellerCold);
  return loads + (odd ? WEIGHT.propellerEgt : 0) + (fall < TELLS.cut ? WEIGHT.cutWithPropeller : 0);
}

/**
 * After heat: melted ice leaves rpm about fifty above base. A throttle overshoot is corrected within seconds; a longer small rise
 * is a changed base.
 */
function fitsPower({ plateau: { rpm, from, to }, hypothesis: { base }, aim, before }: Candidate): number {
  const reference = base?.rpm ?? aim;
  if (rpm <= reference * LEVEL.power) return NEVER;
  const changed = before !== "heat" && rpm < reference * LEVEL.changedBase && to - from > TIME.overshoot;
  return (
    (rpm > reference * LEVEL.clearlyPower ? WEIGHT.power : WEIGHT.slightPower) -
    (changed ? WEIGHT.changedBase : 0)
  );
}
