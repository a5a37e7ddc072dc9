import type { AircraftBundle } from "@cravix/contract/client";
import {
  kindsOfFlight,
  type RequestedFlight,
  type ToldFlight,
} from "@cravix/core/airworthiness/airworthiness-snapshot";
import {
  applyPersonEvents,
  classOf,
  minimaOfPerson,
  type PersonEvent,
  type PersonFlight,
  type PersonRecord,
} from "@cravix/core/airworthiness/people/person-due";
import { type PilotInDate, pilotInDate } from "@cravix/core/airworthiness/people/pilot-in-date";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import type { MinimaSet } from "@cravix/core/minima/minima";
import { todayIn } from "../server/today";
import type { AppDispatch } from "../state/root-state";
import { ownDue } from "./own-due";

/** Events of one person's due items. */
export const happenedTo = (personId: string, events: readonly PreflightEvent[]): PersonEvent[] =>
  events.flatMap((event): PersonEvent[] =>
    "personId" in event.data && event.data.personId === personId ? [event as PersonEvent] : [],
  );

/** Limits of a person with this record for this aircraft today. */
export function minimaOf(
  record: PersonRecord,
  { aircraft, type, papers }: Pick<AircraftBundle, "aircraft" | "type" | "papers">,
): MinimaSet[] {
  const today = todayIn(papers?.record.timeZone);
  return minimaOfPerson(record, {
    today,
    ends: today,
    kinds: ["day", "night", "passengers", "solo student", "instrument", "hire", "towing"],
    class: classOf(type),
    registration: aircraft.registration,
  });
}

/** The planned flight, as far as it decides what a pilot must have. */
export interface PersonsFlight extends ToldFlight, Pick<RequestedFlight, "conditions"> {
  minutes: number;
  /** Day of the flight, if not today. */
  onDay?: string | undefined;
}

/** Minutes after the flight in which it may still end: a late start. */
const LATE_MIN = 60;

/** This flight as a question to a person's due items: on the days of the aircraft's base. */
export function flightOfPerson(
  { aircraft, type, papers }: Pick<AircraftBundle, "aircraft" | "type" | "papers">,
  { minutes, onDay, ...told }: PersonsFlight,
): PersonFlight {
  const zone = papers?.record.timeZone;
  const now = onDay === undefined ? Date.now() : Date.parse(`${onDay}T12:00:00Z`);
  return {
    today: todayIn(zone, now),
    ends: todayIn(zone, now + (minutes + LATE_MIN) * 60_000),
    ...kindsOfFlight(told),
    class: classOf(type),
    registration: aircraft.registration,
  };
}

/**
 * Limits of the current crew member as known here, and whether they are in date for this flight; offline too. Asks the server if
 * they were never loaded. `ownUnknown` if it does not respond: missing limits must not look like satisfied ones.
 */
export async function localPilot(
  dispatch: AppDispatch,
  crewId: string | null,
  bundle: Pick<AircraftBundle, "aircraft" | "type" | "papers">,
  events: readonly PreflightEvent[],
  flight: PersonsFlight,
): Promise<{ minima: MinimaSet[]; ownUnknown: boolean; pilotInDate?: PilotInDate }> {
  if (!crewId) return { minima: [], ownUnknown: false };
  const kept = await ownDue(dispatch, crewId);
  const record = applyPersonEvents(kept?.record, happenedTo(crewId, events));
  return {
    minima: minimaOf(record, bundle),
    ownUnknown: kept === undefined,
    ...(kept && { pilotInDate: pilotInDate(record, flightOfPerson(bundle, flight)) }),
  };
}
