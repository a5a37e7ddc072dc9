/** A patch; `undefined` removes a field. */
export type Change<T> = { [K in keyof T]?: T[K] | undefined };

/** Applies a patch; `undefined` removes a field. */
export function applyPatch<T extends object>(before: T, change: Change<T>): T {
  return Object.fromEntries(
    Object.entries({ ...before, ...change }).filter(([, value]) => value !== undefined),
  ) as T;
}
