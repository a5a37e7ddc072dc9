import type { AircraftType, Variant } from "./aircraft-type";

/**
 * The type as it is for one model year: where a variant covers the year, its limits take the place of the type's. The first that covers it
 * counts; a year that none covers leaves the type as it is. Never throws; the first variant that has the year counts.
 */
export function applyVariant(
  type: AircraftType,
  year: number,
): { type: AircraftType; variant?: Pick<Variant, "name" | "what"> } {
  const found = type.variants?.find(
    ({ years: { from = Number.NEGATIVE_INFINITY, to = Number.POSITIVE_INFINITY } }) =>
      year >= from && year <= to,
  );
  if (!found) return { type };
  const { id: _id, name, what, years: _years, ...limits } = found;
  return { type: { ...type, ...limits }, variant: { name, what } };
}
