import type { Judgement, Source } from "../judgement/judgement";
import { assertFinite, QuantityError } from "../units/convert";
import { formatNumber } from "../units/format";

const PRACTICE = (text: string): Source => ({ kind: "common practice", text, example: false });
const HEADING_WITHIN = 5;
const CLIMB_WITHIN = 100;

/** Compass deviation card. */
export interface DeviationCard {
  /** Compass heading, and its error there in degrees, positive if it reads high. */
  points: { headingDeg: number; deviationDeg: number }[];
}

/**
 * Reads a card written as "0:1, 90:-2, 180:0, 270:3": compass heading and error. Undefined without a card; throws QuantityError
 * if it cannot be read.
 */
export function readDeviationCard(text: string | undefined): DeviationCard | undefined {
  if (text === undefined || text.trim() === "") return undefined;
  const points = text.split(",").map((pair) => {
    const [heading, deviation] = pair.split(":").map(Number);
    if (
      heading === undefined ||
      deviation === undefined ||
      !Number.isFinite(heading) ||
      !Number.isFinite(deviation)
    )
      throw new QuantityError(
        `The compass card has a mistake at "${pair.trim()}". Enter heading:deviation, such as 90:-2.`,
      );
    return { headingDeg: ((heading % 360) + 360) % 360, deviationDeg: deviation };
  });
  return { points: points.sort((a, b) => a.headingDeg - b.headingDeg) };
}

/** Deviation at a compass heading, linear between the card's points, around the full circle. Degrees. Source: any compass card. */
export function deviationAt({ points }: DeviationCard, headingDeg: number): number {
  assertFinite("The compass heading", headingDeg);
  const at = ((headingDeg % 360) + 360) % 360;
  const next = points.find((point) => point.headingDeg >= at) ?? points[0];
  const before = points.findLast((point) => point.headingDeg <= at) ?? points.at(-1);
  if (!next || !before) return 0;
  const span = (((next.headingDeg - before.headingDeg) % 360) + 360) % 360;
  if (span === 0) return before.deviationDeg;
  const along = (((at - before.headingDeg) % 360) + 360) % 360;
  return before.deviationDeg + ((next.deviationDeg - before.deviationDeg) * along) / span;
}

/**
 * Signed smaller angle between two headings, from −180 up to 180 degrees; valid for every finite number. Source: arithmetic of
 * the circle.
 */
export function headingDifference(a: number, b: number): number {
  return ((((a - b) % 360) + 540) % 360) - 180;
}

/**
 * Judges the heading indicator against the corrected compass, within 5° (common practice). Degrees magnetic. Valid range: 0 to
 * 360 each; throws QuantityError otherwise. Without a card the compass is used uncorrected, and the result says so.
 */
export function judgeHeading(
  indicatedDeg: number,
  compassDeg: number,
  card: DeviationCard | undefined,
): Judgement {
  for (const [what, value] of [
    ["The heading", indicatedDeg],
    ["The compass", compassDeg],
  ] as const) {
    assertFinite(what, value);
    if (value < 0 || value > 360) throw new QuantityError(`${what} must be 0 to 360°.`);
  }
  const corrected = compassDeg - (card ? deviationAt(card, compassDeg) : 0);
  const off = headingDifference(indicatedDeg, corrected);
  const margin = HEADING_WITHIN - Math.abs(off);
  const by = card
    ? `${formatNumber((corrected + 360) % 360)}° corrected by its card`
    : "no card on file: not corrected";
  return {
    id: "heading",
    subject: "Heading indicator",
    scope: "aircraft",
    grade: margin >= 0 ? "within limits" : "ask",
    reading: { value: indicatedDeg, unit: "°" },
    limit: `within ${HEADING_WITHIN}° of the compass`,
    margin: { value: margin, unit: "°" },
    source: PRACTICE("within 5° of runway, taxiway or the corrected compass"),
    sentence: `${off === 0 ? "The same as" : `${formatNumber(Math.abs(off))}° ${off > 0 ? "more than" : "less than"}`} the compass (${by}).`,
    ...(margin < 0 && {
      action:
        "Set it to the corrected compass, taxi through a turn, check again. If still out, ask a mechanic.",
    }),
  };
}

/** Judges the VSI at rest: within 100 ft/min of zero, and that reading becomes its zero (common practice). ft/min. */
export function judgeVsi(reading: number): Judgement {
  assertFinite("The VSI", reading);
  const margin = CLIMB_WITHIN - Math.abs(reading);
  const zero = `${formatNumber(Math.abs(reading))} ${reading > 0 ? "up" : "down"}`;
  return {
    id: "climb",
    subject: "VSI",
    scope: "aircraft",
    grade: margin >= 0 ? (reading === 0 ? "within limits" : "note") : "ask",
    reading: { value: reading, unit: "ft/min" },
    limit: `within ${CLIMB_WITHIN} ft/min of zero`,
    margin: { value: margin, unit: "ft/min" },
    source: PRACTICE("within 100 ft/min of zero; use that reading as zero"),
    sentence:
      reading === 0
        ? "Reads zero."
        : margin >= 0
          ? `Reads ${zero} at rest: use that as zero today.`
          : `Reads ${zero} at rest: too far from zero.`,
    ...(margin < 0 && { action: "Have it adjusted, or fly without it today if that is allowed." }),
  };
}

const RECEIVER_GROUND = 4;
const RECEIVER_DAYS = 30;
const RULE: Source = {
  kind: "rule",
  text: "14 CFR 91.171, from memory: 30 days, 4° on the ground or between two receivers",
  example: true,
};
const DAY = 86_400_000;

/**
 * Judges the VOR receiver check: each bearing error within 4° on the ground, both within 4° of each other. Degrees.
 * Valid range: −180 to 180; throws QuantityError otherwise. Source: 14 CFR 91.171, from memory.
 */
export function judgeVorReceivers(errorsDeg: { one?: number; two?: number }): Judgement {
  const { one, two } = errorsDeg;
  for (const value of [one, two])
    if (value !== undefined && (!Number.isFinite(value) || Math.abs(value) > 180))
      throw new QuantityError("A bearing error must be −180 to 180°.");
  const off = [one, two].filter((value): value is number => value !== undefined).map(Math.abs);
  const apart = one !== undefined && two !== undefined ? Math.abs(one - two) : 0;
  const worst = Math.max(...off, apart);
  const margin = RECEIVER_GROUND - worst;
  return {
    id: "receivers",
    subject: "VOR 1 and 2",
    scope: "aircraft",
    grade: margin >= 0 ? "within limits" : "ask",
    reading: { value: worst, unit: "°" },
    limit: `within ${RECEIVER_GROUND}°`,
    margin: { value: margin, unit: "°" },
    source: RULE,
    sentence:
      margin >= 0
        ? `${off.map((value) => `${formatNumber(value)}°`).join(" and ")} error, logged: valid for ${RECEIVER_DAYS} days.`
        : `${formatNumber(worst)}° ${apart === worst ? "difference" : "error"} is more than ${RECEIVER_GROUND}°. Do not use it for instrument flight.`,
  };
}

/**
 * Judges the age of the VOR check for instrument flight: over 30 days it must be repeated. Undefined while it is in date. Valid
 * range: times in ISO 8601. Source: 14 CFR 91.171 (from memory); local rules come first.
 */
export function judgeReceiverAge(lastAt: string | undefined, now: string): Judgement | undefined {
  const days = lastAt === undefined ? undefined : Math.floor((Date.parse(now) - Date.parse(lastAt)) / DAY);
  if (days !== undefined && days <= RECEIVER_DAYS) return undefined;
  return {
    id: "receivers.age",
    subject: "VOR 1 and 2",
    // Nothing is known to be wrong; they were not checked.
    scope: "day",
    grade: "ask",
    limit: `within ${RECEIVER_DAYS} days`,
    source: RULE,
    sentence:
      days === undefined
        ? "No VOR check on record."
        : `Last checked ${days} days ago; the limit is ${RECEIVER_DAYS} days.`,
    action: "Check them now and log place, date and error, or do not use them for instrument flight.",
  };
}
