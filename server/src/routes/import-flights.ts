import type { ImportOutcome } from "@cravix/contract";
import type { Meter } from "@cravix/core/airworthiness/meters/meter";
import { type FlightRow, knownTimes } from "../airworthiness/read-flights";
import type { Database } from "../db/database";
import { acceptEvents } from "../events/accept-events";
import { runInWorker } from "../worker-pool/run-in-worker";

/** Flights accepted at a time. */
const PART = 500;

interface Import {
  groupId: string;
  registration: string;
  /** Who imports, and is recorded as having logged the flights. */
  crewId: string;
  meters: readonly Meter[];
  now: Date;
  onError: (error: unknown) => void;
}

interface ReadLine {
  id: string;
  line: Omit<FlightRow, "id">;
}

/** Imports flights from a table. A flight with identical times is the same flight, however it arrived first. */
export async function importFlights(
  db: Database["db"],
  table: string,
  { groupId, registration, crewId, meters, now, onError }: Import,
): Promise<ImportOutcome> {
  const { text, faults } = await runInWorker({
    kind: "flight log",
    registration,
    meters: [...meters],
    text: table,
    now: now.getTime(),
  });
  const outcome: ImportOutcome = { taken: 0, repeated: 0, faults };
  const read = JSON.parse(text) as ReadLine[];
  for (let i = 0; i < read.length; i += PART) {
    const part = read.slice(i, i + PART);
    const offs = part.map(({ line }) => line.off);
    const known = await knownTimes(db, groupId, registration, offs);
    const fresh = part.filter(({ line }) => !known.has(`${line.off} ${line.on}`));
    outcome.repeated += part.length - fresh.length;
    const events = fresh.map((one) => flightLogged(one, crewId));
    const { taken, repeated, refused } = await acceptEvents(db, events, { now, groupId, onError });
    outcome.taken += taken;
    // Already imported: keep the recorded flight.
    outcome.repeated += repeated + refused.filter(({ field }) => field === "id").length;
    for (const { field, reason } of refused)
      if (field !== "id") outcome.faults.push({ row: 0, column: field ?? "", expected: reason });
  }
  return outcome;
}

const flightLogged = ({ id, line }: ReadLine, crewId: string) => ({
  id,
  type: "flight.logged",
  stream: "flight",
  streamId: id,
  deviceId: id,
  crewId,
  at: line.on,
  data: line,
});
