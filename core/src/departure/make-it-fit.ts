import type { Runway } from "../aircraft/aircraft-type";
import type { Load, LoadingProfile } from "../loading/loading-profile";
import { type Departure, type DepartureInput, reckonDeparture } from "./reckon";

/** One thing that would make a departure fit. */
export type Remedy =
  | { do: "other runway"; runway: Runway }
  | { do: "cooler hour"; at: string; celsius: number }
  | { do: "less fuel"; litres: number }
  | { do: "leave behind"; station: string; kg: number };

/** Whether everything that was reckoned is long enough and inside; what could not be reckoned does not speak for it. */
export function fits(departure: Departure, needs: { performance: boolean }): boolean {
  const { takeOff, landing, accelerateStop, climb, load } = departure;
  if (load && load.faults.length > 0) return false;
  if (!needs.performance) return true;
  if (!takeOff || !landing) return false;
  if (takeOff.leftM < 0 || landing.leftM < 0) return false;
  if (accelerateStop && accelerateStop.leftM < 0) return false;
  return climb?.aboveFt === undefined || climb.aboveFt >= 50;
}

const STEP_L = 1;
const STEP_KG = 1;

/**
 * What would make it fit, each by the least that is enough, the smallest of them first: another runway asks for nothing, a cooler hour for patience, then what is
 * lighter to leave. Empty where it fits, or nothing single helps. Less fuel never below `keepL`. `cooler`: later hours with their temperature, as the forecast has them.
 * Valid range and errors: as `reckonDeparture`. Complexity: O(stations · log kilograms) reckonings: less mass never makes it worse but for the centre of gravity, which is looked at again.
 */
export function remedies(
  input: DepartureInput,
  { keepL = 0, cooler = [] }: { keepL?: number; cooler?: readonly { at: string; celsius: number }[] } = {},
): Remedy[] {
  const needs = { performance: input.type.performance !== undefined };
  const good = (changed: Partial<DepartureInput>) => fits(reckonDeparture({ ...input, ...changed }), needs);
  if (good({})) return [];
  const found: Remedy[] = [];
  for (const runway of input.airfield.runways)
    if (runway.id !== input.runway.id && good({ runway })) found.push({ do: "other runway", runway });
  const hour = cooler.find(({ celsius }) => celsius < (input.celsius ?? -99) && good({ celsius }));
  if (hour) found.push({ do: "cooler hour", ...hour });
  const { load, loading } = input;
  if (!load || !loading) return found;
  const total = Object.values(load.litres).reduce((sum, litres) => sum + litres, 0);
  const litres = least(total - keepL, STEP_L, (less) => good({ load: drained(load, less / total) }));
  const lighter: (Remedy & { weighs: number })[] = [];
  if (litres !== undefined) lighter.push({ do: "less fuel", litres, weighs: litres * load.kgPerL });
  for (const { id, pilot, kg } of placesOf(loading, load)) {
    if (pilot) continue;
    const less = least(kg, STEP_KG, (away) =>
      good({ load: { ...load, stations: { ...load.stations, [id]: kg - away } } }),
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

const drained = (load: Load, part: number): Load => ({
  ...load,
  litres: Object.fromEntries(
    Object.entries(load.litres).map(([tank, litres]) => [tank, litres * (1 - part)]),
  ),
});

/** The least of an amount, in whole steps, that is enough. Looked for by steps: taking out can shift the centre of gravity out again, so halving would miss the least. */
function least(most: number, step: number, enough: (x: number) => boolean): number | undefined {
  for (let x = step; x < most + step; x += step) {
    const some = Math.min(x, most);
    if (some > 0 && enough(some)) return some;
  }
  return undefined;
}
