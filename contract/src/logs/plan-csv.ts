import type { LocalDate } from "@cravix/core/airworthiness/calendar/local-date";
import { toCsv } from "./to-csv";

/** A calendar entry of the group: a workshop visit, or a due day. */
export interface PlanRow {
  date: LocalDate;
  what: "visit" | "due" | "closed";
  registration: string;
  /** Work, or due item. */
  text: string;
  /** Earliest and latest day of a forecast; absent for a fixed date. */
  from?: LocalDate;
  to?: LocalDate;
}

const COLUMNS = ["date", "what", "registration", "text", "from", "to"];

/** The plan as CSV. */
export function planCsv(rows: readonly PlanRow[]): string {
  return toCsv(
    COLUMNS,
    rows.map(({ date, what, registration, text, from, to }) => [date, what, registration, text, from, to]),
  );
}
