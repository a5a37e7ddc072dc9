import { type DroppedSide, tracedLimits } from "../diagnosis/evidence/observe";
import { classifyDrop } from "../engine/classify-drop";
import { otherSide } from "../engine/side";
import { inUnit, marginTo } from "../judgement/judgement";
import type { HeatReading, MagnetoReading, RunUpReading, Side } from "../run-up/reading/run-up-reading";
import type { RunUpProfile } from "../run-up/run-up-profile";
import { formatNumber, formatQuantity } from "../units/format";
import { type RunUpEngine, sideNames } from "./run-up-engine";

/** One result of a trace: its number, whether it is within limits, and its place in the trace. */
export interface Check {
  id: string;
  name: string;
  value: string;
  more?: string;
  bad?: boolean;
  from: number;
  to: number;
}

/** All checks found in the trace, in run-up order. Here only within or outside limits; judged in full when saved. */
export function checksOf(reading: RunUpReading, { profile, limits }: RunUpEngine): Check[] {
  const words = sideNames(profile);
  const checks: Check[] = [];
  for (const side of ["right", "left"] as const) {
    const made = reading[side];
    if (!made) continue;
    const quit = made.feel === "quit";
    checks.push({
      id: side,
      name: words[side],
      value: quit ? "stops" : made.seen ? dropText(made.drop) : "no drop",
      more: made.doubt ?? howItDropped(made, reading),
      bad: isOut(reading, side, { profile, limits }),
      from: made.from,
      to: made.to,
    });
  }
  const { right, left, heat, propeller, idle } = reading;
  const apart = right && classifyDrop(right, left, tracedLimits(limits, profile));
  // A doubtful side cannot serve as reference.
  if (right && left && !right.doubt && !left.doubt && right.feel !== "quit" && left.feel !== "quit")
    checks.push({
      id: "apart",
      name: "difference",
      value: formatNumber(Math.abs(right.drop - left.drop)),
      bad: (apart?.tooFarApartRpm ?? 0) > 0,
      from: Math.min(right.from, left.from),
      to: Math.max(right.to, left.to),
    });
  if (heat)
    checks.push({
      id: "heat",
      name: profile.heat,
      value: heat.seen ? dropText(heat.drop) : "no change",
      ...afterHeat(heat),
      from: heat.from,
      to: heat.to,
    });
  if (propeller && profile.propeller === "constant speed")
    checks.push({
      id: "propeller",
      name: "propeller",
      value: dropText(propeller.drop),
      more: [
        `half within ${formatNumber(propeller.answeredIn, 1)} s`,
        ...giveOrTake(propeller.dropSigma),
      ].join(", "),
      bad: profile.propellerCheck !== undefined && propeller.drop < profile.propellerCheck.dropRpm,
      from: propeller.from,
      to: propeller.to,
    });
  if (idle)
    checks.push({
      id: "idle",
      name: "idle",
      value: idle.quit ? "quits" : formatNumber(idle.floor),
      more: [`held ${formatNumber(idle.held)} s`, ...giveOrTake(idle.floorSigma)].join(", "),
      bad: idle.quit || outside(idle.floor, profile.idle),
      from: idle.from,
      to: idle.to,
    });
  checks.push(...gaugeChecks(reading, profile));
  return checks;
}

/** Names of magnetos that do not show in a run-up; undefined if both do, or the coach asked for neither. */
export function unreadSides(
  { prompted, tries, right, left }: Pick<RunUpReading, "prompted" | "tries" | "right" | "left">,
  words: { right: string; left: string },
): string | undefined {
  if ((right && left) || (prompted && tries.length === 0)) return undefined;
  return right ? words.left : left ? words.right : "the magnetos";
}

/** Drop as a pilot reads it: "−60", and "+30" for a rise. Rpm. Never throws. */
export const dropText = (drop: number): string => `${drop >= 0 ? "−" : "+"}${formatNumber(Math.abs(drop))}`;

/**
 * True if a side is out of limits: it stopped, did not drop, dropped too much, or far more than the other. A doubtful side is
 * repeated instead.
 */
export function isOut(
  reading: Pick<RunUpReading, "right" | "left">,
  side: Side,
  { profile, limits }: Pick<RunUpEngine, "profile" | "limits">,
): boolean {
  const made: DroppedSide | undefined = reading[side];
  if (!made || made.doubt) return false;
  const { state } = classifyDrop(made, reading[otherSide(side)], tracedLimits(limits, profile));
  return state !== "usual" && state !== "no limit";
}

/** Uncertainty worth mentioning, rpm. */
const WORTH_SAYING_RPM = 6;

/** Twice sigma, if worth mentioning. */
function giveOrTake(sigma: number): string[] {
  return 2 * sigma >= WORTH_SAYING_RPM ? [`± ${formatNumber(2 * sigma)}`] : [];
}

/** Running, duration and uncertainty of a drop, and whether it may cover both sides. */
function howItDropped(made: MagnetoReading, { steps }: RunUpReading): string {
  const { feel, held, back, dropSigma, from } = made;
  return [
    feel,
    `held ${formatNumber(held)} s`,
    ...(feel !== "quit" && made.seen ? giveOrTake(dropSigma) : []),
    ...(back === undefined ? [] : [`back to ${formatNumber(back)}`]),
    ...(steps.some(({ at, perhapsBoth }) => at === from && perhapsBoth)
      ? ["one side, or both together"]
      : []),
  ].join(", ");
}

/** Result after carburettor heat, or why it is unreliable. */
function afterHeat({ doubt, gain, seen, dropSigma }: HeatReading): Pick<Check, "more"> {
  if (doubt) return { more: doubt };
  const words = [
    ...(gain === undefined ? [] : [`${gain >= 0 ? "+" : "−"}${formatNumber(Math.abs(gain))} afterwards`]),
    ...(seen ? giveOrTake(dropSigma) : []),
  ];
  return words.length > 0 ? { more: words.join(", ") } : {};
}

function gaugeChecks(reading: RunUpReading, profile: RunUpProfile): Check[] {
  const { oilPressure, oilTemperature, head, volts, voltsUnderLoad, suction } = reading;
  return [
    ...(oilPressure
      ? [
          {
            id: "oil",
            name: "oil pressure",
            value: `${formatNumber(oilPressure.value)} psi`,
            bad: outside(oilPressure.value, inUnit(profile.oilPressure, "psi")),
            ...span(oilPressure),
          },
        ]
      : []),
    ...(oilTemperature
      ? [
          {
            id: "oil-temperature",
            name: "oil temperature",
            value: formatQuantity({ value: oilTemperature.value, unit: "°F" }),
            bad: outside(oilTemperature.value, inUnit(profile.oilTemperature, "°F")),
            ...span(oilTemperature),
          },
        ]
      : []),
    ...(head
      ? [
          {
            id: "head",
            name: `hottest CHT, cylinder ${head.cylinder}`,
            value: `${formatNumber(head.value)} °F`,
            more: `coolest ${formatNumber(head.coolest)}`,
            bad: head.value > (inUnit(profile.head, "°F").max ?? Number.POSITIVE_INFINITY),
            ...span(head),
          },
        ]
      : []),
    ...(volts
      ? [
          {
            id: "volts",
            name: "volts",
            value: formatNumber(volts.value, 1),
            ...(voltsUnderLoad && { more: `${formatNumber(voltsUnderLoad.value, 1)} under load` }),
            bad: outside(volts.value, profile.charging),
            ...span(volts),
          },
        ]
      : []),
    ...(suction && profile.suctionGreen
      ? [
          {
            id: "suction",
            name: "suction",
            value: formatNumber(suction.value, 1),
            bad: outside(suction.value, profile.suctionGreen),
            ...span(suction),
          },
        ]
      : []),
  ];
}

const span = ({ from, to }: { from: number; to: number }) => ({ from, to });

const outside = (value: number, limit: { min?: number; max?: number }) => marginTo(limit, value) < 0;
