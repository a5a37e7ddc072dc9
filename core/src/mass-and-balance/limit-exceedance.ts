import { checkLoad } from "./check-load";
import { spanAt } from "./envelope";
import { type Lever, lightens } from "./load-adjustments";
import { armOf } from "./load-path";
import type { Burn, Load, LoadingProfile } from "./loading-profile";

/** To so much a change is reckoned, kg. */
export const STEP_KG = 0.5;

/** How far a load is from being as it must be, and between which arms and from which mass on that is said. */
export interface Lack {
  wrong: boolean;
  /** By so much the whole is too heavy, kg. */
  heavyKg: number;
  /** By so much the worst single place is too heavy or too light, kg. */
  placeKg: number;
  /** By so much the centre of gravity is out, mm. */
  forwardMm: number;
  aftMm: number;
  /** Along the whole way. */
  lowKg: number;
  foremostMm: number;
  aftmostMm: number;
}

export function limitExceedance(profile: LoadingProfile, load: Load, burn: Burn): Lack {
  const { faults, points } = checkLoad(profile, load, burn);
  const arms = points.map(armOf);
  const worst = (...kinds: string[]) =>
    Math.max(0, ...faults.filter(({ kind }) => kinds.includes(kind)).map(({ kg, mm }) => kg ?? mm ?? 0));
  return {
    wrong: faults.length > 0,
    heavyKg: worst("too heavy"),
    placeKg: worst("place too heavy", "seat too light"),
    forwardMm: worst("forward"),
    aftMm: worst("aft"),
    lowKg: Math.min(...points.map(({ kg }) => kg)),
    foremostMm: Math.min(...arms),
    aftmostMm: Math.max(...arms),
  };
}

/** What of an aircraft bounds how fast anything in it can be put right. */
export interface Bounds {
  /** The foremost and the aftmost of all arms: the centre of gravity lies between them whatever is changed. */
  foremostMm: number;
  aftmostMm: number;
  /** How steep the limits are at most, mm a kilogram. */
  slope: { forward: number; aft: number };
}

export function boundsOf({ weighing, stations, tanks, envelope: { corners } }: LoadingProfile): Bounds {
  const arms = [weighing, ...stations, ...tanks].map(({ armMm }) => armMm);
  const masses = [...new Set(corners.map(({ kg }) => kg))].sort((a, b) => a - b);
  const steepest = (side: "forward" | "aft") =>
    Math.max(
      0,
      ...masses.slice(1).map((to, i) => {
        const from = masses[i] as number;
        // Where the envelope steps, each side of the step counts for itself.
        const [a, b] = [spanAt(corners, from + 1e-9), spanAt(corners, to - 1e-9)];
        return a && b ? Math.abs((b[side] - a[side]) / (to - from)) : 0;
      }),
    );
  return {
    foremostMm: Math.min(...arms),
    aftmostMm: Math.max(...arms),
    slope: { forward: steepest("forward"), aft: steepest("aft") },
  };
}

/** So much of a lever is still to be had. */
export interface Reach {
  lever: Lever;
  kg: number;
}

/**
 * How many kilograms of changes, summed, a load needs at least before nothing is wrong; 0 where nothing is, infinity where all that can be had of them is not enough. Never more than
 * what it really takes: a kilogram moves the centre of gravity by no more than its distance to it over the least mass, and the limit by no more than its slope.
 */
export function minimumChangeKg(lack: Lack, reaches: readonly Reach[], bounds: Bounds): number {
  if (!lack.wrong) return 0;
  const { heavyKg, placeKg, forwardMm, aftMm } = lack;
  const lighter = reaches.reduce((sum, { lever, kg }) => sum + (lightens(lever) ? kg : 0), 0);
  const all = reaches.reduce((sum, { kg }) => sum + kg, 0);
  if (heavyKg > lighter + HAIR) return Number.POSITIVE_INFINITY;
  const lowKg = Math.max(
    1,
    lack.lowKg - reaches.reduce((sum, r) => sum + (r.lever.outMm.length > 0 ? r.kg : 0), 0),
  );
  const drift = reaches.reduce((sum, { lever, kg }) => sum + kg * farthest(lever, bounds), 0) / lowKg;
  const cg = {
    foremostMm: Math.max(bounds.foremostMm, lack.foremostMm - drift),
    aftmostMm: Math.min(bounds.aftmostMm, lack.aftmostMm + drift),
  };
  /** The fastest first, each as far as it goes. */
  const least = (side: "forward" | "aft", mm: number): number => {
    if (mm <= 0) return 0;
    let left = mm;
    let kg = 0;
    const rated = reaches.map(({ lever, kg }) => ({
      kg,
      mmPerKg: perKg(lever, side, cg) / lowKg + (isMove(lever) ? 0 : bounds.slope[side]),
    }));
    for (const { kg: most, mmPerKg } of rated.sort((a, b) => b.mmPerKg - a.mmPerKg)) {
      if (mmPerKg <= 0) break;
      const used = Math.min(most, left / mmPerKg);
      kg += used;
      left -= used * mmPerKg;
    }
    return left > HAIR ? Number.POSITIVE_INFINITY : kg;
  };
  const need = Math.max(STEP_KG, heavyKg, placeKg, least("aft", aftMm), least("forward", forwardMm));
  return need > all + HAIR ? Number.POSITIVE_INFINITY : need;
}

const HAIR = 1e-6;

const isMove = ({ outMm, inMm }: Lever): boolean => outMm.length > 0 && inMm.length > 0;

/** How many kilogram millimetres one kilogram of a change takes a side's excess down by at most. */
function perKg(
  { outMm, inMm }: Lever,
  side: "forward" | "aft",
  { foremostMm, aftmostMm }: Pick<Bounds, "foremostMm" | "aftmostMm">,
): number {
  // What leaves the aircraft, or comes from outside, leaves or comes at its centre of gravity as far as that is concerned.
  const [out, into] = [
    outMm.length > 0 ? outMm : [foremostMm, aftmostMm],
    inMm.length > 0 ? inMm : [foremostMm, aftmostMm],
  ];
  return Math.max(
    0,
    side === "aft" ? Math.max(...out) - Math.min(...into) : Math.max(...into) - Math.min(...out),
  );
}

/** How far a change can move the centre of gravity either way, kilogram millimetres a kilogram. */
function farthest(lever: Lever, bounds: Bounds): number {
  return Math.max(perKg(lever, "aft", bounds), perKg(lever, "forward", bounds));
}
