import type { AircraftBundle } from "@cravix/contract/client";
import { applyAirworthinessEvents, type PapersOnFile, type PreflightEvent } from "@cravix/core";

/** Airworthiness data of an aircraft as known here: from the server plus local events. Undefined if none are on file. */
export function papersHere(
  bundle: Pick<AircraftBundle, "papers">,
  events: readonly PreflightEvent[],
): PapersOnFile | undefined {
  // A bundle stored before an update has none.
  return bundle.papers ? applyAirworthinessEvents(bundle.papers, events) : undefined;
}
