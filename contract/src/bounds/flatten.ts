/** Replacement for values nested too deep; no field accepts it. */
const CUT = "nested too deep";

/** Cuts a value at a nesting depth. Nothing else changes, so that faults are found in place. */
export function flattened(value: unknown, levels: number): unknown {
  if (typeof value !== "object" || value === null) return value;
  if (levels <= 0) return CUT;
  if (Array.isArray(value)) return value.map((inner) => flattened(inner, levels - 1));
  return Object.fromEntries(
    Object.entries(value).map(([name, inner]) => [name, flattened(inner, levels - 1)]),
  );
}
