/** Maximum nesting of input; deeper JSON is not parsed. */
export const MAX_JSON_DEPTH = 64;

/**
 * True if a JSON text is nested deeper than this, without parsing it: a parser takes a second for millions of brackets.
 * Complexity: O(characters), stopping at the first excess.
 */
export function isDeeperThan(text: string, depth = MAX_JSON_DEPTH): boolean {
  let open = 0;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === 0x22) {
      // Skip to the end of the string: a quotation mark after an even number of backslashes.
      let end = i;
      let escaped = true;
      while (escaped) {
        end = text.indexOf('"', end + 1);
        if (end < 0) return false;
        let slashes = 0;
        while (text.charCodeAt(end - 1 - slashes) === 0x5c) slashes++;
        escaped = slashes % 2 === 1;
      }
      i = end;
    } else if (code === 0x5b || code === 0x7b) {
      if (++open > depth) return true;
    } else if (code === 0x5d || code === 0x7d) open--;
  }
  return false;
}
