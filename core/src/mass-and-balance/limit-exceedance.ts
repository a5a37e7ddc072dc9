import { checkLoad } from "./check-load";
import { spanAt } from "./envelope";
import { type Lever, lightens } from "./load-adjustments";
import { armOf } from "./load-path";
import type { Burn, Load, LoadingProfile } from "./loading-profile";

/** Resolution of changes, kg. */
export const STEP_KG = 0.5;

/** How far a load is outside limits, with the arms and mass that apply. */
export interface Lack {
  wrong: boolean;
  /** Excess total mass, kg. */
  heavyKg: number;
  /** Largest excess or shortfall at a single station, kg. */
  placeKg: number;
  /** Excess of the centre of gravity, mm. */
  forwardMm: number;
  aftMm: number;
  /** Lowest mass along the flight. */
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

/** Bounds on how fast any change can improve an aircraft's load. */
export interface Bounds {
  /** Foremost and aftmost arm: the centre of gravity is always between them. */
  foremostMm: number;
  aftmostMm: number;
  /** Maximum slope of the limits, mm per kilogram. */
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
        // At a step of the envelope both sides count.
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

/** Remaining amount of an adjustment. */
export interface Reach {
  lever: Lever;
  kg: number;
}

/**
 * Lower bound on the summed kilograms of changes a load needs; 0 if none, infinite if all available changes are not enough. It
 * never exceeds the true value: a kilogram moves the centre of gravity at most by its distance divided by the lowest mass, and
 * the limit at most by its slope.
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
  /** Fastest adjustments first, each as far as it goes. */
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

/** Maximum reduction of one side's excess per kilogram of a change, kg·mm. */
function perKg(
  { outMm, inMm }: Lever,
  side: "forward" | "aft",
  { foremostMm, aftmostMm }: Pick<Bounds, "foremostMm" | "aftmostMm">,
): number {
  // Mass leaving or entering the aircraft counts as at its centre of gravity here.
  const [out, into] = [
    outMm.length > 0 ? outMm : [foremostMm, aftmostMm],
    inMm.length > 0 ? inMm : [foremostMm, aftmostMm],
  ];
  return Math.max(
    0,
    side === "aft" ? Math.max(...out) - Math.min(...into) : Math.max(...into) - Math.min(...out),
  );
}

/** Maximum shift of the moment by a change, kg·mm per kilogram. */
function farthest(lever: Lever, bounds: Bounds): number {
  return Math.max(perKg(lever, "aft", bounds), perKg(lever, "forward", bounds));
}
