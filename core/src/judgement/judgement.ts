import type { ReadingTopic, Scope } from "../readings/reading-keys";
import { convert, type Unit } from "../units/convert";
import { formatQuantity, type Quantity } from "../units/format";

/** Severity of a judgement. "unjudged": no limit on file, so no claim. */
export const GRADES = ["within limits", "note", "watch", "unjudged", "ask", "stop"] as const;
export type Grade = (typeof GRADES)[number];
/** Grades a person can give to a discrepancy. */
export const FINDING_GRADES = ["note", "watch", "ask", "stop"] as const;
export type FindingGrade = (typeof FINDING_GRADES)[number];

/** Verdict of a whole preflight. */
export const VERDICTS = ["go", "go with notes", "ask first", "stop"] as const;
export type Verdict = (typeof VERDICTS)[number];
/** What can be signed: a verdict, or an unfinished preflight. */
export const SIGNED_VERDICTS = [...VERDICTS, "unfinished"] as const;
export type SignedVerdict = (typeof SIGNED_VERDICTS)[number];

/** Source of a limit. Every limit that ships is an example value, to be replaced from the aircraft's handbook. */
export interface Source {
  kind: "handbook" | "rule" | "common practice" | "own limit";
  text: string;
  example: boolean;
}

/** A limit of an aircraft, in one unit; either end may be absent. */
export interface LimitRange {
  min?: number;
  max?: number;
  unit: Unit;
  source: Source;
}

/** A judgement: reading, limit, margin, source, and a sentence a student understands. */
export interface Judgement {
  id: string;
  /** Cause shared by judgements of one fault: they form one discrepancy. Absent: the judgement stands alone. */
  cause?: string;
  /** Its topic, set when a whole preflight is judged. */
  topic?: ReadingTopic;
  judge?: string;
  /** True if it explains the other judgements of its cause. */
  explains?: boolean;
  /** Whether the finding ends with the day or stays with the aircraft. */
  scope: Scope;
  subject: string;
  grade: Grade;
  reading?: Quantity;
  limit?: string;
  margin?: Quantity;
  source?: Source;
  sentence: string;
  caution?: string;
  /** What to do now, if anything. */
  action?: string;
  /** Items whose answers led to it. */
  itemIds?: string[];
}

/** Cause of a judgement, or its own id. Discrepancies with the same value are the same fault. */
export const causeOf = ({ id, cause }: Pick<Judgement, "id" | "cause">): string => cause ?? id;

/** Distance to the nearer end of a limit, negative outside, in the limit's unit. Infinite if the limit has no ends. */
export function marginTo({ min, max }: Pick<LimitRange, "min" | "max">, value: number): number {
  return Math.min(
    min === undefined ? Number.POSITIVE_INFINITY : value - min,
    max === undefined ? Number.POSITIVE_INFINITY : max - value,
  );
}

/** Worst of these grades; "within limits" for none. */
export function worstGrade(grades: Iterable<Grade>): Grade {
  let rank = 0;
  for (const grade of grades) rank = Math.max(rank, GRADES.indexOf(grade));
  return GRADES[rank] ?? "within limits";
}

/** Judgement used when required data is missing. */
export function notAssessed(id: string, subject: string, sentence: string, reading?: Quantity): Judgement {
  // Nothing was found, so nothing stays with the aircraft.
  return { id, subject, scope: "day", grade: "unjudged", sentence, ...(reading && { reading }) };
}

/** Limit in words: "27 to 29 V", "at least 6 US qt". */
export function limitText({ min, max, unit }: LimitRange): string {
  if (min !== undefined && max !== undefined)
    return `${formatQuantity({ value: min, unit }).replace(/ ?\D+$/, "")} to ${formatQuantity({ value: max, unit })}`;
  if (min !== undefined) return `at least ${formatQuantity({ value: min, unit })}`;
  if (max !== undefined) return `at most ${formatQuantity({ value: max, unit })}`;
  return "no limit";
}

/** Limit converted to another unit of the same quantity. Throws QuantityError if the quantities differ. */
export function inUnit(
  { min, max, unit }: LimitRange,
  to: LimitRange["unit"],
): { min?: number; max?: number } {
  return {
    ...(min !== undefined && { min: convert(min, unit, to) }),
    ...(max !== undefined && { max: convert(max, unit, to) }),
  };
}
