import { fuelAboard } from "./load-path";
import type { Burn, Load, LoadingProfile } from "./loading-profile";

/** A change with its amount: kilograms, or litres of fuel. */
export type LoadChange =
  /** `all`: everything that is there. */
  | { do: "take out"; from: string; kg: number; all?: true }
  | { do: "move"; from: string; to: string; kg: number }
  | { do: "put in ballast"; to: string; kg: number }
  | { do: "less fuel"; litres: number; kg: number };

/** Maximum ballast at a station without its own limit, kg. */
const MAX_BALLAST_KG = 200;

/** A kind of change whose amount can vary. */
export interface Lever {
  mostKg: number;
  /** Arms where mass leaves and enters, mm: several for several tanks. */
  outMm: readonly number[];
  inMm: readonly number[];
  change: (kg: number) => LoadChange;
  apply: (load: Load, kg: number) => Load;
}

/**
 * All adjustable changes of a load: taking out, moving bags, ballast, less fuel (from all tanks in proportion, never below
 * `keepL`). The pilot's mass is fixed.
 */
export function loadAdjustments(profile: LoadingProfile, load: Load, keepL: number): Lever[] {
  const here = (id: string) => load.stations[id] ?? 0;
  const levers: Lever[] = [];
  for (const from of profile.stations) {
    const there = here(from.id);
    if (there <= 0 || from.pilot) continue;
    levers.push({
      mostKg: there,
      outMm: [from.armMm],
      inMm: [],
      change: (kg) => ({ do: "take out", from: from.id, kg, ...(kg >= there && { all: true }) }),
      apply: (one, kg) => withStations(one, { [from.id]: -kg }),
    });
    if (from.kind === "seat") continue;
    for (const to of profile.stations)
      if (to.id !== from.id && to.kind !== "seat")
        levers.push({
          mostKg: there,
          outMm: [from.armMm],
          inMm: [to.armMm],
          change: (kg) => ({ do: "move", from: from.id, to: to.id, kg }),
          apply: (one, kg) => withStations(one, { [from.id]: -kg, [to.id]: kg }),
        });
  }
  for (const to of profile.stations) {
    const mostKg = (to.maxKg ?? MAX_BALLAST_KG) - here(to.id);
    if (mostKg > 0 && (to.kind !== "seat" || to.minKg !== undefined))
      levers.push({
        mostKg,
        outMm: [],
        inMm: [to.armMm],
        change: (kg) => ({ do: "put in ballast", to: to.id, kg }),
        apply: (one, kg) => withStations(one, { [to.id]: kg }),
      });
  }
  const fuel = fuelAboard(profile, load);
  const total = fuel.litres;
  const kgPerL = total > 0 ? fuel.kg / total : load.kgPerL;
  if (total > keepL)
    levers.push({
      mostKg: (total - keepL) * kgPerL,
      outMm: profile.tanks.filter(({ water }) => !water).map(({ armMm }) => armMm),
      inMm: [],
      change: (kg) => ({
        do: "less fuel",
        kg,
        // Whole litres as a pump shows; never more than allowed.
        litres: Math.min(Math.ceil(kg / kgPerL - 1e-6), total - keepL),
      }),
      apply: (one, kg) => withFuel(profile, one, 1 - kg / kgPerL / total),
    });
  return levers;
}

/** Litres that must stay in the tanks: planned burn plus reserve. */
export const minimumFuelL = ({ taxiL, tripL, reserveL = 0 }: Burn): number => taxiL + tripL + reserveL;

/** True if a change reduces the total mass. */
export const lightens = ({ inMm }: Lever): boolean => inMm.length === 0;

function withStations(load: Load, change: Readonly<Record<string, number>>): Load {
  const stations: Record<string, number> = { ...load.stations };
  for (const [id, kg] of Object.entries(change)) stations[id] = Math.max(0, (stations[id] ?? 0) + kg);
  return { ...load, stations };
}

/** The same part of the fuel left in every tank; water ballast stays. */
export function withFuel({ tanks }: Pick<LoadingProfile, "tanks">, load: Load, part: number): Load {
  const water = new Set(tanks.flatMap((one) => (one.water ? [one.tank] : [])));
  return {
    ...load,
    litres: Object.fromEntries(
      Object.entries(load.litres).map(([tank, litres]) => [
        tank,
        water.has(tank) ? litres : Math.max(0, litres * part),
      ]),
    ),
  };
}
