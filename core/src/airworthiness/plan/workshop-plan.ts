import { addDays, dayNumber, daysBetween, isLocalDate, type LocalDate } from "../calendar/local-date";
import { type PlanCost, planCost, type VisitItem, type Workshop } from "./plan-visits";

/** Days when the workshop is closed, both included. */
export interface ClosedPeriod {
  from: LocalDate;
  to: LocalDate;
  why?: string;
}

/** One planned visit. */
export interface PlannedVisit {
  registration: string;
  date: LocalDate;
  /** Names of the work to be done, as they were when planned. */
  items: string[];
  /** Moved by hand: the next plan keeps this day. */
  byHand?: true;
}

/** The group's workshop plan as last published. */
export interface WorkshopPlan {
  closed: ClosedPeriod[];
  visits: PlannedVisit[];
}

/** Faults in a plan; paths as in the plan. */
export function planFaults({ closed, visits }: WorkshopPlan): { path: string; expected: string }[] {
  const faults: { path: string; expected: string }[] = [];
  closed.forEach(({ from, to }, i) => {
    if (!isLocalDate(from))
      faults.push({ path: `closed[${i}].from`, expected: "a date, such as 2026-12-24" });
    else if (!isLocalDate(to))
      faults.push({ path: `closed[${i}].to`, expected: "a date, such as 2027-01-02" });
    else if (dayNumber(to) < dayNumber(from))
      faults.push({ path: `closed[${i}].to`, expected: "a date not before the first day" });
  });
  visits.forEach(({ date }, i) => {
    if (!isLocalDate(date))
      faults.push({ path: `visits[${i}].date`, expected: "a date, such as 2026-12-24" });
  });
  return faults;
}

/** A workshop open on weekdays except closed days. `today` is day 0. */
export function workshopFrom(today: LocalDate, horizon: number, closed: readonly ClosedPeriod[]): Workshop {
  const weekday = new Date(`${today}T12:00:00Z`).getUTCDay();
  const spans = closed
    .filter(({ from, to }) => isLocalDate(from) && isLocalDate(to))
    .map(({ from, to }) => [daysBetween(today, from), daysBetween(today, to)] as const);
  return {
    horizon,
    open: (day) => {
      const on = (((weekday + day) % 7) + 7) % 7;
      return on !== 0 && on !== 6 && !spans.some(([a, b]) => day >= a && day <= b);
    },
  };
}

/** Cost of a manual plan compared with the best one. */
export interface HandCost {
  cost: PlanCost;
  moreVisits: number;
  /** Interval lost beyond the best plan, in whole intervals. */
  moreThrownAway: number;
}

/** Cost of visiting on exactly these days (from today), compared with the best plan for the same work. Complexity: as planCost. */
export function manualPlanCost(
  items: readonly VisitItem[],
  workshop: Workshop,
  days: readonly number[],
  best: { visits: readonly unknown[]; thrownAway: number },
): HandCost {
  const cost = planCost(items, workshop, days);
  return {
    cost,
    moreVisits: cost.visits.length - best.visits.length,
    moreThrownAway: cost.thrownAway - best.thrownAway,
  };
}

/** The cost in sentences, overdue items first. */
export function handPlanCostText(
  { cost, moreVisits, moreThrownAway }: HandCost,
  nameOf: (item: string) => string,
  today: LocalDate,
): { words: string; bad: boolean }[] {
  const said: { words: string; bad: boolean }[] = [];
  for (const { item, due, done } of cost.late)
    said.push({
      bad: true,
      words:
        done === undefined
          ? `${nameOf(item)} is due on ${addDays(today, due)}, and no visit is planned for it.`
          : `${nameOf(item)} will be ${done - due} ${done - due === 1 ? "day" : "days"} overdue at the visit.`,
    });
  for (const day of cost.closed)
    said.push({ bad: true, words: `The workshop is closed on ${addDays(today, day)}.` });
  if (moreVisits > 0)
    said.push({
      bad: false,
      words: `${moreVisits} more ${moreVisits === 1 ? "visit" : "visits"} than needed.`,
    });
  if (moreThrownAway > 0.005)
    said.push({
      bad: false,
      words: `${Math.round(moreThrownAway * 100)} % more of an interval is lost by doing work early.`,
    });
  if (moreThrownAway < -0.005 && cost.late.length === 0)
    said.push({ bad: false, words: `${Math.round(-moreThrownAway * 100)} % of an interval is saved.` });
  if (said.length === 0) said.push({ bad: false, words: "No extra cost." });
  return said;
}
