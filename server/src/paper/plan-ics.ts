import { createHash } from "node:crypto";
import type { PlanRow } from "@cravix/contract/logs";
import ical from "ical-generator";

/** Calendar day as a local Date, as the library expects. */
const day = (date: string, more = 0): Date => {
  const [year = 0, month = 1, on = 1] = date.split("-").map(Number);
  return new Date(year, month - 1, on + more);
};

const SAID: Record<PlanRow["what"], (row: PlanRow) => string> = {
  visit: ({ registration, text }) => `${registration} in the workshop: ${text}`,
  due: ({ registration, text }) => `${registration} due: ${text}`,
  closed: ({ text }) => `Workshop closed${text ? `: ${text}` : ""}`,
};

/** Stable id, equal in every version of the calendar. */
function idOf({ what, date, registration, text }: PlanRow): string {
  const said = JSON.stringify(what === "due" ? [what, registration, text] : [what, registration, date, text]);
  return `${createHash("sha256").update(said).digest("hex").slice(0, 32)}@cravix`;
}

/** The group's calendar as iCalendar (RFC 5545): whole days, ending on the day after the last. */
export function planIcs(rows: readonly PlanRow[], now: Date): string {
  const calendar = ical({ name: "Workshop and due items", prodId: { company: "cravix", product: "cravix" } });
  for (const row of rows) {
    const span =
      row.what === "due" && row.from
        ? `Forecast from past flying: likely between ${row.from} and ${row.to ?? "more than two years from now"}.`
        : undefined;
    calendar.createEvent({
      id: idOf(row),
      stamp: now,
      start: day(row.date),
      end: day(row.what === "closed" && row.to ? row.to : row.date, 1),
      allDay: true,
      summary: SAID[row.what](row),
      ...(span && { description: span }),
    });
  }
  return calendar.toString();
}
