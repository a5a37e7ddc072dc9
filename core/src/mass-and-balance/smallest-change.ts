import { checkLoad } from "./check-load";
import { type Bounds, boundsOf, limitExceedance, minimumChangeKg, STEP_KG } from "./limit-exceedance";
import { type Lever, type LoadChange, lightens, loadAdjustments, minimumFuelL } from "./load-adjustments";
import type { Burn, Load, LoadingProfile } from "./loading-profile";

/**
 * Everything single that brings a load inside, each by the least amount, the smallest first: taking out, moving bags, ballast, less fuel (of all tanks by the same
 * part, never below what is burnt and the reserve). What who flies weighs is not changed. Empty where nothing single helps, and where nothing is wrong.
 * The amounts are exact to half a kilogram: every half kilogram is looked at, but for those that cannot be enough, because a kilogram shifts the centre of gravity, and with its
 * mass the limit, by no more than so many millimetres. Complexity: O(stations² · kilograms · corners²), mostly far less.
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
      // Too heavy stays too heavy wherever a bag lies.
      if (heavyKg > 0 && !lightens(lever)) return [];
      const kg = leastOf(profile, load, burn, { lever, bounds, fromKg: heavyKg });
      return kg === undefined ? [] : [lever.change(kg)];
    })
    .sort((a, b) => a.kg - b.kg);
}

/** The least of one change that brings it inside, kg, from what is needed at least; undefined where all of it does not. */
function leastOf(
  profile: LoadingProfile,
  load: Load,
  burn: Burn,
  { lever, bounds, fromKg }: { lever: Lever; bounds: Bounds; fromKg: number },
): number | undefined {
  const { mostKg, apply } = lever;
  let kg = Math.max(STEP_KG, upTo(fromKg));
  for (let tried = 0; tried < mostKg; ) {
    // What is left over of a last half kilogram counts too: all of it may be just enough.
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

/** The next half kilogram, a hair below counting as reached. */
const upTo = (kg: number): number => Math.ceil((kg - 1e-6) / STEP_KG) * STEP_KG;

/** How much more could go into one place, kg, or into all tanks by the same part, litres, before anything is wrong. */
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
