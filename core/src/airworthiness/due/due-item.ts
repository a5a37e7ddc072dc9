import type { FindingGrade, Source } from "../../judgement/judgement";
import type { LocalDate } from "../calendar/local-date";
import type { Totals } from "../meters/component";

/** What kinds of flight a limit can be for; without one it is for every flight. */
export const FLIGHT_KINDS = [
  "day",
  "night",
  "instrument",
  "passengers",
  "hire",
  "solo student",
  "towing",
] as const;
export type FlightKind = (typeof FLIGHT_KINDS)[number];

/** What a flight over the limit can be for. */
export const PURPOSES = ["to the place of the work", "planning"] as const;
export type Purpose = (typeof PURPOSES)[number];

/**
 * By how much a limit may be passed, for what only, and whether what was used of it is taken off the next interval. In the limit's own unit: days for
 * a calendar, hours or a count for a meter.
 */
export interface Tolerance {
  most: number;
  for: Purpose;
  takenOff: boolean;
  source: Source;
}

interface WithTolerance {
  tolerances?: Tolerance[];
  /**
   * Done early by no more than this (days, hours or a count), the next interval runs from when it would have been due; otherwise it begins anew
   * at the work.
   */
  rhythmWithin?: number;
}

/** One limit of a due item. Of several, whichever comes first. */
export type DueLimit =
  | ({ by: "months"; months: number; to: "month end" | "same day" } & WithTolerance)
  | ({ by: "days"; days: number } & WithTolerance)
  | ({ by: "meter"; meter: string; every: number } & WithTolerance)
  /** A printed date: it holds to its end, whatever is done. */
  | { by: "date"; date: LocalDate; tolerances?: Tolerance[] }
  /** A reading at which it ends: a release, a condition that a release left. */
  | { by: "reading"; meter: string; at: number; tolerances?: Tolerance[] };

export const DUE_KINDS = [
  "inspection",
  "overhaul",
  "directive",
  "check",
  "document",
  "weighing",
  "database",
  "release",
  "condition",
  "daily inspection",
  "life",
] as const;
export type DueKind = (typeof DUE_KINDS)[number];

/** Something that has to be done, or to be in date, again and again or once. */
export interface DueItem {
  id: string;
  name: string;
  kind: DueKind;
  /** The component that it is of and goes with; absent: the aircraft itself. */
  of?: string;
  limits: DueLimit[];
  /** Only flights of these kinds need it. */
  for?: FlightKind[];
  /** Done once it is done with: a modification, a condition of a release. */
  once?: boolean;
  /** Preventive work: a pilot may do and sign it, where the rule set allows that. */
  preventive?: boolean;
  /** What it is worth when it is overdue. */
  miss: FindingGrade;
  source: Source;
  /** Which work it is for the workshop, and about how long, hours; for what is done together. */
  workH?: number;
}

/** A due item as it was done once. */
export interface WorkDone {
  item: string;
  /** The day, where the aircraft was. */
  date: LocalDate;
  /** Totals of the aircraft, or of the component where it is of one. */
  totals: Totals;
  /** The purpose under which the limit had been passed. */
  under?: Purpose;
  /** A limit that the release itself sets: a new printed date, another reading. */
  sets?: { date?: LocalDate; readings?: Totals };
  /** The release that it stands in. */
  release?: string;
}
