import type { MassMoment } from "./envelope";
import type { Burn, Load, LoadingProfile, LoadTank } from "./loading-profile";

/** Named points of the flight; between them the path bends when a tank runs dry. */
export const PATH_NAMES = ["start", "take-off", "landing", "zero fuel"] as const;
export type PathName = (typeof PATH_NAMES)[number];

export type PathPoint = MassMoment & { name?: PathName; litres: number };

/** Kilograms per litre in a tank: its own density, else that of water or of today's fuel. */
export const tankKgPerL = ({ kgPerL, water }: LoadTank, fuelKgPerL: number): number =>
  kgPerL ?? (water ? 1 : fuelKgPerL);

/** Litres and kilograms of fuel aboard, water ballast aside. */
export function fuelAboard(
  { tanks }: Pick<LoadingProfile, "tanks">,
  { litres, kgPerL }: Pick<Load, "litres" | "kgPerL">,
): { litres: number; kg: number } {
  let sum = { litres: 0, kg: 0 };
  for (const tank of tanks) {
    if (tank.water) continue;
    const here = litres[tank.tank] ?? 0;
    sum = { litres: sum.litres + here, kg: sum.kg + here * tankKgPerL(tank, kgPerL) };
  }
  return sum;
}

/** Mass and moment with given litres in each tank. Unknown stations or tanks count nothing. */
export function massMoment(
  profile: Pick<LoadingProfile, "weighing" | "stations" | "tanks">,
  { stations, kgPerL }: Pick<Load, "stations" | "kgPerL">,
  litres: Readonly<Record<string, number>>,
): MassMoment {
  const { emptyKg, armMm, momentKgMm = emptyKg * armMm } = profile.weighing;
  const sum = { kg: emptyKg, moment: momentKgMm };
  const add = (kg: number, arm: number) => {
    sum.kg += kg;
    sum.moment += kg * arm;
  };
  for (const { id, armMm: arm } of profile.stations) add(stations[id] ?? 0, arm);
  for (const tank of profile.tanks) add((litres[tank.tank] ?? 0) * tankKgPerL(tank, kgPerL), tank.armMm);
  return sum;
}

/**
 * Path of mass and moment from start through take-off and landing to zero fuel: tanks are used in order, those listed together
 * evenly until one is empty. Without an order all are used evenly. Water ballast stays aboard. Litres ≥ 0; burning more than there
 * is ends at zero.
 * Complexity: O(tanks²).
 */
export function loadPath(profile: LoadingProfile, load: Load, { taxiL, tripL }: Burn): PathPoint[] {
  const litres: Record<string, number> = Object.fromEntries(
    profile.tanks.map(({ tank }) => [tank, Math.max(0, load.litres[tank] ?? 0)]),
  );
  const fuel = profile.tanks.filter(({ water }) => !water).map(({ tank }) => tank);
  const order = profile.burn ?? [fuel];
  const total = () => fuel.reduce((sum, tank) => sum + (litres[tank] ?? 0), 0);
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

/** A load without its water ballast. */
export const withoutWater = ({ tanks }: Pick<LoadingProfile, "tanks">, load: Load): Load => ({
  ...load,
  litres: {
    ...load.litres,
    ...Object.fromEntries(tanks.flatMap(({ tank, water }) => (water ? [[tank, 0]] : []))),
  },
});

/** From a point of the flight: the water dumped tank by tank, in the order of the file. */
export function dumpingFrom(
  { tanks }: Pick<LoadingProfile, "tanks">,
  { litres, kgPerL }: Pick<Load, "litres" | "kgPerL">,
  from: MassMoment,
): MassMoment[] {
  const points: MassMoment[] = [from];
  for (const tank of tanks) {
    const kg = tank.water ? (litres[tank.tank] ?? 0) * tankKgPerL(tank, kgPerL) : 0;
    const last = points.at(-1) as MassMoment;
    if (kg > 0) points.push({ kg: last.kg - kg, moment: last.moment - kg * tank.armMm });
  }
  return points;
}

/** Arm of a mass and its moment, mm. */
export const armOf = ({ kg, moment }: MassMoment): number => moment / kg;
