/** What stands where something was nested deeper than anything that is sent: no field takes it for what it wants. */
const CUT = "nested too deep";

/** A value without what lies deeper than so many levels. Nothing else of it changes, so that the fault is found where it is. */
export function flattened(value: unknown, levels: number): unknown {
  if (typeof value !== "object" || value === null) return value;
  if (levels <= 0) return CUT;
  if (Array.isArray(value)) return value.map((inner) => flattened(inner, levels - 1));
  return Object.fromEntries(
    Object.entries(value).map(([name, inner]) => [name, flattened(inner, levels - 1)]),
  );
}
