import { judgeDate } from "../../judgement/judge-date";
import type { Judgement } from "../../judgement/judgement";
import { type Judge, type JudgedPreflight, ledBy } from "./judge";

/** Judges expiry dates on labels inspected today, whether or not they were read out. */
function dates({ list, state }: JudgedPreflight): Judgement[] {
  const now = state.startedAt;
  if (!now) return [];
  return list.items.flatMap((item) => {
    const asked = item.confirm ?? item.proof;
    const date = asked?.until ? list.facts?.[asked.fact] : undefined;
    // Nothing is reported before the item was answered.
    if (!asked || !date || !state.answers[item.id]) return [];
    const made = judgeDate(`date.${asked.fact}`, `${item.part ?? item.title}, date`, date, now);
    return made ? ledBy([item.id], made.id, made.subject, () => made) : [];
  });
}

/** Date judges. */
export const DATE_JUDGES: readonly Judge[] = [
  { id: "dates", subject: "Dates", topic: "papers", needs: [], judge: dates },
];
