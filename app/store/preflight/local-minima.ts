import type { AircraftBundle } from "@cravix/contract/client";
import {
  applyPersonEvents,
  classOf,
  localDate,
  type MinimaSet,
  minimaOfPerson,
  type PersonEvent,
  type PersonRecord,
  type PreflightEvent,
} from "@cravix/core";
import { ownDue } from "./own-due";

/** Events of one person's due items. */
export const happenedTo = (personId: string, events: readonly PreflightEvent[]): PersonEvent[] =>
  events.flatMap((event): PersonEvent[] =>
    "personId" in event.data && event.data.personId === personId ? [event as PersonEvent] : [],
  );

/** Limits of a person with this record for this aircraft today. */
export function minimaOf(
  record: PersonRecord,
  { aircraft, type }: Pick<AircraftBundle, "aircraft" | "type">,
): MinimaSet[] {
  const today = localDate(new Date().toISOString());
  return minimaOfPerson(record, {
    today,
    ends: today,
    kinds: ["day", "night", "passengers", "solo student", "instrument", "hire", "towing"],
    class: classOf(type),
    registration: aircraft.registration,
  });
}

/**
 * Limits of the current crew member as known here, offline too; asks the server if they were never loaded. `ownUnknown` if it
 * does not respond: missing limits must not look like satisfied ones.
 */
export async function localMinima(
  crewId: string | null,
  bundle: Pick<AircraftBundle, "aircraft" | "type">,
  events: readonly PreflightEvent[],
): Promise<{ minima: MinimaSet[]; ownUnknown: boolean }> {
  if (!crewId) return { minima: [], ownUnknown: false };
  const kept = await ownDue(crewId);
  return {
    minima: minimaOf(applyPersonEvents(kept?.record, happenedTo(crewId, events)), bundle),
    ownUnknown: kept === undefined,
  };
}
