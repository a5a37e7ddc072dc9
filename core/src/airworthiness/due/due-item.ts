import type { FindingGrade, Source } from "../../judgement/judgement";
import type { LocalDate } from "../calendar/local-date";
import type { Totals } from "../meters/component";

/** What a flight is for; one flight has one of these. */
export const FLIGHT_USES = ["private", "instruction", "hire", "towing", "test", "ferry"] as const;
export type FlightUse = (typeof FLIGHT_USES)[number];

/** Airspace and airfields that require equipment. */
export const AIRSPACE_KINDS = ["towered airfield", "transponder airspace"] as const;
export type AirspaceKind = (typeof AIRSPACE_KINDS)[number];

/**
 * Kinds of flight a limit can apply to; without one it applies to every flight. A flight can be of several kinds, and it may not
 * have been told whether it is of some: then what depends on them is not known.
 */
export const FLIGHT_KINDS = [
  "day",
  "night",
  "instrument",
  "passengers",
  "solo student",
  "every seat occupied",
  ...FLIGHT_USES,
  ...AIRSPACE_KINDS,
] as const;
export type FlightKind = (typeof FLIGHT_KINDS)[number];

/** Purposes for which a limit may be exceeded. */
export const PURPOSES = ["to the place of the work", "planning"] as const;
export type Purpose = (typeof PURPOSES)[number];

/**
 * Allowed overrun of a limit, its purpose, and whether the overrun shortens the next interval. In the limit's unit: days for a
 * calendar unless `unit` says months, hours or a count for a meter. What has been flown beyond the limit is used up.
 */
export interface Tolerance {
  most: number;
  unit?: "months";
  for: Purpose | "any flight";
  takenOff: boolean;
  source: Source;
}

interface WithTolerance {
  tolerances?: Tolerance[];
  /**
   * If done early by no more than this (days, hours or a count), the next interval runs from the original due point; otherwise it
   * starts at the work.
   */
  rhythmWithin?: number;
  /** The next interval always runs from the original due point, early or late: a fixed rhythm. */
  keepsRhythm?: boolean;
  /**
   * First interval, if it differs from the following ones: months or days from the beginning of the component's or aircraft's record,
   * or the total at which it is first due.
   */
  first?: number;
}

/** One limit of a due item. Of several, the earliest counts. */
export type DueLimit =
  | ({ by: "months"; months: number; to: "month end" | "same day" } & WithTolerance)
  | ({ by: "days"; days: number } & WithTolerance)
  | ({ by: "meter"; meter: string; every: number } & WithTolerance)
  /** A printed date: valid to the end of that day, whatever work is done. */
  | { by: "date"; date: LocalDate; tolerances?: Tolerance[] }
  /** A meter reading at which it ends: an open condition left by a release. */
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

/** Work or a document that must be done or in date, repeatedly or once. */
export interface DueItem {
  id: string;
  name: string;
  kind: DueKind;
  /** Component it belongs to and moves with; absent: the aircraft itself. */
  of?: string;
  limits: DueLimit[];
  /** Required only for these kinds of flight. */
  for?: FlightKind[];
  /** Completed for good once done: a modification, an open condition of a release. */
  once?: boolean;
  /** Items of the same owner that this work also completes: an annual inspection does the 100-hour inspection. */
  does?: string[];
  /** Items whose completion ends this one for good: a modification ends a recurring directive. */
  endedBy?: string[];
  /** Days before it is due from which the work counts; done earlier it would not be accepted. */
  notBeforeDays?: number;
  /** Preventive maintenance: a pilot may do and sign it if the rule set allows that. */
  preventive?: boolean;
  /** Pilots do it, so no workshop visit is planned for it: a VOR check. */
  doneBy?: "pilot";
  /** Grade when overdue. */
  miss: FindingGrade;
  source: Source;
  /** Estimated workshop hours, for grouping work into visits. */
  workH?: number;
}

/** One completion of a due item. */
export interface WorkDone {
  item: string;
  /** Local day of the work. */
  date: LocalDate;
  /** Totals of the aircraft, or of the component if it belongs to one. */
  totals: Totals;
  /** Purpose under which the limit was exceeded. */
  under?: Purpose;
  /** Limits set by the release itself: a new printed date, another reading; and where that is written. */
  sets?: { date?: LocalDate; readings?: Totals; source?: string };
  /** Item whose work included this one. */
  through?: string;
  /** Release that contains it. */
  release?: string;
}
