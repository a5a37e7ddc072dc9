import type { AircraftBundle, CrewMember } from "@cravix/contract/client";
import { defaultPreferences, mayGroup, type Preferences } from "@cravix/core/aircraft/preferences";
import { preferencesKey } from "../state/planned-slice";

/** Preferences of this pilot for this aircraft: set on this device, else from their last preflight, else the type's. */
export function preferencesOf(
  bundle: AircraftBundle,
  crewId: string | null,
  set: Readonly<Record<string, Preferences>>,
  crew: readonly CrewMember[],
): Preferences {
  const here = crewId ? set[preferencesKey(crewId, bundle.aircraft.registration)] : undefined;
  const before = bundle.walks.find(
    (preflight) => preflight.crewId === crewId && preflight.preferences,
  )?.preferences;
  const found = here ?? before ?? defaultPreferences(bundle.type.recommended);
  const role = crew.find(({ id }) => id === crewId)?.role;
  // Cards need enough walkarounds: otherwise one item per card.
  return mayGroup(bundle.laps[crewId ?? ""] ?? 0, role) || found.cards !== "groups"
    ? found
    : { ...found, cards: "one item each" };
}
