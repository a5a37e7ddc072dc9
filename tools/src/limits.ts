/** A limit on the size of code that is exceeded, as the linter reports it. */
export interface Excess {
  file: string;
  limit: LimitName;
  figure: number;
}

/** Code from before the limits: how often and by how much a file exceeds one, and why it still does. */
export interface LimitException {
  file: string;
  limit: LimitName;
  times: number;
  most: number;
  why: string;
}

export type LimitName = "complexity" | "lines of a function" | "lines of a file";

const LIMITS: Readonly<Record<string, LimitName>> = {
  "lint/complexity/noExcessiveCognitiveComplexity": "complexity",
  "lint/complexity/noExcessiveLinesPerFunction": "lines of a function",
  "lint/nursery/noExcessiveLinesPerFile": "lines of a file",
};

/** Reads the linter's report. Throws if a message has no figure: its wording has changed. */
export function excesses(
  diagnostics: readonly { category: string; message: string; location: { path: string } }[],
): Excess[] {
  return diagnostics.flatMap(({ category, message, location }) => {
    const limit = LIMITS[category];
    if (limit === undefined) return [];
    const figure = Number(/ of (\d+) |\((\d+)\)/.exec(message)?.slice(1).find(Boolean));
    if (!Number.isFinite(figure)) throw new Error(`No figure in the linter's message: ${message}`);
    return [{ file: location.path, limit, figure }];
  });
}

/**
 * What is wrong: code that exceeds a limit without an exception or beyond it, and exceptions that are larger than needed. The list
 * only shrinks.
 */
export function limitFaults(found: readonly Excess[], exceptions: readonly LimitException[]): string[] {
  const keyOf = ({ file, limit }: Pick<Excess, "file" | "limit">) => `${file}: ${limit}`;
  const figures = new Map<string, number[]>();
  for (const one of found) figures.set(keyOf(one), [...(figures.get(keyOf(one)) ?? []), one.figure]);
  const known = new Map(exceptions.map((one) => [keyOf(one), one]));
  const faults: string[] = [];
  for (const [key, all] of figures) {
    const exception = known.get(key);
    const most = Math.max(...all);
    if (!exception) faults.push(`${key} ${most} exceeds the limit. Split it.`);
    else if (most > exception.most || all.length > exception.times)
      faults.push(`${key} ${most}, ${all.length} times, has grown beyond its exception. Split it.`);
    else if (most < exception.most || all.length < exception.times)
      faults.push(`${key} is now ${most}, ${all.length} times. Lower its exception.`);
  }
  for (const key of known.keys())
    if (!figures.has(key)) faults.push(`${key} is within the limit. Remove its exception.`);
  return faults;
}
