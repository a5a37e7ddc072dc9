import { seededRandom as uniform } from "@cravix/core/units/seeded-random";

/** Deterministic numbers and bytes for invented data. */
export function seededRandom(seed: number) {
  const next = uniform(seed);
  return { next, bytes: (length: number) => Uint8Array.from({ length }, () => Math.floor(next() * 256)) };
}
