import { flightCsv } from "@cravix/contract/logs";
import type { Meter } from "@cravix/core/airworthiness/meters/meter";
import { readFlights } from "../airworthiness/read-flights";
import type { Database } from "../db/database";

/** Flights read at a time. */
const PART = 500;

/** The technical log as CSV, in parts, newest first; struck-out flights are left out. */
export async function* flightCsvParts(
  db: Database["db"],
  of: { groupId: string; registration: string },
  meters: readonly Meter[],
): AsyncGenerator<string> {
  let before: { off: string; id: string } | undefined;
  for (let head = true; ; head = false) {
    const rows = await readFlights(db, { ...of, limit: PART, ...(before && { before }) });
    const table = flightCsv(
      rows.filter(({ struck }) => !struck),
      meters,
    );
    yield head ? table : table.slice(table.indexOf("\n") + 1);
    const last = rows.at(-1);
    if (rows.length < PART || !last) return;
    before = { off: last.off, id: last.id };
  }
}
