import type { DueItem } from "@cravix/core/airworthiness/due/due-item";
import { isSoon } from "@cravix/core/airworthiness/due/due-judgement";
import type { DueVerdict } from "@cravix/core/airworthiness/due/judge-due";
import type { Grade } from "@cravix/core/judgement/judgement";

/** Grade mark of a due item: its own grade if not in date, a note if due soon. */
export function gradeOf({ miss }: Pick<DueItem, "miss">, verdict: DueVerdict): Grade {
  const { state } = verdict;
  if (state === "overdue" || state === "due within the flight") return miss;
  if (state === "not known") return "ask";
  return state === "under a tolerance" || isSoon(verdict) ? "note" : "within limits";
}
