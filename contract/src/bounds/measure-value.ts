/** How large a value may be before anybody looks at what it says. */
export interface Bounds {
  depth: number;
  values: number;
  text: number;
  /** Whether every number must be one that can be written down again; where each field is checked by itself, the field says so. */
  finite?: boolean;
}

/** An event is small: the largest is the outline of a run-up's trace. */
export const EVENT_BOUNDS: Bounds = { depth: 8, values: 6000, text: 8000 };
/** A file of a type with five thousand items, each with its words. */
export const FILE_BOUNDS: Bounds = { depth: 16, values: 400_000, text: 20_000, finite: true };

/**
 * What of a value is beyond the bounds, in words that repeat nothing of it; undefined where it is within them. Never deeper into the value than
 * the bounds go, so that nothing that recurses comes after it unprepared. Complexity: O(values), stops at the first bound.
 */
export function boundsViolation(value: unknown, { depth, values, text, finite }: Bounds): string | undefined {
  let open: unknown[] = [value];
  let seen = 0;
  for (let level = 0; open.length > 0; level++) {
    if (level > depth) return `at most ${depth} levels of nesting`;
    const inner: unknown[] = [];
    for (const one of open) {
      if (++seen > values) return `at most ${values} values`;
      if (typeof one === "string") {
        if (one.length > text) return `texts of at most ${text} characters`;
      } else if (typeof one === "number") {
        // 1e999 is read as infinite, and cannot be written down again: no hash, no record.
        if (finite && !Number.isFinite(one)) return "finite numbers only";
      } else if (Array.isArray(one)) {
        if (one.length > values) return `at most ${values} values`;
        for (const part of one) inner.push(part);
      } else if (typeof one === "object" && one !== null) {
        const names = Object.keys(one);
        if (names.length > values) return `at most ${values} values`;
        for (const name of names) {
          if (name.length > text) return `field names of at most ${text} characters`;
          inner.push((one as Record<string, unknown>)[name]);
        }
      }
    }
    open = inner;
  }
  return undefined;
}
