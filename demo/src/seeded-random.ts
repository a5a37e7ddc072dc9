/** Repeatable numbers for invented data (mulberry32): the same seed gives the same demo everywhere. */
export function seededRandom(seed: number) {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  return { next, bytes: (length: number) => Uint8Array.from({ length }, () => Math.floor(next() * 256)) };
}
