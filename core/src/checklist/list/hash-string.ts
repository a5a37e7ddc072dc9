/**
 * FNV-1a, 32 bit (published constants, from memory), then mixed so that strings with a common start get different hashes. Returns
 * an integer from 0 to 2³² − 1, always the same for the same string.
 */
export function hashString(words: string): number {
  let value = 0x811c9dc5;
  for (let i = 0; i < words.length; i++) value = Math.imul(value ^ words.charCodeAt(i), 0x01000193) >>> 0;
  value = Math.imul(value ^ (value >>> 16), 0x85ebca6b) >>> 0;
  return (value ^ (value >>> 13)) >>> 0;
}
