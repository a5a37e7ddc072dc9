/**
 * Records by id that grow with every answer and are copied at each. Without a prototype: an item may be named "constructor", and engines keep
 * such records as hash tables from the start, so that a copy of some hundred costs a tenth of a spread.
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
