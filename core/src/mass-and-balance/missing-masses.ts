import type { Load, LoadingProfile } from "./loading-profile";

/** Two people who weigh less than this together are rare; one who weighs more is too. Common practice: a light adult and a child. */
const TWO_PEOPLE_KG = 115;

/**
 * Who is aboard and has no mass: the pilot whose seat stands empty, and those of whom it is said that they come along while the seats hold one person's mass.
 * An empty seat is nobody; a pilot's cannot be. Nothing is put in a missing mass's place. Valid range: kilograms ≥ 0, as in `checkLoad`; `people` with the pilot.
 * Source: common practice (an actual mass of each person, none assumed).
 */
export function missingMasses(
  { stations }: Pick<LoadingProfile, "stations">,
  { stations: loaded, people = 1 }: Pick<Load, "stations" | "people">,
): string[] {
  const at = (id: string) => loaded[id] ?? 0;
  const pilots = stations.filter(({ id, pilot }) => pilot && at(id) === 0);
  if (pilots.length > 0) return pilots.map(({ name }) => `Enter the pilot's mass at ${name}.`);
  const seated = stations.filter(({ kind }) => kind === "seat").reduce((sum, { id }) => sum + at(id), 0);
  return people > 1 && seated < TWO_PEOPLE_KG
    ? [
        `${people === 2 ? "A passenger is" : `${people - 1} passengers are`} on board, but only ${Math.round(seated)} kg is entered for the seats. Enter the missing mass.`,
      ]
    : [];
}
