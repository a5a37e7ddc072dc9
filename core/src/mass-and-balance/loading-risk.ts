import { seededRandom } from "../units/seeded-random";
import { checkLoad } from "./check-load";
import type { Burn, Load, LoadingProfile } from "./loading-profile";

/** Standard deviation of the entered load. */
export interface LoadUncertainty {
  /** Of a seat or baggage, kg: scales and clothes (own estimate). */
  stationKg: number;
  /** Of the fuel in all tanks, L. */
  fuelL: number;
  /** Of the empty centre of gravity, mm: changes since the weighing. */
  emptyArmMm: number;
}

export const USUAL_DOUBT: LoadUncertainty = { stationKg: 3, fuelL: 4, emptyArmMm: 3 };

/** Probability that a load is outside limits, by simulation: 0 to 1. Deterministic. Complexity: O(tries · corners²). */
export function probabilityOutsideLimits(
  profile: LoadingProfile,
  load: Load,
  burn: Burn,
  doubt: LoadUncertainty = USUAL_DOUBT,
  tries = 1000,
): number {
  const random = seededRandom(20_261);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const total = Object.values(load.litres).reduce((sum, l) => sum + l, 0);
  let outside = 0;
  for (let i = 0; i < tries; i++) {
    const stations = Object.fromEntries(
      Object.entries(load.stations).map(([id, kg]) => [
        id,
        kg > 0 ? Math.max(0, kg + normal() * doubt.stationKg) : 0,
      ]),
    );
    const part = total > 0 ? Math.max(0, 1 + (normal() * doubt.fuelL) / total) : 1;
    const litres = Object.fromEntries(Object.entries(load.litres).map(([tank, l]) => [tank, l * part]));
    const armMm = profile.weighing.armMm + normal() * doubt.emptyArmMm;
    const one = { ...profile, weighing: { ...profile.weighing, armMm } };
    if (checkLoad(one, { ...load, stations, litres }, burn).faults.length > 0) outside++;
  }
  return outside / tries;
}
