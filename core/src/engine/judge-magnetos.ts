import { type Judgement, notAssessed, type Source } from "../judgement/judgement";
import { assertFinite, QuantityError } from "../units/convert";
import { formatNumber, formatQuantity } from "../units/format";
import { type ClassifiedDrop, classifyDrop, type Dropped, type EngineFeel } from "./classify-drop";
import { otherSide, type Side } from "./side";

export interface MagnetoProfile {
  maxDropRpm?: number;
  maxDifferenceRpm?: number;
  /** Smallest change readable on this tachometer, rpm. */
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
  /** True if a trace has already explained the drop: then no cause is guessed. */
  explained?: boolean;
  /** How plugs are cleared on this type, in words. */
  clearing?: string;
}

export interface MagnetoResult {
  rightDropRpm?: number;
  leftDropRpm?: number;
  differenceRpm?: number;
  judgements: Judgement[];
}

const HOT =
  "Treat the propeller as live even with the key off. Keep everyone clear, chocks in, call maintenance.";
/** Default text if the type has no plug-clearing procedure. */
const CLEAR =
  "Clear the plugs as the handbook says, then check again. If not cleared after two tries, taxi back.";

const SIDES = ["right", "left"] as const;

/** Cause of a fault on one side: plug, lead, timing or ground of that magneto. */
export const magnetoCause = (side: Side): string => `magneto.${side}`;

/**
 * Judges the magneto check: each drop against the maximum drop, and their difference against the maximum difference. No drop at
 * all is a stop (ungrounded magneto, switch or timing fault), and so is an engine that quits on one side; both without any limit
 * on file. A drop smaller than the tachometer can show must be repeated. An excessive difference belongs to the side at fault,
 * else to the larger drop: one cause.
 * Valid range: rpm from 0 to the tachometer's end, base > 0; throws QuantityError otherwise. One side or both.
 * Source: limits from the profile; the pair of limits and the meaning of no drop are common practice.
 */
export function judgeMagnetos(input: MagnetoInput): MagnetoResult {
  const { baseRpm, profile } = input;
  checkRpm("The run-up rpm", baseRpm, profile);
  if (baseRpm === 0) throw new QuantityError("The run-up rpm must be more than zero.");
  const made = (side: Side): (Dropped & { rpm: number }) | undefined => {
    const reading = input[side];
    if (!reading) return undefined;
    checkRpm(`The rpm on ${side}`, reading.rpm, profile);
    const feel = reading.rpm === 0 ? "quit" : reading.feel;
    return { rpm: reading.rpm, drop: baseRpm - reading.rpm, ...(feel && { feel }) };
  };
  const sides = { right: made("right"), left: made("left") };
  const result: MagnetoResult = { judgements: [] };
  const out: Side[] = [];
  let apart: ClassifiedDrop | undefined;
  for (const side of SIDES) {
    const own = sides[side];
    if (!own) continue;
    result[side === "right" ? "rightDropRpm" : "leftDropRpm"] = own.drop;
    const other = sides[otherSide(side)];
    const classified = classifyDrop(own, other, profile);
    if (classified.apartRpm !== undefined && own.feel !== "quit") apart = classified;
    const judged = judgeSide(side, own, classified, input);
    if (judged.grade !== "within limits" && judged.grade !== "unjudged") out.push(side);
    result.judgements.push(judged);
  }
  const { right, left } = sides;
  if (!right || !left || apart?.apartRpm === undefined) return result;
  result.differenceRpm = apart.apartRpm;
  const [first] = out;
  const side = first ?? (right.drop > left.drop ? "right" : "left");
  result.judgements.push(judgeDifference(apart.apartRpm, side, input));
  return result;
}

function checkRpm(what: string, rpm: number, { tachometerMaxRpm }: MagnetoProfile): void {
  assertFinite(what, rpm);
  if (rpm < 0) throw new QuantityError(`${what} cannot be negative.`);
  if (rpm > tachometerMaxRpm)
    throw new QuantityError(
      `${what} is above the tachometer's ${formatNumber(tachometerMaxRpm)} rpm. Read it again.`,
    );
}

function judgeSide(
  side: Side,
  { drop, feel }: Dropped,
  { state, overRpm }: ClassifiedDrop,
  { profile, explained = false, clearing = CLEAR }: MagnetoInput,
): Judgement {
  const reading = { value: drop, unit: "rpm" } as const;
  const { maxDropRpm, source } = profile;
  const own = {
    id: `magneto.${side}`,
    cause: magnetoCause(side),
    scope: "aircraft" as const,
    subject: `Magneto, ${side}`,
    reading,
  };
  const base = {
    ...own,
    ...(maxDropRpm !== undefined && {
      limit: `at most ${formatNumber(maxDropRpm)} rpm`,
      margin: { value: maxDropRpm - drop, unit: "rpm" as const },
      source,
    }),
  };
  switch (state) {
    case "quit":
      return {
        ...own,
        grade: "stop",
        sentence: `The engine stops on ${side}: that magneto is dead.`,
        action: "Throttle to idle before switching back to both. Do not fly: taxi back.",
      };
    case "none":
      return {
        ...base,
        grade: "stop",
        sentence:
          drop === 0
            ? `No drop on ${side}: this magneto may not be grounded.`
            : `Rpm rose on ${side} instead of dropping: switch, grounding or timing fault.`,
        action: "Do not fly. Have a mechanic check that the switch grounds this magneto.",
        caution: HOT,
      };
    case "too small":
      return {
        ...base,
        grade: "ask",
        sentence: `${formatNumber(drop)} rpm is too small for this tachometer to show. It may be no drop at all.`,
        action: "Check again and look for a drop.",
        caution: HOT,
      };
    case "over":
      return {
        ...base,
        grade: "stop",
        sentence: `${formatNumber(drop)} rpm drop, ${formatNumber(overRpm)} over the limit${felt(feel, explained)}`,
        action: clearing,
        caution: "While clearing, look outside and monitor the temperatures.",
      };
    case "no limit":
    case "uneven":
    case "usual":
      // Roughness needs no limit on file.
      if (feel === "rough")
        return {
          ...base,
          grade: "ask",
          sentence: `${formatNumber(drop)} rpm ${maxDropRpm === undefined ? "drop, and the engine" : "is within the limit, but the engine"} ran rough.`,
          action: clearing,
        };
      if (maxDropRpm === undefined)
        return notAssessed(
          own.id,
          own.subject,
          `${formatQuantity(reading)} drop: no maximum drop on file for this aircraft. Check its handbook.`,
          reading,
        );
      return {
        ...base,
        grade: "within limits",
        sentence: `${formatNumber(drop)} rpm drop, within the limit.`,
      };
  }
}

/** A large rough drop is usually a plug, a large smooth one timing or mixture: common practice. */
function felt(feel: EngineFeel | undefined, explained: boolean): string {
  if (feel === "rough") return explained ? ", and rough." : ", and rough: most likely a fouled plug.";
  return feel === "smooth" && !explained ? ", but smooth: suspect timing or mixture." : ".";
}

function judgeDifference(
  difference: number,
  side: Side,
  { profile: { maxDifferenceRpm, source }, clearing = CLEAR }: MagnetoInput,
): Judgement {
  const id = "magneto.difference";
  const subject = "Magneto difference";
  const reading = { value: difference, unit: "rpm" } as const;
  if (maxDifferenceRpm === undefined)
    return notAssessed(
      id,
      subject,
      `${formatQuantity(reading)} difference: no maximum difference on file for this aircraft. Check its handbook.`,
      reading,
    );
  const margin = maxDifferenceRpm - difference;
  return {
    id,
    cause: magnetoCause(side),
    scope: "aircraft",
    subject,
    grade: margin >= 0 ? "within limits" : "stop",
    reading,
    limit: `at most ${formatNumber(maxDifferenceRpm)} rpm`,
    margin: { value: margin, unit: "rpm" },
    source,
    sentence:
      margin >= 0
        ? `${formatNumber(difference)} rpm between the sides.`
        : `${formatNumber(difference)} rpm between the sides, ${formatNumber(-margin)} over the limit.`,
    ...(margin < 0 && { action: clearing }),
  };
}
