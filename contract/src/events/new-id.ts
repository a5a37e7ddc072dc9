import { v7 } from "uuid";

/**
 * A new time-ordered id. `msecs` is the device's clock; the random bytes may be given where a run has to be repeatable.
 */
export function newId(msecs: number, random?: Uint8Array): string {
  return v7({ msecs, ...(random && { random, seq: ((random[0] ?? 0) << 8) | (random[1] ?? 0) }) });
}

/** The milliseconds that a time-ordered id carries. */
export function idMsecs(id: string): number {
  return Number.parseInt(id.replace(/-/g, "").slice(0, 12), 16);
}
