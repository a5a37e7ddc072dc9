import { formatNumber } from "../../units/format";
import { dayNumber, isLocalDate, type LocalDate, spokenDate } from "../calendar/local-date";
import type { DueItem, WorkDone } from "../due/due-item";
import type { Totals } from "../meters/component";
import { farAhead } from "../meters/far-ahead";
import { type Meter, readingFault, totalOf } from "../meters/meter";

/** A release to service with everything a maintenance entry needs. Source: 14 CFR 43.9 (from memory). */
export interface WorkRelease {
  registration: string;
  /** Local day on which the work was completed. */
  date: LocalDate;
  /** Work done, and on which part. */
  done: string;
  /** Reference: manual, directive, drawing. */
  reference?: string;
  /** Meter readings by meter id. */
  readings: Record<string, number>;
  /** Due items completed; their totals follow from the readings. */
  works: Omit<WorkDone, "release">[];
  /** Discrepancies closed. */
  closes: string[];
  /** Open conditions it leaves: due once. */
  leaves: DueItem[];
  /** Kind and number of the certificate. */
  certificate: { kind: string; number: string };
  /** Preventive maintenance, done and signed by a pilot on an aircraft they own or operate. */
  preventive?: boolean;
}

/** Kinds whose printed date can be renewed without work. */
export const RENEWED_KINDS: readonly DueItem["kind"][] = ["document", "database", "release"];

/** True if a printed date of this item can be renewed without work. */
export const isRenewable = ({ kind, limits }: Pick<DueItem, "kind" | "limits">): boolean =>
  RENEWED_KINDS.includes(kind) && limits.some(({ by }) => by === "date");

/** True if a pilot can sign for it: preventive maintenance, or a check that pilots do. */
export const isPilotsWork = ({ preventive, doneBy }: Pick<DueItem, "preventive" | "doneBy">): boolean =>
  preventive === true || doneBy === "pilot";

/** A renewal as a completed item. */
export function renewal(
  { item, date, until, source }: { item: string; date: LocalDate; until: LocalDate; source?: string },
  release: string,
): WorkDone {
  return { item, date, totals: {}, sets: { date: until, ...(source && { source }) }, release };
}

/** What is wrong with a release, and where. */
export interface ReleaseFault {
  at: string;
  words: string;
  /** It may be right: signing is possible once the person confirms it. */
  confirm?: "late entry";
}

/**
 * Faults of a release before it is signed: an invalid or future day, a day before the last work on the same item, readings below
 * the known totals, no work done. Work dated before a later entry of its item is a question until `late` confirms it. Never throws.
 */
export function releaseFaults(
  release: WorkRelease,
  {
    meters,
    totals,
    works,
    today,
    signedAt,
    late = false,
    built,
  }: {
    meters: readonly Meter[];
    totals: Totals;
    works: readonly WorkDone[];
    today: LocalDate;
    /** Time of signature, ISO 8601, to choose the meter that was fitted then. */
    signedAt: string;
    /** Confirmed: an entry of work that was done before others on record. */
    late?: boolean;
    /** Year in which the aircraft was built. */
    built?: number;
  },
): ReleaseFault[] {
  const faults: ReleaseFault[] = [...dateFaults(release, { works, today, late, built })];
  const say = (at: string, words: string) => faults.push({ at, words });
  if (release.done.trim() === "") say("done", "Enter what was done.");
  if (release.works.length + release.closes.length + release.leaves.length === 0)
    say("works", "Select what this work covers: a due item, a discrepancy, or a condition it leaves open.");
  for (const meter of meters) {
    const reading = release.readings[meter.id];
    const words =
      reading === undefined
        ? undefined
        : (readingFault(meter, reading) ??
          againstTotal(meter, totalOf(meter, reading, signedAt), {
            before: totals[meter.id],
            mayBeBehind: release.date < today,
          }));
    if (words) say(`readings.${meter.id}`, words);
  }
  if (release.certificate.kind.trim() === "" || release.certificate.number.trim() === "")
    say("certificate", "Enter the kind and number of the certificate used to sign.");
  return faults;
}

/** The date is a day, in the aircraft's life and not to come; before other work on an item it is asked about. */
function dateFaults(
  { registration, date, works: released }: WorkRelease,
  {
    works,
    today,
    late,
    built,
  }: { works: readonly WorkDone[]; today: LocalDate; late: boolean; built: number | undefined },
): ReleaseFault[] {
  if (!isLocalDate(date)) return [{ at: "date", words: "Enter a valid date." }];
  if (dayNumber(date) > dayNumber(today))
    return [{ at: "date", words: "The date is in the future. Sign the release after the work is done." }];
  if (built !== undefined && date < `${built}-01-01`)
    return [{ at: "date", words: `${registration} was built in ${built}. Check the date.` }];
  if (late) return [];
  return released.flatMap((work): ReleaseFault[] => {
    const last = works
      .filter((one) => one.item === work.item)
      .reduce((newest, one) => (newest > one.date ? newest : one.date), "");
    if (last <= date) return [];
    return [
      {
        at: "date",
        words: `A later entry for this item exists, dated ${spokenDate(last)}. Check the date.`,
        confirm: "late entry",
      },
    ];
  });
}

/** A total against the one on record: a digit too many, or a meter that went back. */
function againstTotal(
  meter: Meter,
  total: number,
  { before, mayBeBehind }: { before: number | undefined; mayBeBehind: boolean },
): string | undefined {
  if (before === undefined) return undefined;
  const ahead = farAhead(meter, before, total);
  if (ahead || mayBeBehind || total >= before - 1e-9) return ahead;
  return `${meter.name} is already at ${formatNumber(before, meter.decimals)} and cannot go back. Check the reading.`;
}

/**
 * The first meter by which an item counts and whose reading is missing: without it the next due point is unknown. A sum is read if
 * all its parts are. `readings` by meter.
 */
export function missingReading(
  { limits }: Pick<DueItem, "limits">,
  readings: Readonly<Record<string, unknown>>,
  meters: readonly Pick<Meter, "id" | "name" | "sumOf">[],
): Pick<Meter, "id" | "name" | "sumOf"> | undefined {
  const isRead = (id: string): boolean =>
    readings[id] !== undefined || (meters.find((one) => one.id === id)?.sumOf?.every(isRead) ?? false);
  const limit = limits.find((one) => one.by === "meter" && !isRead(one.meter));
  if (limit?.by !== "meter") return undefined;
  const sum = meters.find(({ id }) => id === limit.meter);
  const part = sum?.sumOf?.find((id) => !isRead(id));
  return meters.find(({ id }) => id === part) ?? sum ?? { id: limit.meter, name: limit.meter };
}

/** Words for a reading that the next due point of an item needs. */
export const readingNeeded = (meter: Pick<Meter, "name">, item: Pick<DueItem, "name">): string =>
  `Enter the reading of ${meter.name}: the next due point of “${item.name}” is calculated from it.`;
