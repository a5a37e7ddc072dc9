import { v7 } from "uuid";

/** Creates a time-ordered id. `msecs` is the device's clock; random bytes can be given for repeatable runs. */
export function newId(msecs: number, random?: Uint8Array): string {
  return v7({ msecs, ...(random && { random, seq: ((random[0] ?? 0) << 8) | (random[1] ?? 0) }) });
}

/** Milliseconds encoded in a time-ordered id. */
export function idMsecs(id: string): number {
  return Number.parseInt(id.replace(/-/g, "").slice(0, 12), 16);
}
