import { checkLoad, type LoadCheck } from "./check-load";
import { armOf } from "./load-path";
import type { Burn, Load, LoadingProfile } from "./loading-profile";

/** One thing that could be done, and how much of it: kilograms, or litres of fuel. */
export type LoadChange =
  | { do: "take out"; from: string; kg: number }
  | { do: "move"; from: string; to: string; kg: number }
  | { do: "put in ballast"; to: string; kg: number }
  | { do: "less fuel"; litres: number; kg: number };

/** To so much it is reckoned, kg. */
const STEP_KG = 0.5;

/**
 * Everything single that brings a load inside, each by the least amount, the smallest first: taking out, moving bags, ballast, less fuel (of all tanks by the same
 * part, never below `keepL`). What who flies weighs is not changed. Empty where nothing single helps, and where nothing is wrong.
 * The amounts are exact to half a kilogram: every half kilogram is looked at, but for those that cannot be enough, because a kilogram shifts the centre of gravity, and with its
 * mass the limit, by no more than so many millimetres. Complexity: O(stations² · kilograms · corners²), mostly far less.
 */
export function smallestChanges(
  profile: LoadingProfile,
  load: Load,
  burn: Burn,
  { keepL = 0 }: { keepL?: number } = {},
): LoadChange[] {
  const first = checkLoad(profile, load, burn);
  if (first.faults.length === 0) return [];
  const changes: LoadChange[] = [];
  const { lowKg, farMm, slope } = reachOf(profile, first);
  const mass = Math.max(0, ...first.faults.map((f) => (f.kind === "too heavy" ? (f.kg ?? 0) : 0)));
  /** `perKg`: by how many millimetres one kilogram of this change can move it against its limit at most. */
  const least = (
    most: number,
    from: number,
    perKg: number,
    changed: (x: number) => Load,
  ): number | undefined => {
    // Beginning at what the mass alone asks for.
    let x = Math.max(STEP_KG, upTo(from));
    while (x <= most + 1e-9) {
      const { faults } = checkLoad(profile, changed(x), burn);
      if (faults.length === 0) return x;
      const need = Math.max(STEP_KG, ...faults.map(({ kg, mm }) => kg ?? (mm ?? 0) / perKg));
      x = Math.max(x + STEP_KG, upTo(x + need));
    }
    return undefined;
  };
  const withStations = (change: Record<string, number>): Load => ({
    ...load,
    stations: Object.fromEntries(
      [...new Set([...Object.keys(load.stations), ...Object.keys(change)])].map((id) => [
        id,
        Math.max(0, (load.stations[id] ?? 0) + (change[id] ?? 0)),
      ]),
    ),
  });
  for (const from of profile.stations) {
    const there = load.stations[from.id] ?? 0;
    if (there <= 0 || from.pilot) continue;
    const out = least(there, mass, farMm(from.armMm) / Math.max(1, lowKg - there) + slope, (x) =>
      withStations({ [from.id]: -x }),
    );
    if (out !== undefined) changes.push({ do: "take out", from: from.id, kg: out });
    if (from.kind === "seat" || mass > 0) continue;
    for (const to of profile.stations) {
      if (to.id === from.id || to.kind === "seat") continue;
      const moved = least(there, 0, Math.abs(from.armMm - to.armMm) / lowKg, (x) =>
        withStations({ [from.id]: -x, [to.id]: x }),
      );
      if (moved !== undefined) changes.push({ do: "move", from: from.id, to: to.id, kg: moved });
    }
  }
  if (mass === 0)
    for (const to of profile.stations) {
      if (to.kind === "seat" && to.minKg === undefined) continue;
      const room = (to.maxKg ?? 200) - (load.stations[to.id] ?? 0);
      const put = least(room, 0, farMm(to.armMm) / lowKg + slope, (x) => withStations({ [to.id]: x }));
      if (put !== undefined) changes.push({ do: "put in ballast", to: to.id, kg: put });
    }
  const total = Object.values(load.litres).reduce((sum, l) => sum + l, 0);
  const spare = total - keepL;
  if (spare > 0) {
    const tankMm = Math.max(0, ...profile.tanks.map(({ armMm }) => farMm(armMm)));
    const kg = least(spare * load.kgPerL, mass, tankMm / lowKg + slope, (x) =>
      withFuel(load, 1 - x / load.kgPerL / total),
    );
    if (kg !== undefined) changes.push({ do: "less fuel", kg, litres: Math.ceil(kg / load.kgPerL) });
  }
  return changes.sort((a, b) => a.kg - b.kg);
}

/** The next half kilogram, a hair below counting as reached. */
const upTo = (kg: number): number => Math.ceil((kg - 1e-6) / STEP_KG) * STEP_KG;

/** How far anything can be shifted: the lightest that it is on the way, how far a place lies from the centre of gravity, and how steep the limits are, mm a kilogram. */
function reachOf({ envelope: { corners } }: LoadingProfile, { points }: LoadCheck) {
  const arms = points.map(armOf);
  const slopes = corners.map((a, i) => {
    const b = corners[(i + 1) % corners.length] ?? a;
    return a.kg === b.kg ? 0 : Math.abs((b.armMm - a.armMm) / (b.kg - a.kg));
  });
  return {
    lowKg: Math.min(...points.map(({ kg }) => kg)),
    farMm: (armMm: number) => Math.max(...arms.map((arm) => Math.abs(arm - armMm))),
    slope: Math.max(...slopes),
  };
}

const withFuel = (load: Load, part: number): Load => ({
  ...load,
  litres: Object.fromEntries(
    Object.entries(load.litres).map(([tank, litres]) => [tank, Math.max(0, litres * part)]),
  ),
});

/** How much more could go into one place, kg, or into all tanks by the same part, litres, before anything is wrong. */
export function roomIn(profile: LoadingProfile, load: Load, burn: Burn): { id: string; kg: number }[] {
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
