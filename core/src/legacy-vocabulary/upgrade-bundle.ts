import { isRecord, renamed, withTodaysCause } from "./rename";
import { upgradePreferences } from "./upgrade-event";
import { upgradeFile } from "./upgrade-file";

/** Upgrades a device's stored data of one aircraft, with its files and last preflights. */
export function upgradeBundle(bundle: unknown): unknown {
  if (!isRecord(bundle)) return bundle;
  const { aircraft, type, walks, openDiscrepancies } = bundle;
  return {
    ...bundle,
    aircraft: upgradeFile(aircraft),
    type: upgradeFile(type),
    ...(Array.isArray(openDiscrepancies) && { openDiscrepancies: openDiscrepancies.map(withTodaysCause) }),
    ...(Array.isArray(walks) && {
      walks: walks.map((preflight) =>
        isRecord(preflight) && "school" in preflight
          ? {
              ...renamed(preflight, { school: "preferences" }),
              preferences: upgradePreferences(preflight.school),
            }
          : preflight,
      ),
    }),
  };
}

/** Upgrades planned settings, with each pilot's preferences. */
export function upgradePlanned(planned: unknown): unknown {
  if (!isRecord(planned) || !isRecord(planned.schools)) return planned;
  const { schools, ...rest } = planned;
  return {
    ...rest,
    preferences: Object.fromEntries(
      Object.entries(schools as object).map(([key, one]) => [key, upgradePreferences(one)]),
    ),
  };
}
