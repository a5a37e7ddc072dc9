/** What is said anew of something; undefined takes away what was said before. */
export type Change<T> = { [K in keyof T]?: T[K] | undefined };

/** The same with what was said anew; what was taken away is not there any more. */
export function applyPatch<T extends object>(before: T, change: Change<T>): T {
  return Object.fromEntries(
    Object.entries({ ...before, ...change }).filter(([, value]) => value !== undefined),
  ) as T;
}
