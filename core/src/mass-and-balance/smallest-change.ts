import { checkLoad } from "./check-load";
import { type Bounds, boundsOf, limitExceedance, minimumChangeKg, STEP_KG } from "./limit-exceedance";
import { type Lever, type LoadChange, lightens, loadAdjustments, minimumFuelL } from "./load-adjustments";
import type { Burn, Load, LoadingProfile } from "./loading-profile";

/**
 * Single changes that bring a load within limits, each by its smallest amount, smallest first: taking out, moving bags, ballast,
 * less fuel (from all tanks in proportion, never below burn plus reserve). The pilot's mass is fixed. Empty if no single change
 * helps, or nothing is wrong. Exact to half a kilogram: amounts are tried in half kilograms, skipping those a lower bound rules
 * out, since a kilogram shifts the centre of gravity and its limit only by a bounded distance. Complexity: O(stations² ·
 * kilograms · corners²), usually far less.
 */
export function smallestChanges(
  profile: LoadingProfile,
  load: Load,
  burn: Burn,
  { keepL = minimumFuelL(burn) }: { keepL?: number } = {},
): LoadChange[] {
  const { wrong, heavyKg } = limitExceedance(profile, load, burn);
  if (!wrong) return [];
  const bounds = boundsOf(profile);
  return loadAdjustments(profile, load, keepL)
    .flatMap((lever) => {
      // Moving a bag does not reduce the total mass.
      if (heavyKg > 0 && !lightens(lever)) return [];
      const kg = leastOf(profile, load, burn, { lever, bounds, fromKg: heavyKg });
      return kg === undefined ? [] : [lever.change(kg)];
    })
    .sort((a, b) => a.kg - b.kg);
}

/** Smallest sufficient amount of one change, kg, from a lower bound; undefined if even all of it is not enough. */
function leastOf(
  profile: LoadingProfile,
  load: Load,
  burn: Burn,
  { lever, bounds, fromKg }: { lever: Lever; bounds: Bounds; fromKg: number },
): number | undefined {
  const { mostKg, apply } = lever;
  let kg = Math.max(STEP_KG, upTo(fromKg));
  for (let tried = 0; tried < mostKg; ) {
    // Include the remainder of less than half a kilogram: all of it may be just enough.
    tried = Math.min(kg, mostKg);
    const need = minimumChangeKg(
      limitExceedance(profile, apply(load, tried), burn),
      [{ lever, kg: mostKg - tried }],
      bounds,
    );
    if (need === 0) return tried;
    if (need === Number.POSITIVE_INFINITY) return undefined;
    kg = Math.max(tried + STEP_KG, upTo(tried + need));
  }
  return undefined;
}

/** Rounds up to half a kilogram, with a tolerance. */
const upTo = (kg: number): number => Math.ceil((kg - 1e-6) / STEP_KG) * STEP_KG;

/** Remaining capacity of one station, kg, or of all tanks in proportion, litres. */
export function remainingCapacity(
  profile: LoadingProfile,
  load: Load,
  burn: Burn,
): { id: string; kg: number }[] {
  if (checkLoad(profile, load, burn).faults.length > 0)
    return profile.stations.map(({ id }) => ({ id, kg: 0 }));
  return profile.stations.map(({ id, maxKg }) => {
    const here = load.stations[id] ?? 0;
    const fits = (kg: number) =>
      checkLoad(profile, { ...load, stations: { ...load.stations, [id]: here + kg } }, burn).faults.length ===
      0;
    const most = Math.min((maxKg ?? 500) - here, 500);
    let kg = 0;
    while (kg + 1 <= most && fits(kg + 1)) kg++;
    return { id, kg };
  });
}
