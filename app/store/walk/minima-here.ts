import type { AircraftBundle } from "@cravix/contract/client";
import {
  classOf,
  localDate,
  type MinimaSet,
  minimaOfPerson,
  type PersonHappening,
  type PersonRecord,
  type PreflightEvent,
  personWith,
} from "@cravix/core";
import { readNote } from "../../device/log/notes";

/** Under this name a person's own due items are kept on the device, by the person. */
export const OWN_DUE_ITEMS = "own due items:";

/** What a device keeps of its holder's due items, and when the server said it. */
export interface KeptRecord {
  record: PersonRecord;
  saidAt: number;
}

/** What happened to one person's due items, out of events. */
export const happenedTo = (personId: string, events: readonly PreflightEvent[]): PersonHappening[] =>
  events.flatMap((event): PersonHappening[] =>
    "personId" in event.data && event.data.personId === personId ? [event as PersonHappening] : [],
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

/** The same of whoever holds the device, as the device knows it, without a network too. */
export async function minimaHere(
  crewId: string | null,
  bundle: Pick<AircraftBundle, "aircraft" | "type">,
  events: readonly PreflightEvent[],
): Promise<MinimaSet[]> {
  if (!crewId) return [];
  const kept = await readNote<KeptRecord>(OWN_DUE_ITEMS + crewId).catch(() => undefined);
  return minimaOf(personWith(kept?.record, happenedTo(crewId, events)), bundle);
}
