import type { AircraftBundle } from "@cravix/contract/client";
import { applyAirworthinessEvents, type PapersOnFile, type PreflightEvent } from "@cravix/core";

/** An aircraft's papers as this device knows them: the server's word, and what was logged and released here since. Undefined where none are on file. */
export function papersHere(
  bundle: Pick<AircraftBundle, "papers">,
  events: readonly PreflightEvent[],
): PapersOnFile | undefined {
  // A device that has not heard from the server since it was updated knows of no papers.
  return bundle.papers ? applyAirworthinessEvents(bundle.papers, events) : undefined;
}
