import type { LocalDate } from "@cravix/core";
import Papa from "papaparse";

/** A line of the group's calendar: a visit to the workshop, or a day up to which something holds. */
export interface PlanRow {
  date: LocalDate;
  what: "visit" | "due" | "closed";
  registration: string;
  /** What is done, or what is due. */
  text: string;
  /** A forecast by how it is flown: the earliest and the latest day; without them the day is certain. */
  from?: LocalDate;
  to?: LocalDate;
}

const COLUMNS = ["date", "what", "registration", "text", "from", "to"];

/** The plan as a table for a spreadsheet; a text that a spreadsheet would reckon with is kept a text. */
export function planCsv(rows: readonly PlanRow[]): string {
  return `${Papa.unparse(
    {
      fields: COLUMNS,
      data: rows.map(({ date, what, registration, text, from = "", to = "" }) => [
        date,
        what,
        registration,
        text,
        from,
        to,
      ]),
    },
    { newline: "\n", escapeFormulae: true },
  )}\n`;
}
