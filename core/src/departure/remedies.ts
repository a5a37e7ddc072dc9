import type { Runway } from "../aircraft/aircraft-type";
import { minimumFuelL, withFuel } from "../mass-and-balance/load-adjustments";
import { fuelAboard } from "../mass-and-balance/load-path";
import type { Load, LoadingProfile } from "../mass-and-balance/loading-profile";
import { calculateDeparture, type Departure, type DepartureInput } from "./calculate-departure";

/** One change that would make a departure fit. */
export type Remedy =
  | { do: "other runway"; runway: Runway }
  | { do: "cooler hour"; at: string; celsius: number }
  | { do: "less fuel"; litres: number }
  | { do: "leave behind"; station: string; kg: number };

/** True if all calculated distances and masses are within limits; values that could not be calculated count against it. */
export function fits(departure: Departure, needs: { performance: boolean }): boolean {
  if (departure.load && departure.load.faults.length > 0) return false;
  return !needs.performance || longEnough(departure);
}

function longEnough({ takeOff, landing, accelerateStop, climb }: Departure): boolean {
  if (!takeOff || !landing) return false;
  if (takeOff.leftM < 0 || landing.leftM < 0) return false;
  if (accelerateStop && accelerateStop.leftM < 0) return false;
  return climb?.aboveFt === undefined || climb.aboveFt >= 50;
}

const STEP_L = 1;
const STEP_KG = 1;

/**
 * Changes that each make the departure fit, smallest first: another runway costs nothing, a cooler hour costs time, then
 * reductions of mass. Empty if it fits already or no single change helps. Fuel is never reduced below taxi, trip and reserve.
 * `cooler`: later hours with their forecast temperature.
 * Valid range and errors: as `calculateDeparture`. Complexity: O(stations · log kilograms) calculations; after each reduction the
 * centre of gravity is checked again.
 */
export function remedies(
  input: DepartureInput,
  { cooler = [] }: { cooler?: readonly { at: string; celsius: number }[] } = {},
): Remedy[] {
  const needs = { performance: input.type.performance !== undefined };
  const good = (changed: Partial<DepartureInput>) =>
    fits(calculateDeparture({ ...input, ...changed }), needs);
  if (good({})) return [];
  const found: Remedy[] = [];
  for (const runway of input.airfield.runways)
    if (runway.id !== input.runway.id && good({ runway })) found.push({ do: "other runway", runway });
  const hour = cooler.find(({ celsius }) => celsius < (input.celsius ?? -99) && good({ celsius }));
  if (hour) found.push({ do: "cooler hour", ...hour });
  const { load, loading } = input;
  if (!load || !loading) return found;
  const fuel = fuelAboard(loading, load);
  const total = fuel.litres;
  const kgPerL = total > 0 ? fuel.kg / total : load.kgPerL;
  // Without a planned burn nobody knows how much fuel can be spared.
  const keepL = input.burn ? Math.min(total, minimumFuelL(input.burn)) : total;
  const places = placesOf(loading, load).filter(({ pilot }) => !pilot);
  const most = Math.max((total - keepL) * kgPerL, ...places.map(({ kg }) => kg), 0);
  const from = leastMass(input, loading, most);
  if (from === undefined) return found;
  const litres = least(total - keepL, STEP_L, from / kgPerL, (less) =>
    good({ load: withFuel(loading, load, 1 - less / total) }),
  );
  const lighter: (Remedy & { weighs: number })[] = [];
  if (litres !== undefined) lighter.push({ do: "less fuel", litres, weighs: litres * kgPerL });
  // A person left behind is not reported as missing.
  const { people: _, ...weights } = load;
  for (const { id, kg } of places) {
    const less = least(kg, STEP_KG, from, (away) =>
      good({ load: { ...weights, stations: { ...load.stations, [id]: kg - away } } }),
    );
    if (less !== undefined) lighter.push({ do: "leave behind", station: id, kg: less, weighs: less });
  }
  lighter.sort((a, b) => a.weighs - b.weighs);
  return [...found, ...lighter.map(({ weighs: _, ...one }) => one as Remedy)];
}

const placesOf = ({ stations }: LoadingProfile, load: Load) =>
  stations.flatMap(({ id, pilot }) => {
    const kg = load.stations[id] ?? 0;
    return kg > 0 ? [{ id, pilot, kg }] : [];
  });

/**
 * Minimum mass reduction for every distance and the maximum masses, kg, regardless of station. Undefined if even `most` is not
 * enough. The centre of gravity is checked afterwards.
 */
function leastMass(input: DepartureInput, loading: LoadingProfile, most: number): number | undefined {
  const { weighing } = loading;
  const enough = (less: number) => {
    const lighter = { ...loading, weighing: { ...weighing, emptyKg: weighing.emptyKg - less } };
    const departure = calculateDeparture({ ...input, loading: lighter });
    const heavy = departure.load?.faults.some(({ kind }) => kind === "too heavy");
    return !heavy && (!input.type.performance || longEnough(departure));
  };
  if (!enough(most)) return undefined;
  let [low, high] = [0, most];
  while (high - low > STEP_KG / 4) {
    const middle = (low + high) / 2;
    if (enough(middle)) high = middle;
    else low = middle;
  }
  return low;
}

/**
 * Smallest sufficient amount, searched in steps upward from a lower bound. Bisection could miss it, because removing mass can
 * move the centre of gravity out of limits again.
 */
function least(most: number, step: number, from: number, enough: (x: number) => boolean): number | undefined {
  for (let x = Math.max(step, Math.floor(from / step) * step); x < most + step; x += step) {
    const some = Math.min(x, most);
    if (some > 0 && enough(some)) return some;
  }
  return undefined;
}
