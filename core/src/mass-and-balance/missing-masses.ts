import type { Load, LoadingProfile } from "./loading-profile";

/** Combined mass that suggests one person rather than two. Common practice: a light adult and a child. */
const TWO_PEOPLE_KG = 115;

/**
 * Masses that cannot be placed: at a place that the file does not know, and people on board without a mass: a pilot whose seat is empty, and announced passengers while the seats hold one person's mass.
 * An empty passenger seat is fine. Missing masses are never assumed. Valid range: kilograms ≥ 0, as in `checkLoad`; `people`
 * includes the pilot.
 * Source: common practice (an actual mass for each person).
 */
export function missingMasses(
  { stations }: Pick<LoadingProfile, "stations">,
  { stations: loaded, people = 1 }: Pick<Load, "stations" | "people">,
): string[] {
  const at = (id: string) => loaded[id] ?? 0;
  const known = new Set(stations.map(({ id }) => id));
  const elsewhere = Object.entries(loaded).filter(([id, kg]) => kg > 0 && !known.has(id));
  if (elsewhere.length > 0)
    return elsewhere.map(
      ([id, kg]) =>
        `${Math.round(kg)} kg is entered at “${id}”, which is not a place in this aircraft's loading file. Enter it at a place that is.`,
    );
  const pilots = stations.filter(({ id, pilot }) => pilot && at(id) === 0);
  if (pilots.length > 0) return pilots.map(({ name }) => `Enter the pilot's mass at ${name}.`);
  const seated = stations.filter(({ kind }) => kind === "seat").reduce((sum, { id }) => sum + at(id), 0);
  return people > 1 && seated < TWO_PEOPLE_KG
    ? [
        `${people === 2 ? "A passenger is" : `${people - 1} passengers are`} on board, but only ${Math.round(seated)} kg is entered for the seats. Enter the missing mass.`,
      ]
    : [];
}
