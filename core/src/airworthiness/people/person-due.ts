import type { FindingGrade, Source } from "../../judgement/judgement";
import type { Minima, MinimaSet } from "../../minima/minima";
import { type LocalDate, spokenDate } from "../calendar/local-date";
import type { DueItem, DueLimit, FlightKind } from "../due/due-item";
import { DUE_STATES, type DueVerdict, judgeDue } from "../due/judge-due";
import { type NextDue, nextDue } from "../due/next-due";
import { type FlownDay, type Recency, recency } from "./recency";

/** What can be due of a person. */
export const PERSON_DUE_KINDS = [
  "medical",
  "licence",
  "rating",
  "review",
  "recency",
  "authorisation",
  "training",
  /** A pilot's own limits; that they are looked at again is what is due. */
  "own limits",
] as const;
export type PersonDueKind = (typeof PERSON_DUE_KINDS)[number];

/** What counts as the same kind of aircraft, for what a pilot has to have flown lately. */
export const AIRCRAFT_CLASSES = ["single-engine", "multi-engine", "glider"] as const;
export type AircraftClass = (typeof AIRCRAFT_CLASSES)[number];

/** So many take-offs and as many landings within so many days, out of the technical log itself. */
export interface RecencyLimit {
  by: "recency";
  times: number;
  days: number;
  /** Only those by night count. */
  night?: true;
}

/** One limit of what is due of a person: by the calendar, a printed date, or by what was flown. */
export type PersonLimit = Extract<DueLimit, { by: "months" | "days" | "date" }> | RecencyLimit;

/** Something that has to be in date, of a person. */
export interface PersonDue {
  id: string;
  name: string;
  kind: PersonDueKind;
  limits: PersonLimit[];
  /** Only flights that are all of these need it. */
  for?: FlightKind[];
  /** Only aircraft of this class need it, and only what was flown on them counts. */
  class?: AircraftClass;
  /** It is for these aircraft alone: a student's authorisation. */
  aircraft?: string[];
  miss: FindingGrade;
  source: Source;
  /** A student's authorisation, or a pilot's own limits: within which it is. */
  minima?: Minima;
}

/** It was done, passed or renewed, and until when it was printed then. */
export interface PersonWork {
  item: string;
  date: LocalDate;
  sets?: { date: LocalDate };
}

/** What a person flew on one day, as pilot. */
export type FlownByPerson = FlownDay & {
  class: AircraftClass;
  nightTakeOffs: number;
  nightLandings: number;
};

/** What is on record of one person. */
export interface PersonRecord {
  items: PersonDue[];
  works: PersonWork[];
  flown: FlownByPerson[];
}

/** The flight that is asked about; without an aircraft, any. */
export interface PersonFlight {
  today: LocalDate;
  /** The day on which it ends. */
  ends: LocalDate;
  kinds: readonly FlightKind[];
  class?: AircraftClass;
  registration?: string;
}

/** One of a person's items judged; by the same engine as an aircraft's. */
export interface JudgedPersonDue {
  item: PersonDue;
  /** The item as the engine has it. */
  due: DueItem;
  next: NextDue;
  verdict: DueVerdict;
  /** What counts towards it, where it is by what was flown. */
  recency?: Recency;
}

/**
 * Everything that is due of a person, for a flight, worst first. What was flown is counted out of the log to the day of the flight; never flown often enough is
 * "overdue" since today, for nobody knows a day on which it held. An item for other aircraft is "not for this flight". Throws QuantityError for days that are
 * none. Complexity: O(items · flown days).
 * Source: 14 CFR 61.23, 61.56, 61.57 for what is due by which kind of limit (from memory); all of it is data.
 */
export function judgePerson({ items, works, flown }: PersonRecord, flight: PersonFlight): JudgedPersonDue[] {
  return items
    .map((item) => judgeOne(item, works, flown, flight))
    .sort(
      (a, b) =>
        DUE_STATES.indexOf(b.verdict.state) - DUE_STATES.indexOf(a.verdict.state) ||
        left(a.verdict) - left(b.verdict),
    );
}

function judgeOne(
  item: PersonDue,
  works: readonly PersonWork[],
  flown: readonly FlownByPerson[],
  flight: PersonFlight,
): JudgedPersonDue {
  const due = asDueItem(item);
  const next = nextDue(
    due,
    works.map((work) => ({ ...work, totals: {} })),
  );
  // What was flown is no printed date: its day is counted out here.
  next.points = next.points.filter(({ limit }) => item.limits[limit]?.by !== "recency");
  let counted: Recency | undefined;
  item.limits.forEach((limit, at) => {
    if (limit.by !== "recency") return;
    counted = recency(daysFor(item, limit, flown), flight.today, limit);
    next.points.push({ limit: at, date: counted.until ?? dayBefore(flight.today), tolerances: [] });
    next.unknown = false;
  });
  const other =
    (item.aircraft && flight.registration !== undefined && !item.aircraft.includes(flight.registration)) ||
    (item.class && flight.class !== undefined && item.class !== flight.class) ||
    (item.for && !item.for.every((kind) => flight.kinds.includes(kind)));
  const verdict = judgeDue(
    due,
    next,
    { date: flight.today, totals: {} },
    { ends: flight.ends, uses: {}, kinds: flight.kinds },
    {},
  );
  return {
    item,
    due,
    next,
    verdict: other ? { ...verdict, state: "not for this flight" } : verdict,
    ...(counted && { recency: counted }),
  };
}

/** As the engine has it: a limit by what was flown becomes the day to which that holds. */
function asDueItem({ id, name, limits, miss, source }: PersonDue): DueItem {
  return {
    id,
    name,
    kind: "document",
    miss,
    source,
    limits: limits.map((limit) =>
      limit.by === "recency" ? { by: "date", date: "0001-01-01" } : limit,
    ) as DueLimit[],
  };
}

function daysFor(item: PersonDue, { night }: RecencyLimit, flown: readonly FlownByPerson[]): FlownDay[] {
  return flown
    .filter((day) => item.class === undefined || day.class === item.class)
    .map(({ date, takeOffs, landings, nightTakeOffs, nightLandings }) =>
      night ? { date, takeOffs: nightTakeOffs, landings: nightLandings } : { date, takeOffs, landings },
    );
}

const dayBefore = (date: LocalDate): LocalDate =>
  new Date(Date.parse(`${date}T12:00:00Z`) - 86_400_000).toISOString().slice(0, 10);

const left = ({ first }: DueVerdict) => first?.leftAfter ?? Number.POSITIVE_INFINITY;

/** In one sentence, how it stands and what is missing. */
export function personSentence({ item, verdict, recency: counted }: JudgedPersonDue): string {
  const { first, state } = verdict;
  if (state === "not for this flight" && (item.class || item.aircraft || item.for))
    return `Only for ${[...(item.for ?? []), ...(item.class ? [item.class] : []), ...(item.aircraft ?? [])].join(", ")}.`;
  if (counted) {
    const limit = item.limits.find((one): one is RecencyLimit => one.by === "recency");
    const what = limit?.night ? " at night" : "";
    const many = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;
    const have = `${many(counted.takeOffs, "take-off")} and ${many(counted.landings, "landing")}${what} in the last ${limit?.days} days`;
    return counted.missing > 0
      ? `${have}: ${counted.missing} more ${counted.missing === 1 ? "is" : "are"} needed.`
      : `${have}; valid until ${spokenDate(counted.until ?? "")}.`;
  }
  if (!first)
    return state === "not known" ? "There is no record of when it was last done." : "Done. No longer due.";
  const until = "date" in first.point ? spokenDate(first.point.date) : "";
  if (state === "overdue") return `Expired on ${until}.`;
  if (state === "due within the flight") return `Expires on ${until}, before this flight ends.`;
  return `In date until ${until}: ${first.left} days left.`;
}

/** Of which class a type is, by what is on it: without oil and run-up it is a glider. */
export function classOf(type: {
  engines?: readonly string[];
  oil?: unknown;
  runUp?: unknown;
}): AircraftClass {
  if (!type.oil && !type.runUp) return "glider";
  return (type.engines?.length ?? 1) > 1 ? "multi-engine" : "single-engine";
}

/** A person's record with one more event of its stream. */
export type PersonEvent =
  | { type: "person.due-set"; data: { item: PersonDue } }
  | { type: "person.due-dropped"; data: { item: string } }
  | { type: "person.done"; data: { work: PersonWork } };

/** The items and works of one person from what happened, in the order of the events. */
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

/** The limits that a person flies within, out of his record: his own, and those of authorisations that have not ended. Complexity: O(items · works). */
export function minimaOfPerson(record: PersonRecord, flight: PersonFlight): MinimaSet[] {
  return judgePerson(record, flight).flatMap(({ item, verdict }): MinimaSet[] => {
    const { minima, source, kind, aircraft } = item;
    if (!minima) return [];
    // One's own limits hold until they are changed; an authorisation that has ended gives nothing, and is judged as overdue.
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

/** A person's record with what has happened since. Complexity: O(items + events). */
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
