import type { Judgement, Source } from "../judgement/judgement";
import type { Unit } from "../units/convert";
import { formatQuantity } from "../units/format";

/** Personal minimums; absent fields are not limited. */
export interface Minima {
  windKt?: number;
  /** Maximum gust above the mean wind. */
  gustKt?: number;
  crosswindKt?: number;
  tailwindKt?: number;
  ceilingFt?: number;
  visibilityM?: number;
  /** Minimum safety factor for distances. */
  runwayFactor?: number;
  /** Fuel that must remain on landing, minutes. */
  reserveMin?: number;
  /** No night flights; no passengers. */
  noNight?: true;
  noPassengers?: true;
}

/** Numeric fields: unit, and whether the value is a maximum or minimum. */
export const MINIMA_FIELDS = {
  windKt: { name: "Wind", unit: "kt", at: "most", min: 0, max: 60 },
  gustKt: { name: "Gusts above the mean wind", unit: "kt", at: "most", min: 0, max: 40 },
  crosswindKt: { name: "Crosswind", unit: "kt", at: "most", min: 0, max: 40 },
  tailwindKt: { name: "Tailwind", unit: "kt", at: "most", min: 0, max: 15 },
  ceilingFt: { name: "Ceiling", unit: "ft", at: "least", min: 0, max: 10_000 },
  visibilityM: { name: "Visibility", unit: "m", at: "least", min: 0, max: 10_000 },
  runwayFactor: { name: "Runway safety factor", unit: "count", at: "least", min: 1, max: 4 },
  reserveMin: { name: "Fuel reserve", unit: "min", at: "least", min: 0, max: 240 },
} as const satisfies Record<
  Exclude<keyof Minima, "noNight" | "noPassengers">,
  { name: string; unit: Unit; at: "most" | "least"; min: number; max: number }
>;
export type MinimaField = keyof typeof MINIMA_FIELDS;

/** Origin of limits. */
export const MINIMA_OF = ["rule", "aircraft", "authorisation", "pilot"] as const;
export type MinimaOf = (typeof MINIMA_OF)[number];

export interface MinimaSet {
  of: MinimaOf;
  minima: Minima;
  source: Source;
  /** Authorisation: aircraft and days it covers; absent: all. */
  aircraft?: string[];
  until?: string;
}

const WHOSE: Record<MinimaOf, string> = {
  rule: "the rule's",
  aircraft: "the aircraft's",
  authorisation: "the authorisation's",
  pilot: "your personal",
};
/** Precedence for equal limits: earlier ones cannot be widened by later ones. */
const ORDER: readonly MinimaOf[] = MINIMA_OF;

/** Strictest of several limits for one field, with its origin; undefined if there is none. Complexity: O(sets). */
export function strictest(
  sets: readonly MinimaSet[],
  field: MinimaField,
): { value: number; set: MinimaSet } | undefined {
  const { at } = MINIMA_FIELDS[field];
  return sets
    .flatMap((set) => {
      const value = set.minima[field];
      return value === undefined ? [] : [{ value, set }];
    })
    .sort(
      (a, b) =>
        (at === "most" ? a.value - b.value : b.value - a.value) ||
        ORDER.indexOf(a.set.of) - ORDER.indexOf(b.set.of),
    )[0];
}

/** Today's values; unknown ones are absent and not judged. */
export interface MinimaForFlight extends Partial<Record<Exclude<MinimaField, "runwayFactor">, number>> {
  night?: boolean;
  passengers?: boolean;
}

/** The pilot's own minimums and the aircraft's demonstrated limits mean ask first; an authorisation or a rule means stop. */
const gradeOf = (of: MinimaOf): "ask" | "stop" => (of === "pilot" || of === "aircraft" ? "ask" : "stop");

const cautionOf = (of: MinimaOf): string | undefined =>
  of === "pilot"
    ? "You set this minimum yourself, before any pressure to fly."
    : of === "authorisation"
      ? "Only your instructor can change it, and not for this preflight."
      : undefined;

/**
 * Judges today's values against the strictest of pilot, authorisation, aircraft and rule. Exceeding a personal minimum or a
 * demonstrated limit is "ask"; exceeding an authorisation or rule is "stop". Complexity: O(fields · sets). Source: that of each
 * limit.
 */
export function judgeMinima(sets: readonly MinimaSet[], today: MinimaForFlight): Judgement[] {
  const numbers = (Object.keys(MINIMA_FIELDS) as MinimaField[]).flatMap((field): Judgement[] => {
    const reading = field === "runwayFactor" ? undefined : today[field];
    const limit = strictest(sets, field);
    if (reading === undefined || !limit) return [];
    const { name, unit, at } = MINIMA_FIELDS[field];
    const margin = at === "most" ? limit.value - reading : reading - limit.value;
    const { of, source } = limit.set;
    const said = formatQuantity({ value: limit.value, unit });
    // Tolerance below what anyone can read.
    const passed = margin < -0.05;
    const whose = WHOSE[of];
    return [
      {
        id: `minima.${field}`,
        cause: CAUSES[field] ?? `minima.${field}`,
        scope: "day",
        subject: name,
        grade: passed ? gradeOf(of) : "within limits",
        reading: { value: reading, unit },
        limit: `at ${at} ${said}, ${whose} limit`,
        margin: { value: margin, unit },
        source,
        sentence: `${formatQuantity({ value: reading, unit })}: ${whose} limit is ${said}.`,
        ...(passed && {
          action: "Wait, or do not go.",
          ...(cautionOf(of) && { caution: cautionOf(of) as string }),
        }),
      },
    ];
  });
  const never = (["noNight", "noPassengers"] as const).flatMap((what): Judgement[] => {
    const set = sets.find(({ minima }) => minima[what]);
    if (!set || !(what === "noNight" ? today.night : today.passengers)) return [];
    const words = what === "noNight" ? "night" : "passengers";
    return [
      {
        id: `minima.${what}`,
        scope: "day",
        subject: what === "noNight" ? "Night flight" : "Passengers",
        grade: gradeOf(set.of),
        limit: `no ${words}, ${WHOSE[set.of]} limit`,
        source: set.source,
        sentence: `${what === "noNight" ? "Part of the flight is at night" : "Passengers are on board"}: ${WHOSE[set.of]} limit is no ${words}.`,
        action: what === "noNight" ? "Leave earlier, or shorten the flight." : "Fly without passengers.",
      },
    ];
  });
  return [...numbers, ...never];
}

/** Shared causes with judgements that exist elsewhere. */
const CAUSES: Partial<Record<MinimaField, string>> = { crosswindKt: "wind.cross", tailwindKt: "wind.tail" };

/** Sets that apply to an aircraft on a day. */
export const minimaFor = (sets: readonly MinimaSet[], registration: string, date: string): MinimaSet[] =>
  sets.filter(
    ({ aircraft, until }) => (!aircraft || aircraft.includes(registration)) && (!until || date <= until),
  );
