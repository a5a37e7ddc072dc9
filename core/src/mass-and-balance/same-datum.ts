import type { LoadingProfile } from "./loading-profile";

/** Who flies weighs between these, kg: beyond them a profile is not held against anybody. Common practice. */
const PILOT_KG = [45, 130] as const;
/** A place or tank whose limit the file does not name, kg: more than any of these aircraft puts in one. */
const UNNAMED_KG = 400;
/** No place of a light aircraft lies further from where it balances, mm. Common practice: the longest of them is some ten metres. */
const FURTHEST_MM = 6000;

/**
 * Arms that cannot have been measured from the datum of the envelope: no load that the file allows brings the aircraft near it, or a place lies further from it than the aircraft is
 * long. Paths as in the file. Valid range: a profile as its schema has it. Complexity: O(places · log places). Source: the centre of gravity is the mean of the arms by mass
 * (FAA-H-8083-1), so it lies between what the lightest arms and the heaviest can draw it to.
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

/** How far forward and how far aft the centre of gravity can be drawn with a pilot aboard, mm. */
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
    // The furthest first: each that lies beyond the balance draws it on, and once one does not, none does.
    for (const place of [...others].sort((a, b) => side * (b.armMm - a.armMm)))
      if (side * (place.armMm - moment / kg) > 0) put(place, place.kg);
    return moment / kg;
  };
  return {
    least: Math.min(...PILOT_KG.map((kg) => drawn(kg, -1))),
    most: Math.max(...PILOT_KG.map((kg) => drawn(kg, 1))),
  };
}

/** What equipment that was only moved about does to the balance of an empty aircraft, mm, and how far from it any of it sits, mm. Common practice. */
const MOVED_ABOUT_MM = 30;
const EQUIPMENT_ARM_MM = 3000;

/** How a weighing differs from the one before it. */
export interface WeighingChange {
  kg: number;
  /** Positive further aft. */
  mm: number;
  /** The balance has moved further than what was put in or taken out can move it: another datum, or a slip. */
  odd: boolean;
}

/**
 * A new weighing against the one before, kg and mm. Odd where the arm moved by more than the change of mass explains: a part of m kg that sits d from the balance of W kg moves it by m·d/W.
 * Valid range: masses above 0. Source: FAA-H-8083-1 (adding and removing equipment); how far equipment sits is common practice.
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
