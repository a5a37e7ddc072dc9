import type { AircraftType, Variant } from "./aircraft-type";

/**
 * Applies the variant of one model year: its limits replace the type's. The first variant that covers the year counts; without
 * one the type is returned unchanged. Never throws.
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
