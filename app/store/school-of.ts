import type { AircraftBundle } from "@cravix/contract/client";
import { defaultSchool, type School } from "@cravix/core";
import { schoolKey } from "./planned-slice";

/** How this pilot works on this aircraft: as set on this device, else as in his last walk of it, else as the type asks. */
export function schoolOf(
  bundle: AircraftBundle,
  crewId: string | null,
  schools: Readonly<Record<string, School>>,
): School {
  const here = crewId ? schools[schoolKey(crewId, bundle.aircraft.registration)] : undefined;
  const before = bundle.walks.find((walk) => walk.crewId === crewId && walk.school)?.school;
  return here ?? before ?? defaultSchool(bundle.type.habits);
}
