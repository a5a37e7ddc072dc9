import { type Judgement, notAssessed, type Source, worstGrade } from "../judgement/judgement";
import type { Unit } from "../units/convert";
import { capital, formatNumber, formatQuantity } from "../units/format";

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
  /** No flight with anything that was not assessed. */
  noUnknown?: true;
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
  Exclude<keyof Minima, "noNight" | "noPassengers" | "noUnknown">,
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
  return limitsOf(sets, field)[0];
}

/** Today's values. An absent one is unknown; an infinite ceiling is none. */
export interface MinimaForFlight extends Partial<Record<Exclude<MinimaField, "runwayFactor">, number>> {
  night?: boolean;
  passengers?: boolean;
}

/** Why values are unknown, by field: each limit of such a field is then "not checked". A field without a reason is left out. */
export type WhyUnknown = Partial<Record<Exclude<MinimaField, "runwayFactor">, string>>;

/** The pilot's own minimums and the aircraft's demonstrated limits mean ask first; an authorisation or a rule means stop. */
const gradeOf = (of: MinimaOf): "ask" | "stop" => (of === "pilot" || of === "aircraft" ? "ask" : "stop");

const cautionOf = (of: MinimaOf): string | undefined =>
  of === "pilot"
    ? "You set this minimum yourself, before any pressure to fly."
    : of === "authorisation"
      ? "Only your instructor can change it, and not for this preflight."
      : undefined;

/** Tolerance for the rounding of sums; an exact fit fits. */
const HAIR = 1e-6;

interface Limit {
  value: number;
  set: MinimaSet;
}

/** Limits of one field with their owners, the strictest first. */
function limitsOf(sets: readonly MinimaSet[], field: MinimaField): Limit[] {
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
    );
}

/**
 * Judges today's values against the limits of pilot, authorisation, aircraft and rule. Every exceeded limit is named with its owner,
 * and the worst grade counts: exceeding a personal minimum or a demonstrated limit is "ask", exceeding an authorisation or rule is
 * "stop". A limit whose value is unknown is "not checked", with the reason. Complexity: O(fields · sets). Source: that of each limit.
 */
export function judgeMinima(
  sets: readonly MinimaSet[],
  today: MinimaForFlight,
  unknown: WhyUnknown = {},
): Judgement[] {
  const numbers = (Object.keys(MINIMA_FIELDS) as MinimaField[]).flatMap((field): Judgement[] => {
    if (field === "runwayFactor") return [];
    const limits = limitsOf(sets, field);
    const reading = today[field];
    if (limits.length === 0) return [];
    if (reading !== undefined) return [judgeField(field, reading, limits)];
    const why = unknown[field];
    return why === undefined ? [] : [notChecked(field, limits, why)];
  });
  return [...numbers, ...FORBIDDEN.flatMap((what) => judgeForbidden(sets, today, what))];
}

const least = (at: "most" | "least", limit: number, reading: number) =>
  at === "most" ? limit - reading : reading - limit;

function judgeField(field: MinimaField, reading: number, limits: readonly Limit[]): Judgement {
  const { name, unit, at } = MINIMA_FIELDS[field];
  const exceeded = limits.filter(({ value }) => least(at, value, reading) < -HAIR);
  const worst = exceeded.find(({ set }) => gradeOf(set.of) === "stop") ?? exceeded[0] ?? (limits[0] as Limit);
  const { of, source } = worst.set;
  const others = exceeded.filter((one) => one !== worst);
  const inWords = (value: number) => formatQuantity({ value, unit });
  const known = Number.isFinite(reading);
  const read = !known
    ? "None"
    : exceeded.some(({ value }) => inWords(value) === inWords(reading))
      ? `${formatNumber(reading, 2)} ${unit}`
      : inWords(reading);
  const owned = ({ value, set }: Limit) => `${WHOSE[set.of]} limit is ${inWords(value)}`;
  return {
    id: `minima.${field}`,
    cause: CAUSES[field] ?? `minima.${field}`,
    scope: "day",
    subject: name,
    grade: worstGrade(exceeded.map(({ set }) => gradeOf(set.of))),
    ...(known && {
      reading: { value: reading, unit },
      margin: { value: least(at, worst.value, reading), unit },
    }),
    limit: `at ${at} ${inWords(worst.value)}, ${WHOSE[of]} limit`,
    source,
    sentence: `${read}: ${[worst, ...others].map(owned).join("; ")}.`,
    ...(exceeded.length > 0 && {
      action: "Wait, or do not go.",
      ...(cautionOf(of) && { caution: cautionOf(of) as string }),
    }),
  };
}

/** A limit whose value is unknown: it must not look like one that is met. */
function notChecked(field: MinimaField, [strict, ...others]: readonly Limit[], why: string): Judgement {
  const { name, unit, at } = MINIMA_FIELDS[field];
  const owned = ({ value, set }: Limit) =>
    `${WHOSE[set.of]} limit is at ${at} ${formatQuantity({ value, unit })}`;
  const { set } = strict as Limit;
  return {
    ...notAssessed(
      `minima.${field}`,
      name,
      `Not checked: ${why}. ${capital([strict as Limit, ...others].map(owned).join("; "))}.`,
    ),
    cause: UNKNOWN_CAUSES[field],
    limit: `at ${at} ${formatQuantity({ value: (strict as Limit).value, unit })}, ${WHOSE[set.of]} limit`,
    source: set.source,
  };
}

const FORBIDDEN = ["noNight", "noPassengers"] as const;

function judgeForbidden(
  sets: readonly MinimaSet[],
  today: MinimaForFlight,
  what: (typeof FORBIDDEN)[number],
): Judgement[] {
  if (!(what === "noNight" ? today.night : today.passengers)) return [];
  const against = sets.filter(({ minima }) => minima[what]);
  const set = against.find(({ of }) => gradeOf(of) === "stop") ?? against[0];
  if (!set) return [];
  const words = what === "noNight" ? "night" : "passengers";
  const owners = [set, ...against.filter((one) => one !== set)].map(({ of }) => WHOSE[of]);
  return [
    {
      id: `minima.${what}`,
      scope: "day",
      subject: what === "noNight" ? "Night flight" : "Passengers",
      grade: gradeOf(set.of),
      limit: `no ${words}, ${WHOSE[set.of]} limit`,
      source: set.source,
      sentence: `${what === "noNight" ? "Part of the flight is at night" : "Passengers are on board"}: ${owners.join(" and ")} limit is no ${words}.`,
      action: what === "noNight" ? "Leave earlier, or shorten the flight." : "Fly without passengers.",
    },
  ];
}

/** Subjects of the flight to which the fields belong, for what could not be checked. */
const UNKNOWN_CAUSES: Record<MinimaField, string> = {
  windKt: "unknown.wind",
  gustKt: "unknown.wind",
  crosswindKt: "unknown.wind",
  tailwindKt: "unknown.wind",
  ceilingFt: "unknown.ceiling",
  visibilityM: "unknown.visibility",
  runwayFactor: "unknown.distances",
  reserveMin: "unknown.fuel",
};

/** Shared causes with judgements that exist elsewhere. */
const CAUSES: Partial<Record<MinimaField, string>> = { crosswindKt: "wind.cross", tailwindKt: "wind.tail" };

/** Sets that apply to an aircraft on a day. */
export const minimaFor = (sets: readonly MinimaSet[], registration: string, date: string): MinimaSet[] =>
  sets.filter(
    ({ aircraft, until }) => (!aircraft || aircraft.includes(registration)) && (!until || date <= until),
  );
