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

/** What happened to one person's due items, out of events. */
export const happenedTo = (personId: string, events: readonly PreflightEvent[]): PersonEvent[] =>
  events.flatMap((event): PersonEvent[] =>
    "personId" in event.data && event.data.personId === personId ? [event as PersonEvent] : [],
  );

/** Within which limits somebody with this record flies this aircraft today. */
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
 * The same of whoever holds the device, as the device knows it, without a network too; the server is asked where it never told it. `ownUnknown` where it
 * does not answer either: what is missing must not look like what is good.
 */
export async function minimaHere(
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
