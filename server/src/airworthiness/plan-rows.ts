import type { PlanRow } from "@cravix/contract/logs";
import { airworthinessSnapshot, judgeAirworthiness } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { isLocalDate, localDate } from "@cravix/core/airworthiness/calendar/local-date";
import { calculated } from "@cravix/core/airworthiness/due/problem-of";
import { usualOf, whenDue } from "@cravix/core/airworthiness/plan/when-due";
import type { WorkshopPlan } from "@cravix/core/airworthiness/plan/workshop-plan";
import type { AirworthinessOnFile } from "@cravix/core/logs/apply-airworthiness-events";

/** Days covered by the calendar. */
const AHEAD_DAYS = 730;

/**
 * The group's calendar: planned visits, closed days, and due days of all aircraft, with the range of forecasts. In order of day.
 * Items without a
 * day are left out; those that cannot be calculated stand at today.
 */
export function planRows(
  papers: readonly AirworthinessOnFile[],
  plan: WorkshopPlan | null,
  at: string,
): PlanRow[] {
  const until = localDate(new Date(Date.parse(at) + AHEAD_DAYS * 86_400_000).toISOString());
  const due = papers.flatMap((onFile): PlanRow[] => {
    const rows = calculated(() => dueRows(onFile, at, until));
    return "value" in rows
      ? rows.value
      : [unknownRow(onFile.record.registration, localDate(at), "Airworthiness record", rows.problem)];
  });
  const visits = (plan?.visits ?? [])
    .filter(({ date }) => isLocalDate(date))
    .map(
      ({ registration, date, items }): PlanRow => ({
        date,
        what: "visit",
        registration,
        text: items.join(", "),
      }),
    );
  const closed = (plan?.closed ?? [])
    .filter(({ from, to }) => isLocalDate(from) && isLocalDate(to))
    .map(
      ({ from, to, why }): PlanRow => ({
        date: from,
        what: "closed",
        registration: "",
        text: why ?? "",
        from,
        to,
      }),
    );
  return [...visits, ...due, ...closed].sort(
    (a, b) =>
      a.date.localeCompare(b.date) ||
      a.registration.localeCompare(b.registration) ||
      a.text.localeCompare(b.text),
  );
}

/** What cannot be calculated stands at today, because it must be looked at before anything else. */
const unknownRow = (registration: string, today: string, name: string, problem: string): PlanRow => ({
  date: today,
  what: "due",
  registration,
  text: `${name}: cannot be calculated. ${problem}`,
});

/** Due days of one aircraft. */
function dueRows(onFile: AirworthinessOnFile, at: string, until: string): PlanRow[] {
  const { record } = onFile;
  const today = localDate(at, record.timeZone);
  const usual = usualOf(onFile.days, record.meters, today);
  return judgeAirworthiness(airworthinessSnapshot(record, onFile), {
    at,
    minutes: 0,
    landings: 0,
    conditions: [],
  }).flatMap(({ item, verdict }): PlanRow[] => {
    if (verdict.problem !== undefined)
      return [unknownRow(record.registration, today, item.name, verdict.problem)];
    const when = whenDue(verdict.limits, usual, today);
    if (!when?.middle || when.middle > until) return [];
    return [
      {
        date: when.middle,
        what: "due",
        registration: record.registration,
        text: item.name,
        ...(!when.certain && { from: when.from, ...(when.to && { to: when.to }) }),
      },
    ];
  });
}
