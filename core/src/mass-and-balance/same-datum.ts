import type { LoadingProfile } from "./loading-profile";

/** Range of pilot masses, kg, used to test a profile. Common practice. */
const PILOT_KG = [45, 130] as const;
/** Assumed limit of a station or tank without one, kg: more than any of these aircraft carries in one. */
const UNNAMED_KG = 400;
/** Maximum distance of a station from the CG in a light aircraft, mm. Common practice: the longest are about ten metres. */
const FURTHEST_MM = 6000;

/**
 * Arms that cannot use the envelope's datum: no allowed load brings the CG near the envelope, or a station is further away than
 * the aircraft is long. Paths as in the file. Valid range: a profile valid by its schema. Complexity: O(stations · log stations).
 * Source: the CG is the mass-weighted mean of the arms (FAA-H-8083-1), so the extreme arms bound it.
 */
export function datumFaults(profile: LoadingProfile): { path: string; expected: string }[] {
  const arms = profile.envelope.corners.map(({ armMm }) => armMm);
  const [fore, aft] = [Math.min(...arms), Math.max(...arms)];
  const span = `${Math.round(fore)} to ${Math.round(aft)} mm`;
  const far = (armMm: number) => armMm < fore - FURTHEST_MM || armMm > aft + FURTHEST_MM;
  const faults = [
    ...profile.stations.map(({ armMm }, i) => ({ armMm, path: `stations[${i}].armMm` })),
    ...profile.tanks.map(({ armMm }, i) => ({ armMm, path: `tanks[${i}].armMm` })),
  ]
    .filter(({ armMm }) => far(armMm))
    .map(({ path }) => ({
      path,
      expected: `an arm from the same datum as the envelope (${span}); this one would be outside the aircraft`,
    }));
  const { least, most } = balanceRange(profile);
  if (faults.length === 0 && (most < fore || least > aft))
    faults.push({
      path: "weighing.armMm",
      expected: `an arm from the same datum as the envelope; with any load the CG is between ${Math.round(least)} and ${Math.round(most)} mm, but the envelope is ${span}`,
    });
  return faults;
}

/** Foremost and aftmost CG with a pilot on board, mm. */
function balanceRange({ weighing, stations, tanks }: LoadingProfile): { least: number; most: number } {
  const pilots = stations.filter(({ pilot }) => pilot);
  const others = [
    ...stations.filter(({ pilot }) => !pilot).map(({ armMm, maxKg }) => ({ armMm, kg: maxKg ?? UNNAMED_KG })),
    ...tanks.map(({ armMm }) => ({ armMm, kg: UNNAMED_KG })),
  ];
  const drawn = (pilotKg: number, side: 1 | -1) => {
    let kg = weighing.emptyKg;
    let moment = kg * weighing.armMm;
    const put = (place: { armMm: number }, mass: number) => {
      kg += mass;
      moment += mass * place.armMm;
    };
    for (const pilot of pilots) put(pilot, pilotKg);
    // Furthest first: each beyond the CG moves it on; after the first that does not, none does.
    for (const place of [...others].sort((a, b) => side * (b.armMm - a.armMm)))
      if (side * (place.armMm - moment / kg) > 0) put(place, place.kg);
    return moment / kg;
  };
  return {
    least: Math.min(...PILOT_KG.map((kg) => drawn(kg, -1))),
    most: Math.max(...PILOT_KG.map((kg) => drawn(kg, 1))),
  };
}

/** Shift of the empty CG by relocated equipment, mm, and maximum distance of equipment from it, mm. Common practice. */
const MOVED_ABOUT_MM = 30;
const EQUIPMENT_ARM_MM = 3000;

/** Difference between two weighings. */
export interface WeighingChange {
  kg: number;
  /** Positive aft. */
  mm: number;
  /** True if the CG moved further than the mass change can explain: another datum, or an error. */
  odd: boolean;
}

/**
 * Compares a new weighing with the previous one, kg and mm. Odd if the arm moved more than the mass change explains: a part of m
 * kg at distance d from the CG of an aircraft of W kg moves it by m·d/W.
 * Valid range: masses above 0. Source: FAA-H-8083-1 (adding and removing equipment); equipment distances are common practice.
 */
export function weighingChange(
  before: Pick<LoadingProfile["weighing"], "emptyKg" | "armMm">,
  after: Pick<LoadingProfile["weighing"], "emptyKg" | "armMm">,
): WeighingChange {
  const kg = after.emptyKg - before.emptyKg;
  const mm = after.armMm - before.armMm;
  const explained = MOVED_ABOUT_MM + (Math.abs(kg) * EQUIPMENT_ARM_MM) / after.emptyKg;
  return { kg, mm, odd: Math.abs(mm) > explained };
}
