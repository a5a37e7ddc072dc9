import type { AircraftBundle } from "@cravix/contract/client";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import {
  type AirworthinessOnFile,
  applyAirworthinessEvents,
} from "@cravix/core/logs/apply-airworthiness-events";

/** Airworthiness data of an aircraft as known here: from the server plus local events. Undefined if none are on file. */
export function localAirworthiness(
  bundle: Pick<AircraftBundle, "papers">,
  events: readonly PreflightEvent[],
): AirworthinessOnFile | undefined {
  // A bundle stored before an update has none.
  return bundle.papers ? applyAirworthinessEvents(bundle.papers, events) : undefined;
}
