/** Trial run, which only shows that the benchmark works. Used by `npm test`. */
export const TINY = process.argv[3] === "tiny";

/** Size for the benchmark or the trial run. */
export const so = <T>(full: T, tiny: T): T => (TINY ? tiny : full);
