import type { Unit } from "../units/convert";
import { formatQuantity, type Quantity } from "../units/format";

/** How bad a thing is, from nothing to stop. "unjudged": there is no limit on file, so nothing is claimed. */
export const GRADES = ["sound", "note", "watch", "unjudged", "ask", "stop"] as const;
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

export function worst(grades: Iterable<Grade>): Grade {
  let rank = 0;
  for (const grade of grades) rank = Math.max(rank, GRADES.indexOf(grade));
  return GRADES[rank] ?? "sound";
}

/** A judgement that refuses to judge, and says what is missing. */
export function unjudged(id: string, subject: string, sentence: string, reading?: Quantity): Judgement {
  return { id, subject, grade: "unjudged", sentence, ...(reading && { reading }) };
}

/** Writes a limit the way it is spoken: "27 to 29 V", "at least 6 US qt". */
export function limitText({ min, max, unit }: LimitRange): string {
  if (min !== undefined && max !== undefined)
    return `${formatQuantity({ value: min, unit }).replace(/ ?\D+$/, "")} to ${formatQuantity({ value: max, unit })}`;
  if (min !== undefined) return `at least ${formatQuantity({ value: min, unit })}`;
  if (max !== undefined) return `at most ${formatQuantity({ value: max, unit })}`;
  return "no limit";
}
