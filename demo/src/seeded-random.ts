import { seededRandom as uniform } from "@cravix/core";

/** Repeatable numbers and bytes for invented data: the same seed gives the same demo everywhere. */
export function seededRandom(seed: number) {
  const next = uniform(seed);
  return { next, bytes: (length: number) => Uint8Array.from({ length }, () => Math.floor(next() * 256)) };
}
