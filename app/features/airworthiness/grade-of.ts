import { type DueItem, type DueVerdict, type Grade, isSoon } from "@cravix/core";

/** How a due item's state is marked: by what it is worth where it is not in date, and as a note where it will not be for long. */
export function gradeOf({ miss }: Pick<DueItem, "miss">, verdict: DueVerdict): Grade {
  const { state } = verdict;
  if (state === "overdue" || state === "due within the flight") return miss;
  if (state === "not known") return "ask";
  return state === "under a tolerance" || isSoon(verdict) ? "note" : "within limits";
}
