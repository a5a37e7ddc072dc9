import type { AircraftBundle } from "@cravix/contract/client";
import { defaultPreferences, type Preferences } from "@cravix/core";
import { preferencesKey } from "./planned-slice";

/** How this pilot works on this aircraft: as set on this device, else as in his last walk of it, else as the type asks. */
export function preferencesOf(
  bundle: AircraftBundle,
  crewId: string | null,
  set: Readonly<Record<string, Preferences>>,
): Preferences {
  const here = crewId ? set[preferencesKey(crewId, bundle.aircraft.registration)] : undefined;
  const before = bundle.walks.find((walk) => walk.crewId === crewId && walk.preferences)?.preferences;
  return here ?? before ?? defaultPreferences(bundle.type.recommended);
}
