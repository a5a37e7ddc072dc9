import { classifyDrop, type DropLimits } from "../../engine/classify-drop";
import { otherSide } from "../../engine/side";
import type { LimitRange } from "../../judgement/judgement";
import { LONG_FOR_ONE_S } from "../../run-up/reading/label-plateaus";
import type { MagnetoReading, RunUpReading, Side } from "../../run-up/reading/run-up-reading";
import type { RunUpProfile } from "../../run-up/run-up-profile";
import { rpmScale } from "../../run-up/run-up-profile";
import { median } from "../../trend/median";
import { formatNumber } from "../../units/format";
import type { Observation } from "./observations";

export type ObserveLimits = DropLimits;

/** Sampling interval above which a step of a few seconds has only a few values, seconds. */
const COARSE_S = 0.22;

/**
 * The context as far as a reading can tell: without EGT probes no cylinder is named; an unprompted, coarse trace may show
 * artefacts.
 */
export function limitToProbes<T extends { cylinders: number; coarse?: true; unprompted?: true }>(
  context: T,
  { egt, prompted, interval }: RunUpReading,
): T {
  return {
    ...context,
    ...(Object.keys(egt.base).length < 2 && { cylinders: 0 }),
    ...(!prompted && { unprompted: true as const }),
    ...(interval > COARSE_S && { coarse: true as const }),
  };
}

/** Fields of a side's reading that describe its drop. */
export type DroppedSide = Pick<MagnetoReading, "side" | "drop" | "seen" | "feel" | "doubt">;

/** A cylinder's EGT "falls" if it is this far below the others, °F; firing cylinders differ by less than half of it. */
const COLDER_F = 60;
/** Smaller EGT changes are "no change", °F. */
const NO_CHANGE_F = 12;
/** "Much hotter": ratio to the other side, since slow probes show only part of both changes, plus a minimum in °F. */
const MUCH_HOTTER = 1.42;
const MUCH_HOTTER_F = 14;
/** A probe that jumps by this much between samples is noisy, °F. */
const WILD_F = 16;
/** No EGT is colder than this at run-up, °F. */
const DEAD_F = 300;

/**
 * Translates a reading into fault library observations: each number becomes a state, with a sentence. What was not seen is left
 * out. Rpm, °F, psi, V, seconds. Never throws. Source: limits are the type's; thresholds between states are common practice or
 * our own, as noted at each.
 */
export function observe(reading: RunUpReading, profile: RunUpProfile, limits: ObserveLimits): Observation[] {
  const found: Observation[] = [];
  const word = (side: Side) => profile.sideWords?.[side] ?? side;
  const wild = wildProbes(reading);
  for (const cylinder of wild)
    found.push({
      feature: "probe",
      state: "wild",
      cylinder,
      words: `EGT ${cylinder} is erratic or frozen.`,
    });
  if (wild.length === 0 && Object.keys(reading.egt.scatter).length > 0)
    found.push({ feature: "probe", state: "quiet", words: "All EGT readings are steady." });
  for (const side of ["right", "left"] as const) {
    const made = reading[side];
    const beside = reading[otherSide(side)];
    if (!made && beside && !reading.prompted)
      found.push(
        beside.held >= LONG_FOR_ONE_S
          ? {
              feature: "shown",
              state: "one long",
              side,
              words: `Rpm was low for one stretch of ${formatNumber(beside.held)} s: either one side, or both in quick succession with equal drops.`,
            }
          : {
              feature: "shown",
              state: "not seen",
              side,
              words: `This trace shows a drop on ${word(beside.side)} only, none on ${word(side)}.`,
            },
      );
    if (!made || made.doubt) continue;
    found.push(dropOf(made, beside, word(side), limits, profile));
    if (made.feel !== "quit" && made.seen)
      found.push({
        feature: "feel",
        state: made.feel,
        side,
        words: `The engine ran ${made.feel} on ${word(side)}.`,
      });
    const exhaust = exhaustOf(made, reading[otherSide(side)], word(side), wild);
    if (exhaust) found.push(exhaust);
  }
  const heat = heatOf(reading, profile);
  if (heat) found.push(heat);
  found.push(...gaugesOf(reading, profile));
  const idleExhaust = exhaustAtIdle(reading, wild);
  if (idleExhaust) found.push(idleExhaust);
  return found;
}

function wildProbes({ egt, problems }: RunUpReading): number[] {
  const stuck = problems.flatMap(({ kind, channel }) => {
    const cylinder = kind === "frozen" || kind === "missing" ? /^egt(\d+)$/.exec(channel ?? "") : null;
    return cylinder ? [Number(cylinder[1])] : [];
  });
  const jumping = Object.entries(egt.scatter).flatMap(([cylinder, jump]) =>
    jump > WILD_F ? [Number(cylinder)] : [],
  );
  // EGT at ambient temperature while the engine runs: the probe is dead.
  const dead = Object.entries(egt.base).flatMap(([cylinder, value]) =>
    value < DEAD_F ? [Number(cylinder)] : [],
  );
  return [...new Set([...stuck, ...jumping, ...dead, ...(egt.jumping ?? [])])];
}

/**
 * Smallest drop distinguishable from trace scatter, rpm; finer than reading a tachometer by eye. Source: eight rpm at 1,800, the
 * scatter of one second of trace (our own).
 */
export function tracedLimits(limits: DropLimits, profile: Pick<RunUpProfile, "rpm">): DropLimits {
  return { ...limits, resolutionRpm: Math.min(limits.resolutionRpm, 8 * rpmScale(profile)) };
}

/** Drop state of one side, compared with the other side and the limits, rpm. */
export function dropOf(
  made: DroppedSide,
  other: DroppedSide | undefined,
  side: string,
  limits: ObserveLimits,
  profile: RunUpProfile,
): Observation {
  const rpm = formatNumber(Math.abs(made.drop));
  const base = { feature: "drop" as const, side: made.side };
  const { state } = classifyDrop(made, other, tracedLimits(limits, profile));
  switch (state) {
    case "quit":
      return { ...base, state: "quit", words: `The engine stopped on ${side}.` };
    case "none":
    case "too small":
      return { ...base, state: "none", words: `No rpm drop on ${side}.` };
    case "over":
      return {
        ...base,
        state: "over",
        words: `${rpm} rpm drop on ${side}: over the limit of ${formatNumber(limits.maxDropRpm ?? 0)}.`,
      };
    case "uneven":
      return {
        ...base,
        state: "uneven",
        words: `${rpm} rpm drop on ${side}: ${formatNumber(made.drop - (other?.drop ?? 0))} more than on the other side.`,
      };
    case "no limit":
    case "usual":
      return { ...base, state: "usual", words: `${rpm} rpm drop on ${side}.` };
  }
}

function exhaustOf(
  made: MagnetoReading,
  other: MagnetoReading | undefined,
  side: string,
  wild: readonly number[],
): Observation | undefined {
  const own = Object.entries(made.egtChange).filter(([cylinder]) => !wild.includes(Number(cylinder)));
  if (own.length < 2) return undefined;
  const base = { feature: "exhaust" as const, side: made.side };
  const middle = median(own.map(([, change]) => change));
  // Without a drop, a changing EGT means the engine is still warming or cooling.
  if (!made.seen && made.feel !== "quit" && Math.abs(middle) >= NO_CHANGE_F) return undefined;
  if (made.feel === "quit" || middle < -40)
    return { ...base, state: "colder", words: `On ${side}, EGT fell on all cylinders.` };
  const [coldest, least] = own.reduce((a, b) => (b[1] < a[1] ? b : a));
  if (least < middle - COLDER_F)
    return {
      ...base,
      state: "one colder",
      cylinder: Number(coldest),
      words: `On ${side}, EGT ${coldest} ${least < 0 ? `fell ${formatNumber(-least)} °F` : "did not change"} while the others rose ${formatNumber(middle)} °F.`,
    };
  if (middle < NO_CHANGE_F) return { ...base, state: "no change", words: `No EGT change on ${side}.` };
  const sane = (changes: Record<number, number> | undefined) =>
    Object.entries(changes ?? {}).flatMap(([cylinder, change]) =>
      wild.includes(Number(cylinder)) ? [] : [change],
    );
  const others = sane(other?.egtBeside);
  const asLong = sane(made.egtBeside);
  const ownMiddle = asLong.length >= 2 ? median(asLong) : middle;
  // A side with a dead cylinder cannot serve as reference.
  const whole = others.length >= 2 && Math.min(...others) > median(others) - COLDER_F;
  const otherMiddle = whole && other?.seen ? median(others) : undefined;
  if (
    otherMiddle !== undefined &&
    otherMiddle > 12 &&
    ownMiddle > Math.max(MUCH_HOTTER * otherMiddle, otherMiddle + MUCH_HOTTER_F)
  )
    return {
      ...base,
      state: "much hotter",
      words: `On ${side}, all EGTs rose ${formatNumber(ownMiddle)} °F; on the other side ${formatNumber(otherMiddle)} °F in the same time.`,
    };
  return { ...base, state: "hotter", words: `On ${side}, all EGTs rose, by ${formatNumber(middle)} °F.` };
}

function heatOf(reading: RunUpReading, profile: RunUpProfile): Observation | undefined {
  const { heat } = reading;
  if (!heat || heat.doubt || profile.heat === "none") return undefined;
  const scale = rpmScale(profile);
  const what = profile.heat === "alternate air" ? "Alternate air" : "Carburettor heat";
  // Back on both, rpm can differ from its base by up to fifteen; unprompted or coarse readings are less exact.
  const least = (reading.prompted && reading.interval <= COARSE_S ? 14 : 27) * scale;
  const base = { feature: "heat" as const };
  if (heat.gain !== undefined && heat.gain > least)
    return {
      ...base,
      state: "more after",
      words: `${what}: ${formatNumber(heat.gain)} rpm higher afterwards than before.`,
    };
  if (
    heat.drop < -(reading.prompted ? 8 : 20) * scale ||
    (heat.roseWhileHot > 2 * least && heat.drop < least && (heat.gain ?? 0) < 8 * scale)
  )
    return { ...base, state: "more while on", words: `${what}: rpm rose while it was on.` };
  // Alternate air costs an injected engine little, so a small drop is no fault. Without a prompt and without effect, the trace
  // cannot show that it was selected.
  if (!heat.seen || heat.drop < 6 * scale)
    return profile.heat === "alternate air" || !reading.prompted
      ? undefined
      : { ...base, state: "nothing", words: `${what}: no rpm change.` };
  return {
    ...base,
    state: "drop",
    words: `${what}: ${formatNumber(heat.drop)} rpm drop, then back to normal.`,
  };
}

function inRange(value: number, { min, max }: LimitRange): "low" | "in range" | "high" {
  if (min !== undefined && value < min) return "low";
  return max !== undefined && value > max ? "high" : "in range";
}

function gaugesOf(reading: RunUpReading, profile: RunUpProfile): Observation[] {
  const found: Observation[] = [];
  const { volts, amps, suction, oilPressure, propeller, idle } = reading;
  if (volts) {
    const state = inRange(volts.value, profile.charging);
    found.push({ feature: "volts", state, words: `${formatNumber(volts.value, 1)} V at the run-up.` });
  }
  if (amps)
    found.push({
      feature: "ammeter",
      state: amps.value < -1.5 ? "discharging" : "charging",
      words: `Ammeter ${formatNumber(amps.value)} A.`,
    });
  if (suction && profile.suctionGreen)
    found.push({
      feature: "suction",
      state: inRange(suction.value, profile.suctionGreen),
      words: `Suction ${formatNumber(suction.value, 1)} inHg.`,
    });
  if (oilPressure)
    found.push({
      feature: "oilPressure",
      state: inRange(oilPressure.value, profile.oilPressure),
      words: `Oil pressure ${formatNumber(oilPressure.value)} psi.`,
    });
  if (propeller && profile.propellerCheck) {
    const { dropRpm, withinS } = profile.propellerCheck;
    // Sampling once a second cannot resolve half a second.
    const quick = propeller.answeredIn <= withinS + 0.5 * reading.interval;
    // Cycled quickly without prompts: the fall is limited by the pilot's hand.
    const far =
      propeller.drop >= dropRpm ||
      (!reading.prompted && propeller.drop >= 0.5 * dropRpm) ||
      (reading.interval > COARSE_S && propeller.drop >= 0.75 * dropRpm);
    const state = propeller.drop < 0.1 * dropRpm ? "nothing" : quick && far ? "answers" : "slow";
    if (reading.prompted || !quick || far)
      found.push({
        feature: "propeller",
        state,
        words: `Propeller: ${formatNumber(propeller.drop)} rpm drop, half of it within ${formatNumber(propeller.answeredIn, 1)} s.`,
      });
  }
  if (idle) {
    const range = inRange(idle.floor, profile.idle);
    found.push({
      feature: "idle",
      state: idle.quit ? "quits" : range,
      words: idle.quit ? "The engine stopped at idle." : `Idle ${formatNumber(idle.floor)} rpm.`,
    });
  }
  return found;
}

/**
 * True if one cylinder changes differently from the others between run-up and low power. Both idle and ground rpm count: while
 * leaning, EGT rises and falls again, and may cross the others at one of them.
 */
function exhaustAtIdle({ egt }: RunUpReading, wild: readonly number[]): Observation | undefined {
  const found = [
    { at: "idle", apart: furthestApart(egt.idle, egt.base, wild) },
    { at: "ground rpm", apart: furthestApart(egt.ground, egt.base, wild) },
  ].flatMap(({ at, apart }) => (apart ? [{ at, ...apart }] : []));
  const [first] = found.sort((a, b) => Math.abs(b.off) - Math.abs(a.off));
  if (!first) return undefined;
  const { at, cylinder, off } = first;
  // Cylinders of a serviceable engine differ by tens of degrees at any power; only a deviation from the others' spread counts.
  const border = bordersOfMoves(at === "idle" ? egt.idle : egt.ground, egt.base, [...wild, cylinder]);
  if (Math.abs(off) > border)
    return {
      feature: "idleExhaust",
      state: Math.abs(off) > FAR * USUAL_SPREAD_F ? "far apart" : "one apart",
      cylinder,
      words: `From run-up to ${at}, EGT ${cylinder} changed differently from the others: ${formatNumber(Math.abs(off))} °F ${off > 0 ? "hotter" : "colder"} at ${at}.`,
    };
  if (Math.abs(off) > A_LITTLE * border)
    return {
      feature: "idleExhaust",
      state: "a little apart",
      cylinder,
      words: `At ${at}, EGT ${cylinder} was ${formatNumber(Math.abs(off))} °F ${off > 0 ? "hotter" : "colder"} than expected from the others. A healthy engine can do this too.`,
    };
  return { feature: "idleExhaust", state: "alike", words: "At low power all EGTs fell by about the same." };
}

/**
 * Usual spread of EGT changes between cylinders of a serviceable engine, °F: thirty at power and thirty at idle, independently
 * (common practice).
 */
const USUAL_SPREAD_F = 42;
/** Multiple of the usual spread that no cylinder of a serviceable engine exceeds, except about once in a thousand. */
const FAR = 4.2;
/** From this part of what stands out on it is a little apart: the furthest cylinder of one healthy engine in seventeen (own figures). */
const A_LITTLE = 0.8;
/** How many cylinders' worth of trust that has beside what is seen on this one. */
const TRUST = 6;
/** So many times the spread is one apart: of six cylinders of a serviceable engine one in some hundred traces. */
const STANDS_OUT = 3.4;
/**
 * The same by what the others alone show, by how many they are: the fewer, the less is known of their scatter. One in a thousand, since few that go alike by chance are met often.
 */
const STANDS_OUT_OF: Record<number, number> = { 2: 45, 3: 18, 4: 11, 5: 8.5, 6: 7.3, 7: 6.6, 8: 6 };
/** Where all others go alike, a cylinder that moves so far otherwise is one on its own, °F. */
const MIN_APART_F = 45;

/**
 * From how far on a cylinder's move stands out of the others', °F: of what cylinders usually do, drawn to what these few show; or of what these show, where they go much more alike than
 * usual. `without` are left out, and the one that is held against it. Source: shrinkage of a variance towards a prior; Student's t, about one in a thousand, for the furthest of
 * all (own figures).
 */
function bordersOfMoves(
  low: Record<number, number>,
  base: Record<number, number>,
  without: readonly number[],
): number {
  const moves = Object.entries(low).flatMap(([name, value]) => {
    const was = base[Number(name)];
    return was === undefined || without.includes(Number(name)) ? [] : [value - was];
  });
  const free = Math.max(0, moves.length - 1);
  const mean = moves.reduce((sum, value) => sum + value, 0) / Math.max(1, moves.length);
  const seen = moves.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  const usual = STANDS_OUT * Math.sqrt((TRUST * USUAL_SPREAD_F ** 2 + seen) / (TRUST + free));
  const own = free > 0 ? (STANDS_OUT_OF[moves.length] ?? 5.5) * Math.sqrt(seen / free) : usual;
  return Math.max(MIN_APART_F, Math.min(usual, own));
}

/** The cylinder that moved furthest otherwise than the middle of all, from its base to a low power; °F. */
function furthestApart(
  low: Record<number, number>,
  base: Record<number, number>,
  wild: readonly number[],
): { cylinder: number; off: number } | undefined {
  const moves = Object.entries(low).flatMap(([name, value]) => {
    const cylinder = Number(name);
    const was = base[cylinder];
    return was === undefined || wild.includes(cylinder) ? [] : [{ cylinder, move: value - was }];
  });
  if (moves.length < 3) return undefined;
  const middle = median(moves.map(({ move }) => move));
  return moves
    .map(({ cylinder, move }) => ({ cylinder, off: move - middle }))
    .reduce((a, b) => (Math.abs(b.off) > Math.abs(a.off) ? b : a));
}
