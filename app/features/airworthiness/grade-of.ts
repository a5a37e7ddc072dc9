import { type DueItem, type DueVerdict, type Grade, isSoon } from "@cravix/core";

/** Grade mark of a due item: its own grade if not in date, a note if due soon. */
export function gradeOf({ miss }: Pick<DueItem, "miss">, verdict: DueVerdict): Grade {
  const { state } = verdict;
  if (state === "overdue" || state === "due within the flight") return miss;
  if (state === "not known") return "ask";
  return state === "under a tolerance" || isSoon(verdict) ? "note" : "within limits";
}
