import type { AircraftBundle, CrewMember } from "@cravix/contract/client";
import { defaultPreferences, mayGroup, type Preferences } from "@cravix/core";
import { preferencesKey } from "./planned-slice";

/** How this pilot works on this aircraft: as set on this device, else as in his last walk of it, else as the type asks. */
export function preferencesOf(
  bundle: AircraftBundle,
  crewId: string | null,
  set: Readonly<Record<string, Preferences>>,
  crew: readonly CrewMember[],
): Preferences {
  const here = crewId ? set[preferencesKey(crewId, bundle.aircraft.registration)] : undefined;
  const before = bundle.walks.find((walk) => walk.crewId === crewId && walk.preferences)?.preferences;
  const found = here ?? before ?? defaultPreferences(bundle.type.recommended);
  const role = crew.find(({ id }) => id === crewId)?.role;
  // Chosen once and no longer, or not yet, this pilot's: each part by itself.
  return mayGroup(bundle.laps[crewId ?? ""] ?? 0, role) || found.cards !== "groups"
    ? found
    : { ...found, cards: "one item each" };
}
