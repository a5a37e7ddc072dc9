import type { ReadingTopic, Scope } from "../readings/reading-keys";
import { convert, type Unit } from "../units/convert";
import { formatQuantity, type Quantity } from "../units/format";

/** How bad a thing is, from nothing to stop. "unjudged": there is no limit on file, so nothing is claimed. */
export const GRADES = ["within limits", "note", "watch", "unjudged", "ask", "stop"] as const;
export type Grade = (typeof GRADES)[number];
/** The grades a person can give to something found. */
export const FINDING_GRADES = ["note", "watch", "ask", "stop"] as const;
export type FindingGrade = (typeof FINDING_GRADES)[number];

/** What a whole preflight comes to. */
export const VERDICTS = ["go", "go with notes", "ask first", "stop"] as const;
export type Verdict = (typeof VERDICTS)[number];
/** What can be signed: a verdict, or a preflight that was ended before it had one. */
export const SIGNED_VERDICTS = [...VERDICTS, "unfinished"] as const;
export type SignedVerdict = (typeof SIGNED_VERDICTS)[number];

/** Where a limit comes from. Every limit that ships is an example value, to be replaced from the aircraft's handbook. */
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

/** One judged thing: reading, limit, margin, source, and a sentence a student understands. */
export interface Judgement {
  id: string;
  /** What is behind it, where several judgements are of one trouble: they are one discrepancy. Without it the judgement stands for itself. */
  cause?: string;
  /** What it is about, and which judge said it; set where a whole preflight is judged. */
  topic?: ReadingTopic;
  judge?: string;
  /** It says what is behind the others of its cause. */
  explains?: boolean;
  /** Whether what was found goes with the day or stays with the aircraft, though nobody flies. */
  scope: Scope;
  subject: string;
  grade: Grade;
  reading?: Quantity;
  limit?: string;
  margin?: Quantity;
  source?: Source;
  sentence: string;
  caution?: string;
  /** What to do now, where there is something to do. */
  action?: string;
  /** The items whose answers led here. */
  itemIds?: string[];
}

/** What a judgement is of: its cause where it has one, else itself. Discrepancies are the same where this is the same. */
export const causeOf = ({ id, cause }: Pick<Judgement, "id" | "cause">): string => cause ?? id;

/**
 * Outside a limit, and by how much; the margin is to the nearer end, negative outside. Both in the limit's unit. Infinite where the limit has
 * no end.
 */
export function marginTo({ min, max }: Pick<LimitRange, "min" | "max">, value: number): number {
  return Math.min(
    min === undefined ? Number.POSITIVE_INFINITY : value - min,
    max === undefined ? Number.POSITIVE_INFINITY : max - value,
  );
}

/** The worst of these grades; within limits where there are none. */
export function worstGrade(grades: Iterable<Grade>): Grade {
  let rank = 0;
  for (const grade of grades) rank = Math.max(rank, GRADES.indexOf(grade));
  return GRADES[rank] ?? "within limits";
}

/** A judgement that refuses to judge, and says what is missing. */
export function notAssessed(id: string, subject: string, sentence: string, reading?: Quantity): Judgement {
  // Nothing was found, so nothing stays with the aircraft.
  return { id, subject, scope: "day", grade: "unjudged", sentence, ...(reading && { reading }) };
}

/** Writes a limit the way it is spoken: "27 to 29 V", "at least 6 US qt". */
export function limitText({ min, max, unit }: LimitRange): string {
  if (min !== undefined && max !== undefined)
    return `${formatQuantity({ value: min, unit }).replace(/ ?\D+$/, "")} to ${formatQuantity({ value: max, unit })}`;
  if (min !== undefined) return `at least ${formatQuantity({ value: min, unit })}`;
  if (max !== undefined) return `at most ${formatQuantity({ value: max, unit })}`;
  return "no limit";
}

/** A limit in another unit of the same quantity. Throws QuantityError where the quantities differ. */
export function inUnit(
  { min, max, unit }: LimitRange,
  to: LimitRange["unit"],
): { min?: number; max?: number } {
  return {
    ...(min !== undefined && { min: convert(min, unit, to) }),
    ...(max !== undefined && { max: convert(max, unit, to) }),
  };
}
