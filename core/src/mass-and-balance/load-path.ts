import type { MassMoment } from "./envelope";
import type { Burn, Load, LoadingProfile } from "./loading-profile";

/** Named points of the flight; between them the path bends when a tank runs dry. */
export const PATH_NAMES = ["start", "take-off", "landing", "zero fuel"] as const;
export type PathName = (typeof PATH_NAMES)[number];

export type PathPoint = MassMoment & { name?: PathName; litres: number };

/** Mass and moment with given litres in each tank. Unknown stations or tanks count nothing. */
export function massMoment(
  profile: Pick<LoadingProfile, "weighing" | "stations" | "tanks">,
  { stations, kgPerL }: Pick<Load, "stations" | "kgPerL">,
  litres: Readonly<Record<string, number>>,
): MassMoment {
  const { emptyKg, armMm } = profile.weighing;
  const sum = { kg: emptyKg, moment: emptyKg * armMm };
  const add = (kg: number, arm: number) => {
    sum.kg += kg;
    sum.moment += kg * arm;
  };
  for (const { id, armMm: arm } of profile.stations) add(stations[id] ?? 0, arm);
  for (const { tank, armMm: arm } of profile.tanks) add((litres[tank] ?? 0) * kgPerL, arm);
  return sum;
}

/**
 * Path of mass and moment from start through take-off and landing to zero fuel: tanks are used in order, those listed together
 * evenly until one is empty. Without an order all are used evenly. Litres ≥ 0; burning more than there is ends at zero.
 * Complexity: O(tanks²).
 */
export function loadPath(profile: LoadingProfile, load: Load, { taxiL, tripL }: Burn): PathPoint[] {
  const litres: Record<string, number> = Object.fromEntries(
    profile.tanks.map(({ tank }) => [tank, Math.max(0, load.litres[tank] ?? 0)]),
  );
  const order = profile.burn ?? [profile.tanks.map(({ tank }) => tank)];
  const total = () => Object.values(litres).reduce((sum, l) => sum + l, 0);
  const points: PathPoint[] = [];
  const put = (name?: PathName) =>
    points.push({ ...massMoment(profile, load, litres), litres: total(), ...(name && { name }) });
  const burn = (wanted: number) => {
    let left = Math.min(wanted, total());
    for (const group of order)
      for (;;) {
        const open = group.filter((tank) => (litres[tank] ?? 0) > 1e-9);
        if (open.length === 0 || left <= 1e-9) break;
        const each = Math.min(left / open.length, ...open.map((tank) => litres[tank] as number));
        for (const tank of open) litres[tank] = (litres[tank] as number) - each;
        left -= each * open.length;
        if (left > 1e-9) put();
      }
  };
  put("start");
  burn(taxiL);
  put("take-off");
  burn(tripL);
  put("landing");
  burn(total());
  put("zero fuel");
  return points;
}

/** Arm of a mass and its moment, mm. */
export const armOf = ({ kg, moment }: MassMoment): number => moment / kg;
