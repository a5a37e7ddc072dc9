/** Size limits checked before the content. */
export interface Bounds {
  depth: number;
  values: number;
  text: number;
  /** Require finite numbers; not needed if each field checks itself. */
  finite?: boolean;
}

/** Events are small: the largest holds a run-up plot. */
export const EVENT_BOUNDS: Bounds = { depth: 12, values: 6000, text: 8000 };
/** Enough for a type with five thousand items. */
export const FILE_BOUNDS: Bounds = { depth: 16, values: 400_000, text: 20_000, finite: true };

/**
 * The limit a value exceeds, in words that repeat none of it; undefined if within limits. Recurses no deeper than the limit, so
 * that later code is safe. Complexity: O(values), stopping at the first violation.
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
        // 1e999 parses as infinity, which JSON cannot represent.
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
