import type { FindingGrade, Source } from "../../judgement/judgement";
import type { LocalDate } from "../calendar/local-date";
import type { Totals } from "../meters/component";

/** Kinds of flight a limit can apply to; without one it applies to every flight. */
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

/** Purposes for which a limit may be exceeded. */
export const PURPOSES = ["to the place of the work", "planning"] as const;
export type Purpose = (typeof PURPOSES)[number];

/**
 * Allowed overrun of a limit, its purpose, and whether the overrun shortens the next interval. In the limit's unit: days for a
 * calendar, hours or a count for a meter.
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
   * If done early by no more than this (days, hours or a count), the next interval runs from the original due point; otherwise it
   * starts at the work.
   */
  rhythmWithin?: number;
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
  /** Preventive maintenance: a pilot may do and sign it if the rule set allows that. */
  preventive?: boolean;
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
  /** Limits set by the release itself: a new printed date, another reading. */
  sets?: { date?: LocalDate; readings?: Totals };
  /** Release that contains it. */
  release?: string;
}
