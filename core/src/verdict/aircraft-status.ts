import {
  type AirworthinessSnapshot,
  judgeAirworthiness,
  metersOfSnapshot,
} from "../airworthiness/airworthiness-snapshot";
import type { LocalDate } from "../airworthiness/calendar/local-date";
import { dueJudgement, isSoon } from "../airworthiness/due/due-judgement";
import type { OpenDiscrepancy } from "../checklist/list/open-discrepancy";
import { GRADES, type Grade, type Verdict, worstGrade } from "../judgement/judgement";
import type { LastOil } from "../logs/last-fluids";
import { formatNumber } from "../units/format";
import { verdictFor } from "./verdict-for";

/** A reason against flying, or a note, known before today's preflight. */
export interface StatusReason {
  id: string;
  grade: Grade;
  text: string;
  /** The discrepancy behind it. */
  discrepancyId?: string;
}

/** Known status of an aircraft; the preflight has the last word. */
export interface AircraftStatus {
  verdict: Verdict;
  grade: Grade;
  /** Worst first. */
  reasons: StatusReason[];
}

/**
 * Status of an aircraft: each open discrepancy counts with its grade (oldest first within one grade); oil (US qt) last read below
 * the minimum, with none added since, is a note to take oil along. Without a minimum on file oil is ignored. Due items are judged
 * for a one-hour day flight. The verdict follows from the worst, as for a preflight. Never throws. Complexity: O(n log n).
 */
export function aircraftStatus({
  open,
  oil = [],
  papers = [],
  today,
}: {
  open: readonly OpenDiscrepancy[];
  oil?: readonly LastOil[];
  papers?: readonly StatusReason[];
  /** Today, for deferrals until a date. */
  today?: LocalDate;
}): AircraftStatus {
  const reasons: StatusReason[] = [
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

/** A deferral is a note, and a stop once expired. */
function deferredNow({ grade, deferral }: OpenDiscrepancy, today: LocalDate | undefined): { grade: Grade } {
  if (!deferral || !deferral.for.includes("day")) return { grade };
  return {
    grade: deferral.until !== undefined && today !== undefined && today > deferral.until ? "stop" : "note",
  };
}

/** One hour by day with one landing: the minimum an unplanned flight needs. */
const AN_HOUR = { minutes: 60, conditions: [] } as const;

/** Due items that prevent such a flight or are due soon, at a time (ISO 8601). Never throws. */
export function airworthinessStatus(papers: AirworthinessSnapshot, at: string): StatusReason[] {
  const meters = metersOfSnapshot(papers);
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

function lowOil({ engine, qt, putInQt, minimumQt }: LastOil): StatusReason[] {
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
