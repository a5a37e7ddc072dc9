/** Nothing that crosses the boundary is nested deeper; what is, is not even parsed. */
export const MAX_JSON_DEPTH = 64;

/**
 * Whether a JSON text opens more than so many brackets one inside the other, seen without parsing it: a parser takes a second over some million
 * of them. Complexity: O(characters), and it stops where they are too many.
 */
export function isDeeperThan(text: string, depth = MAX_JSON_DEPTH): boolean {
  let open = 0;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === 0x22) {
      // On to the end of the string: a quotation mark with an even number of backslashes before it.
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
