import { type FindingGrade, worstGrade } from "../../judgement/judgement";
import { type JudgedPersonDue, judgePerson, type PersonFlight, type PersonRecord } from "./person-due";

export const PILOT_IN_DATE = ["within limits", "unjudged", "note", "watch", "ask", "stop"] as const;
/** Whether the pilot is in date for a flight: a grade only, never which item. "unjudged" if nothing is on file. */
export type PilotInDate = (typeof PILOT_IN_DATE)[number];

/**
 * Whether a pilot is in date for a flight: medical, licence, ratings, reviews, recency and authorisations. Only the worst grade, so
 * that the aircraft's record can hold it without telling others which item it is. "unjudged" if no item besides personal minimums
 * applies to this flight, because an empty file proves nothing. Never throws. Complexity: as `judgePerson`.
 */
export function pilotInDate(record: PersonRecord, flight: PersonFlight): PilotInDate {
  const items = record.items.filter(({ kind }) => kind !== "own limits");
  const applying = judgePerson({ ...record, items }, flight).filter(
    ({ verdict }) => verdict.state !== "not for this flight",
  );
  return applying.length === 0 ? "unjudged" : worstGrade(applying.map(gradeOf));
}

function gradeOf({ item, verdict }: JudgedPersonDue): FindingGrade | "within limits" {
  const { state } = verdict;
  if (state === "overdue" || state === "due within the flight") return item.miss;
  return state === "not known" ? "ask" : "within limits";
}
