import { judgeDate } from "../../judgement/judge-date";
import type { Judgement } from "../../judgement/judgement";
import { type Judge, type JudgedWalk, ledBy } from "./judge";

/** The dates on the labels of what is looked at today, against the day of the walk: whether or not the label had to be read out. */
function dates({ list, state }: JudgedWalk): Judgement[] {
  const now = state.startedAt;
  if (!now) return [];
  return list.items.flatMap((item) => {
    const asked = item.confirm ?? item.proof;
    const date = asked?.until ? list.facts?.[asked.fact] : undefined;
    // Nothing is said before somebody stood there.
    if (!asked || !date || !state.answers[item.id]) return [];
    const made = judgeDate(`date.${asked.fact}`, `${item.part ?? item.title}, date`, date, now);
    return made ? ledBy([item.id], made.id, made.subject, () => made) : [];
  });
}

/** What is judged of the labels' dates. */
export const DATE_JUDGES: readonly Judge[] = [
  { id: "dates", subject: "Dates", topic: "papers", needs: [], judge: dates },
];
