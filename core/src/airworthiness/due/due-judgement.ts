import type { Grade, Judgement } from "../../judgement/judgement";
import { formatNumber } from "../../units/format";
import type { DueItem } from "./due-item";
import {
  type DueState,
  type DueVerdict,
  dueText,
  type LimitLeft,
  type MeterKinds,
  remainingText,
} from "./judge-due";

/** Grade of each state; overdue and due within the flight use the item's own grade. */
const GRADE: Record<Exclude<DueState, "overdue" | "due within the flight">, Grade> = {
  "not for this flight": "within limits",
  "in date": "within limits",
  "under a tolerance": "note",
  "not known": "ask",
};

/** Remaining amounts that count as due soon, when a workshop visit should be booked (common practice). */
const SOON = { days: 30, h: 10, count: 20 } as const;

/** True if the item is in date but due soon. */
export function isSoon({ state, first }: DueVerdict): boolean {
  return state === "in date" && first !== undefined && first.leftAfter <= SOON[first.unit];
}

/**
 * Judgement of a due item: what is left, what this flight needs, the source of the limit, what to do. Its scope is the day: the
 * aircraft's record keeps it due, so no discrepancy is opened for it.
 */
export function dueJudgement(item: DueItem, verdict: DueVerdict, meters: MeterKinds): Judgement {
  const { state, first } = verdict;
  const grade = state === "overdue" || state === "due within the flight" ? item.miss : GRADE[state];
  return {
    id: `due.${item.id}`,
    cause: `due.${item.id}`,
    scope: "day",
    subject: item.name,
    grade,
    ...(first && { limit: `until ${dueText(first.point, meters)}` }),
    source: item.source,
    sentence: sentenceOf(item, verdict, meters),
    ...actionOf(verdict),
  };
}

/** One sentence: subject, what is left, what the flight needs. */
export function sentenceOf(item: DueItem, verdict: DueVerdict, meters: MeterKinds): string {
  const { state, first, problem, untold, question } = verdict;
  if (state === "not for this flight") return `Only for ${(item.for ?? []).join(" or ")} flights.`;
  if (problem !== undefined) return `Cannot be calculated. ${problem}`;
  if (untold)
    return `Needed for ${untold.join(" and ")} flights and not in date. Nobody has said whether this flight is one.`;
  if (question) return question;
  if (!first)
    return state === "not known" ? "There is no record of when it was last done." : "Done. No longer due.";
  const until = dueText(first.point, meters);
  const here = (value: number) => remainingText(first, value, meters);
  const planned = first.left - first.leftAfter;
  switch (state) {
    case "in date":
      return "date" in first.point
        ? `In date until ${until}: ${here(first.left)} left.`
        : `Due at ${until}: ${here(first.left)} left${planned > 0 ? `, ${here(first.leftAfter)} after this flight` : ""}.`;
    case "under a tolerance": {
      const { tolerance, excess } = first.under as NonNullable<LimitLeft["under"]>;
      return `Due at ${until}. This flight exceeds it by ${here(excess)}; a tolerance of ${tolerance.unit === "months" ? `${tolerance.most} months` : here(tolerance.most)} is allowed ${TOLERATED[tolerance.for]}${tolerance.takenOff ? `, and ${here(excess)} is taken off the next interval` : ""}.`;
    }
    case "due within the flight":
      return "date" in first.point
        ? `Expires on ${until}, before this flight ends.`
        : `${here(first.left)} left until ${until}; this flight needs ${here(planned)}.`;
    case "overdue":
      return `Was due ${"date" in first.point ? `on ${until}` : `at ${until}`}: overdue by ${here(-first.left)}.`;
    default:
      return `Due ${until}.`;
  }
}

const TOLERATED = {
  planning: "for planning",
  "to the place of the work": "to fly to the workshop",
  "any flight": "for any flight",
} as const;

function actionOf({ state, first, problem, untold }: DueVerdict): { action?: string } {
  if (problem !== undefined)
    return { action: "Correct the entry in the airworthiness record, or ask the mechanic." };
  if (untold) return { action: "Say what this flight is for." };
  if (state === "not known") return { action: "Look it up in the airworthiness record and enter it." };
  if (state === "due within the flight")
    return {
      action:
        first && "meter" in first.point && first.left > 0 && first.unit === "h"
          ? `Plan no more than ${formatNumber(first.left, 1)} h, or have the work done first.`
          : "Have the work done before this flight.",
    };
  if (state === "overdue")
    return { action: "Do not fly until this is done, or until an authorised person decides otherwise." };
  return {};
}
