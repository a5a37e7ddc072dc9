import type { FindingGrade, Source } from "../../judgement/judgement";
import type { Minima, MinimaSet } from "../../minima/minima";
import { QuantityError } from "../../units/convert";
import { type LocalDate, spokenDate } from "../calendar/local-date";
import type { DueItem, DueLimit, FlightKind } from "../due/due-item";
import { appliesTo, DUE_STATES, type DueVerdict, judgeDue } from "../due/judge-due";
import { type NextDue, nextDue } from "../due/next-due";
import { calculated } from "../due/problem-of";
import { type FlownDay, type Recency, recency } from "./recency";

/** Kinds of due items for people. */
export const PERSON_DUE_KINDS = [
  "medical",
  "licence",
  "rating",
  "review",
  "recency",
  "authorisation",
  "training",
  /** A pilot's personal minimums; what is due is their review. */
  "own limits",
] as const;
export type PersonDueKind = (typeof PERSON_DUE_KINDS)[number];

/** Aircraft classes for recency requirements. */
export const AIRCRAFT_CLASSES = ["single-engine", "multi-engine", "glider"] as const;
export type AircraftClass = (typeof AIRCRAFT_CLASSES)[number];

/** Required take-offs and landings within a number of days, counted from the technical log. */
export interface RecencyLimit {
  by: "recency";
  times: number;
  days: number;
  /** Counts only those at night. */
  night?: true;
  /** Counts only landings to a full stop; at night, as 14 CFR 61.57(b). */
  fullStop?: true;
  /** Counts launches or take-offs alone: for gliders. */
  launches?: true;
}

/** A medical that lasts longer if the holder was younger on the day of the examination. */
export interface ByAge {
  born: LocalDate;
  /** Below this age on the day of the examination it is valid for this many months. */
  under: number;
  months: number;
}

/** Limit of a person's due item: calendar interval, printed date, or recency. */
export type PersonLimit =
  | (Extract<DueLimit, { by: "months" }> & { younger?: ByAge })
  | Extract<DueLimit, { by: "days" | "date" }>
  | RecencyLimit;

/** A due item of a person. */
export interface PersonDue {
  id: string;
  name: string;
  kind: PersonDueKind;
  limits: PersonLimit[];
  /** Applies only to flights with all of these kinds. */
  for?: FlightKind[];
  /** Applies only to this class of aircraft, and counts only flights on it. */
  class?: AircraftClass;
  /** Applies only to these aircraft, and counts only flights on them: a student's authorisation, recency on one aircraft. */
  aircraft?: string[];
  miss: FindingGrade;
  source: Source;
  /** The limits a student's authorisation or a pilot's personal minimums contain. */
  minima?: Minima;
}

/** Completion, pass or renewal of an item, with the printed expiry if any. */
export interface PersonWork {
  item: string;
  date: LocalDate;
  sets?: { date: LocalDate };
}

/** What a person flew on one day as pilot. */
export type FlownByPerson = FlownDay & {
  class: AircraftClass;
  nightTakeOffs: number;
  nightLandings: number;
  /** Landings to a full stop, by day and at night; absent in records from before they were logged. */
  fullStops?: number;
  nightFullStops?: number;
  registration?: string;
};

/** Records of one person. */
export interface PersonRecord {
  items: PersonDue[];
  works: PersonWork[];
  flown: FlownByPerson[];
}

/** The flight in question; without an aircraft, any. */
export interface PersonFlight {
  today: LocalDate;
  /** Day it ends. */
  ends: LocalDate;
  kinds: readonly FlightKind[];
  /** Kinds that nobody has told. */
  untold?: readonly FlightKind[];
  class?: AircraftClass;
  registration?: string;
}

/** One judged item of a person; uses the aircraft's due-item engine. */
export interface JudgedPersonDue {
  item: PersonDue;
  /** The item in the form of that engine. */
  due: DueItem;
  next: NextDue;
  verdict: DueVerdict;
  /** Counted flights, for a recency requirement. */
  recency?: Recency;
}

/**
 * Judges everything due of a person for a flight, worst first. Recency is counted from the log up to the day of the flight; if it
 * was never reached the item counts as overdue today, as no expiry day is known. An item for other aircraft is "not for this
 * flight". A solo student's flight for which no authorisation is on file adds one that is "not known". An item that cannot be calculated is "not known", with the reason. Never throws. Complexity: O(items · flown days).
 * Source: 14 CFR 61.23, 61.56, 61.57 for the kinds of limits (from memory); the limits themselves are data.
 */
export function judgePerson({ items, works, flown }: PersonRecord, flight: PersonFlight): JudgedPersonDue[] {
  const judged = items.map((item) => {
    const made = calculated(() => judgeOne(item, works, flown, flight));
    return "value" in made ? made.value : notCalculated(item, made.problem);
  });
  return [...judged, ...withoutAuthorisation(judged, flight)].sort(
    (a, b) =>
      DUE_STATES.indexOf(b.verdict.state) - DUE_STATES.indexOf(a.verdict.state) ||
      left(a.verdict) - left(b.verdict),
  );
}

const AUTHORISATION: PersonDue = {
  id: "solo-authorisation",
  name: "Solo authorisation",
  kind: "authorisation",
  limits: [],
  for: ["solo student"],
  miss: "ask",
  source: { kind: "rule", text: "14 CFR 61.87: an instructor's endorsement", example: true },
};

/** A student alone needs an instructor's authorisation: without one on file for this aircraft, it is not known. */
function withoutAuthorisation(
  judged: readonly JudgedPersonDue[],
  { kinds }: PersonFlight,
): JudgedPersonDue[] {
  const given = judged.some(
    ({ item, verdict }) => item.kind === "authorisation" && verdict.state !== "not for this flight",
  );
  if (!kinds.includes("solo student") || given) return [];
  const item = AUTHORISATION;
  return [
    {
      item,
      due: asDueItem(item),
      next: { item: item.id, points: [], unknown: true },
      verdict: { item: item.id, state: "not known", limits: [] },
    },
  ];
}

function notCalculated(item: PersonDue, problem: string): JudgedPersonDue {
  return {
    item,
    due: asDueItem(item),
    next: { item: item.id, points: [], unknown: true, problem },
    verdict: { item: item.id, state: "not known", limits: [], problem },
  };
}

function judgeOne(
  item: PersonDue,
  works: readonly PersonWork[],
  flown: readonly FlownByPerson[],
  flight: PersonFlight,
): JudgedPersonDue {
  const due = asDueItem(item, lastOf(item, works));
  const next = nextDue(
    due,
    works.map((work) => ({ ...work, totals: {} })),
  );
  // Recency has no printed date: its expiry day is calculated here.
  next.points = next.points.filter(({ limit }) => item.limits[limit]?.by !== "recency");
  let counted: Recency | undefined;
  item.limits.forEach((limit, at) => {
    if (limit.by !== "recency") return;
    counted = recency(daysFor(item, limit, flown), flight.today, limit);
    next.points.push({ limit: at, date: counted.until ?? dayBefore(flight.today), tolerances: [] });
    next.unknown = false;
  });
  const applies = appliesTo(item.for, flight, true);
  const other =
    (item.aircraft && flight.registration !== undefined && !item.aircraft.includes(flight.registration)) ||
    (item.class && flight.class !== undefined && item.class !== flight.class) ||
    applies === "no";
  const judged = judgeDue(
    due,
    next,
    { date: flight.today, totals: {} },
    { ends: flight.ends, uses: {}, kinds: flight.kinds },
    {},
  );
  // Not in date for a kind of flight that may be this one: not known, never "not for this flight".
  const bad = DUE_STATES.indexOf(judged.state) > DUE_STATES.indexOf("not known");
  const verdict: DueVerdict =
    applies === "not told" && bad
      ? {
          ...judged,
          state: "not known",
          untold: (item.for ?? []).filter((kind) => flight.untold?.includes(kind)),
        }
      : judged;
  return {
    item,
    due,
    next,
    verdict: other ? { ...verdict, state: "not for this flight" } : verdict,
    ...(counted && { recency: counted }),
  };
}

/** Latest completion of an item. */
const lastOf = ({ id }: PersonDue, works: readonly PersonWork[]): LocalDate | undefined =>
  works
    .filter(({ item }) => item === id)
    .map(({ date }) => date)
    .sort()
    .at(-1);

/**
 * Converts to the engine's form: a recency limit becomes its expiry day, and a limit that depends on age the one for the age on the
 * day of the latest completion.
 */
function asDueItem({ id, name, limits, miss, source }: PersonDue, done?: LocalDate): DueItem {
  return {
    id,
    name,
    kind: "document",
    miss,
    source,
    limits: limits.map((limit): DueLimit => {
      if (limit.by === "recency") return { by: "date", date: "0001-01-01" };
      if (limit.by !== "months" || !limit.younger) return limit;
      const { younger, ...usual } = limit;
      if (done !== undefined && younger.born >= done)
        throw new QuantityError("The date of birth is not before the examination. Check both.");
      return done !== undefined && ageOn(younger.born, done) < younger.under
        ? { ...usual, months: younger.months }
        : usual;
    }),
  };
}

/** Completed years of age on a day. */
export function ageOn(born: LocalDate, day: LocalDate): number {
  const years = Number(day.slice(0, 4)) - Number(born.slice(0, 4));
  return day.slice(5) < born.slice(5) ? years - 1 : years;
}

function daysFor(
  item: PersonDue,
  { night, fullStop, launches }: RecencyLimit,
  flown: readonly FlownByPerson[],
): FlownDay[] {
  return flown
    .filter(
      (day) =>
        (item.class === undefined || day.class === item.class) &&
        (item.aircraft === undefined ||
          (day.registration !== undefined && item.aircraft.includes(day.registration))),
    )
    .map((day) => {
      const takeOffs = night ? day.nightTakeOffs : day.takeOffs;
      const landings = night ? day.nightLandings : day.landings;
      const stops = (night ? day.nightFullStops : day.fullStops) ?? 0;
      return { date: day.date, takeOffs, landings: launches ? takeOffs : fullStop ? stops : landings };
    });
}

const dayBefore = (date: LocalDate): LocalDate =>
  new Date(Date.parse(`${date}T12:00:00Z`) - 86_400_000).toISOString().slice(0, 10);

const left = ({ first }: DueVerdict) => first?.leftAfter ?? Number.POSITIVE_INFINITY;

/** State of the item and what is missing, in one sentence. */
export function personSentence({ item, verdict, recency: counted }: JudgedPersonDue): string {
  const { first, state, problem, untold } = verdict;
  if (problem !== undefined) return `Cannot be calculated. ${problem}`;
  if (untold)
    return `Needed for ${untold.join(" and ")} flights and not in date. Nobody has said whether this flight is one.`;
  if (state === "not for this flight" && (item.class || item.aircraft || item.for))
    return `Only for ${[...(item.for ?? []), ...(item.class ? [item.class] : []), ...(item.aircraft ?? [])].join(", ")}.`;
  if (counted) {
    const limit = item.limits.find((one): one is RecencyLimit => one.by === "recency");
    const what = `${limit?.fullStop ? " to a full stop" : ""}${limit?.night ? " at night" : ""}`;
    const many = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;
    const have = limit?.launches
      ? `${counted.takeOffs} ${counted.takeOffs === 1 ? "launch" : "launches"}${what} in the last ${limit.days} days`
      : `${many(counted.takeOffs, "take-off")} and ${many(counted.landings, "landing")}${what} in the last ${limit?.days} days`;
    return counted.missing > 0
      ? `${have}: ${counted.missing} more ${counted.missing === 1 ? "is" : "are"} needed.`
      : `${have}; valid until ${spokenDate(counted.until ?? "")}.`;
  }
  if (item === AUTHORISATION) return "No instructor's authorisation for this aircraft is on file.";
  if (!first)
    return state === "not known" ? "There is no record of when it was last done." : "Done. No longer due.";
  const until = "date" in first.point ? spokenDate(first.point.date) : "";
  if (state === "overdue") return `Expired on ${until}.`;
  if (state === "due within the flight") return `Expires on ${until}, before this flight ends.`;
  return `In date until ${until}: ${first.left} days left.`;
}

/** Class of a type, from its equipment: without oil and run-up it is a glider. */
export function classOf(type: {
  engines?: readonly string[];
  oil?: unknown;
  runUp?: unknown;
}): AircraftClass {
  if (!type.oil && !type.runUp) return "glider";
  return (type.engines?.length ?? 1) > 1 ? "multi-engine" : "single-engine";
}

/** An event of a person's stream. */
export type PersonEvent =
  | { type: "person.due-set"; data: { item: PersonDue } }
  | { type: "person.due-dropped"; data: { item: string } }
  | { type: "person.done"; data: { work: PersonWork } };

/** Items and works of one person from their events, in order. */
export function foldPerson(events: readonly PersonEvent[]): Pick<PersonRecord, "items" | "works"> {
  const items = new Map<string, PersonDue>();
  const works: PersonWork[] = [];
  for (const event of events) {
    if (event.type === "person.due-set") items.set(event.data.item.id, event.data.item);
    else if (event.type === "person.due-dropped") items.delete(event.data.item);
    else works.push(event.data.work);
  }
  return { items: [...items.values()], works };
}

/** Limits that apply to a person's flight: personal minimums, and those of current authorisations. Complexity: O(items · works). */
export function minimaOfPerson(record: PersonRecord, flight: PersonFlight): MinimaSet[] {
  return judgePerson(record, flight).flatMap(({ item, verdict }): MinimaSet[] => {
    const { minima, source, kind, aircraft } = item;
    if (!minima) return [];
    // Personal minimums apply until changed; an expired authorisation gives no limits and is judged as overdue.
    if (kind !== "own limits" && verdict.state === "not for this flight") return [];
    return [
      {
        of: kind === "own limits" ? "pilot" : "authorisation",
        minima,
        source,
        ...(aircraft && { aircraft }),
      },
    ];
  });
}

/** Applies later events to a person's record. Complexity: O(items + events). */
export function applyPersonEvents(
  base: PersonRecord | undefined,
  since: readonly PersonEvent[],
): PersonRecord {
  const before: PersonEvent[] = [
    ...(base?.items ?? []).map((item) => ({ type: "person.due-set" as const, data: { item } })),
    ...(base?.works ?? []).map((work) => ({ type: "person.done" as const, data: { work } })),
  ];
  return { ...foldPerson([...before, ...since]), flown: base?.flown ?? [] };
}
