import { assertFinite, QuantityError } from "../units/convert";
import { formatNumber, formatQuantity } from "../units/format";
import { type Judgement, type Source, unjudged } from "../verdict/judgement";

export type EngineFeel = "smooth" | "rough" | "quit";

export interface MagnetoProfile {
  maxDropRpm?: number;
  maxDifferenceRpm?: number;
  /** Smallest change that can be read off this tachometer, rpm. */
  resolutionRpm: number;
  tachometerMaxRpm: number;
  source: Source;
}

export interface MagnetoSide {
  rpm: number;
  feel?: EngineFeel;
}

export interface MagnetoInput {
  baseRpm: number;
  right?: MagnetoSide;
  left?: MagnetoSide;
  profile: MagnetoProfile;
  /** A trace has said more than a drop and a feel can: then no cause is guessed from them. */
  explained?: boolean;
}

export interface MagnetoResult {
  rightDropRpm?: number;
  leftDropRpm?: number;
  differenceRpm?: number;
  judgements: Judgement[];
}

const HOT = "Treat the propeller as live with the key off. Nobody near it, chocks in, call maintenance.";
const CLEAR =
  "Lean for peak temperature, a little more rpm, about a minute, then check again. Not cleared in two tries: taxi back.";

/**
 * The magneto check: the drop on each side against the greatest drop, and their difference against the greatest difference.
 * No drop at all is a stop (a magneto that is not grounded, a switch or timing fault), and so is an engine that quits on one side;
 * neither needs a limit on file. A drop smaller than the tachometer can show is sent back to be looked at again.
 * Valid range: rpm from 0 to the tachometer's end, base > 0; throws QuantityError otherwise. Give one side or both.
 * Source: limits from the profile; the pair of limits and the meaning of no drop are common practice.
 */
export function judgeMagnetos({
  baseRpm,
  right,
  left,
  profile,
  explained = false,
}: MagnetoInput): MagnetoResult {
  const check = (what: string, rpm: number) => {
    assertFinite(what, rpm);
    if (rpm < 0) throw new QuantityError(`${what} cannot be negative.`);
    if (rpm > profile.tachometerMaxRpm)
      throw new QuantityError(
        `${what}: the tachometer ends at ${formatNumber(profile.tachometerMaxRpm)} rpm. Read it again.`,
      );
  };
  check("The run-up rpm", baseRpm);
  if (baseRpm === 0) throw new QuantityError("The run-up rpm must be more than zero.");
  const judgements: Judgement[] = [];
  const drops: Partial<Record<"right" | "left", number>> = {};
  for (const [side, reading] of [
    ["right", right],
    ["left", left],
  ] as const) {
    if (!reading) continue;
    check(`The rpm on ${side}`, reading.rpm);
    drops[side] = baseRpm - reading.rpm;
    judgements.push(judgeSide(side, baseRpm - reading.rpm, reading, profile, explained));
  }
  const result: MagnetoResult = { judgements };
  if (drops.right !== undefined) result.rightDropRpm = drops.right;
  if (drops.left !== undefined) result.leftDropRpm = drops.left;
  if (drops.right === undefined || drops.left === undefined) return result;
  if (right?.feel === "quit" || left?.feel === "quit") return result;
  result.differenceRpm = Math.abs(drops.right - drops.left);
  judgements.push(judgeDifference(result.differenceRpm, profile));
  return result;
}

function judgeSide(
  side: "right" | "left",
  drop: number,
  { feel, rpm }: MagnetoSide,
  profile: MagnetoProfile,
  explained: boolean,
): Judgement {
  const id = `magneto.${side}`;
  const subject = `Magneto, ${side}`;
  const reading = { value: drop, unit: "rpm" } as const;
  const { maxDropRpm, source } = profile;
  const limited =
    maxDropRpm === undefined
      ? {}
      : {
          limit: `at most ${formatNumber(maxDropRpm)} rpm`,
          margin: { value: maxDropRpm - drop, unit: "rpm" as const },
          source,
        };
  const base = { id, subject, reading };
  if (feel === "quit" || rpm === 0)
    return {
      ...base,
      grade: "stop",
      sentence: `The engine stops on ${side}: that magneto is dead.`,
      action: "Throttle to idle before switching back to both. Taxi back, do not fly.",
    };
  if (drop <= 0)
    return {
      ...base,
      ...limited,
      grade: "stop",
      sentence:
        drop === 0
          ? `No drop at all on ${side}. That is not good news: it may not be grounded.`
          : `The rpm rose on ${side}: no drop was seen. Switch, grounding or timing is wrong.`,
      action: "Do not fly. Find out whether the switch grounds this magneto.",
      caution: HOT,
    };
  if (drop < profile.resolutionRpm)
    return {
      ...base,
      ...limited,
      grade: "ask",
      sentence: `${formatNumber(drop)} rpm is less than this tachometer can show: it cannot be told from no drop at all.`,
      action: "Check again and look for a drop.",
      caution: HOT,
    };
  if (maxDropRpm === undefined)
    return unjudged(
      id,
      subject,
      `${formatQuantity(reading)} drop: no greatest drop on file for this aircraft. Look in its handbook.`,
      reading,
    );
  if (drop > maxDropRpm)
    return {
      ...base,
      ...limited,
      grade: "stop",
      sentence: `${formatNumber(drop)} rpm drop, ${formatNumber(drop - maxDropRpm)} over the limit${felt(feel, explained)}`,
      action: CLEAR,
      caution: "Look outside and at the temperatures while you clear it.",
    };
  if (feel === "rough")
    return {
      ...base,
      ...limited,
      grade: "ask",
      sentence: `${formatNumber(drop)} rpm is inside the limit, but it ran rough.`,
      action: CLEAR,
    };
  return {
    ...base,
    ...limited,
    grade: "sound",
    sentence: `${formatNumber(drop)} rpm drop, inside the limit.`,
  };
}

/** Big and rough is mostly a plug, big and smooth timing or mixture: common practice, where nothing better is known. */
function felt(feel: EngineFeel | undefined, explained: boolean): string {
  if (feel === "rough") return explained ? ", and rough." : ", and rough: most likely a fouled plug.";
  return feel === "smooth" && !explained ? ", yet smooth: think of timing or mixture." : ".";
}

function judgeDifference(difference: number, { maxDifferenceRpm, source }: MagnetoProfile): Judgement {
  const id = "magneto.difference";
  const subject = "Magnetos, apart";
  const reading = { value: difference, unit: "rpm" } as const;
  if (maxDifferenceRpm === undefined)
    return unjudged(
      id,
      subject,
      `${formatQuantity(reading)} apart: no greatest difference on file for this aircraft. Look in its handbook.`,
      reading,
    );
  const margin = maxDifferenceRpm - difference;
  return {
    id,
    subject,
    grade: margin >= 0 ? "sound" : "stop",
    reading,
    limit: `at most ${formatNumber(maxDifferenceRpm)} rpm`,
    margin: { value: margin, unit: "rpm" },
    source,
    sentence:
      margin >= 0
        ? `${formatNumber(difference)} rpm apart.`
        : `${formatNumber(difference)} rpm apart, ${formatNumber(-margin)} over the limit.`,
    ...(margin < 0 && { action: CLEAR }),
  };
}
