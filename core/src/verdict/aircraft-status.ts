import {
  type AirworthinessSnapshot,
  judgeAirworthiness,
  papersMeters,
} from "../airworthiness/airworthiness-snapshot";
import type { LocalDate } from "../airworthiness/calendar/local-date";
import { dueJudgement, isSoon } from "../airworthiness/due/due-judgement";
import type { OpenDiscrepancy } from "../checklist/list/compose-list";
import { GRADES, type Grade, type Verdict, worstGrade } from "../judgement/judgement";
import type { LastOil } from "../logs/last-fluids";
import { formatNumber } from "../units/format";
import { verdictFor } from "./verdict-for";

/** What speaks against an aircraft, or is to be thought of, before anybody has walked round it today. */
export interface StandingReason {
  id: string;
  grade: Grade;
  text: string;
  /** The discrepancy that it is. */
  discrepancyId?: string;
}

/** Whether an aircraft can fly as far as anybody knows: the preflight comes after this and has the last word. */
export interface Standing {
  verdict: Verdict;
  grade: Grade;
  /** Worst first. */
  reasons: StandingReason[];
}

/**
 * An aircraft as it stands: every discrepancy that is open counts with its own grade (oldest first within one grade), and an engine whose oil (US qt)
 * was last read below the minimum, with nothing put in since, is a note: oil is taken along. Without a minimum on file nothing is said of oil. What is against
 * it in its papers counts as it was judged for an hour by day. The
 * verdict follows from the worst, as it does for a whole walk. Never throws. Complexity: O(n log n).
 */
export function aircraftStatus({
  open,
  oil = [],
  papers = [],
  today,
}: {
  open: readonly OpenDiscrepancy[];
  oil?: readonly LastOil[];
  papers?: readonly StandingReason[];
  /** The day, for what was put off until another one. */
  today?: LocalDate;
}): Standing {
  const reasons: StandingReason[] = [
    ...[...open]
      .sort((a, b) => a.openedAt.localeCompare(b.openedAt))
      .map((d) => ({
        id: d.id,
        ...deferredNow(d, today),
        text: d.measure ? `${d.text.replace(/\.$/, "")}: ${d.measure}` : d.text,
        discrepancyId: d.id,
      })),
    ...oil.flatMap(lowOil),
    ...papers,
  ].sort((a, b) => GRADES.indexOf(b.grade) - GRADES.indexOf(a.grade));
  const grade = worstGrade(reasons.map((reason) => reason.grade));
  return { verdict: verdictFor(grade), grade, reasons };
}

/** What was lawfully put off is a note, and a stop once its day has passed. */
function deferredNow({ grade, deferral }: OpenDiscrepancy, today: LocalDate | undefined): { grade: Grade } {
  if (!deferral || !deferral.for.includes("day")) return { grade };
  return {
    grade: deferral.until !== undefined && today !== undefined && today > deferral.until ? "stop" : "note",
  };
}

/** An hour by day with one landing: what an aircraft has to be good for before anybody has planned anything. */
const AN_HOUR = { minutes: 60, conditions: [] } as const;

/** What of the papers is against such a flight, and what will be soon, at a moment (ISO 8601). Never throws. */
export function papersStanding(papers: AirworthinessSnapshot, at: string): StandingReason[] {
  const meters = papersMeters(papers);
  return judgeAirworthiness(papers, { at, ...AN_HOUR }).flatMap(({ item, verdict }) => {
    const { grade, sentence, subject } = dueJudgement(item, verdict, meters);
    const soon = isSoon(verdict);
    if (grade === "within limits" && !soon) return [];
    return [
      {
        id: `due.${item.id}`,
        grade: soon && grade === "within limits" ? ("note" as const) : grade,
        text: `${subject}: ${sentence}`,
      },
    ];
  });
}

function lowOil({ engine, qt, putInQt, minimumQt }: LastOil): StandingReason[] {
  if (minimumQt === undefined || putInQt !== undefined || qt >= minimumQt) return [];
  const which = engine === undefined ? "Oil" : `Oil, ${engine} engine`;
  return [
    {
      id: `oil.low${engine === undefined ? "" : `.${engine}`}`,
      grade: "note",
      text: `${which}: ${formatNumber(qt, 1)} qt at the last reading, minimum ${formatNumber(minimumQt, 1)} qt. Take oil with you.`,
    },
  ];
}
