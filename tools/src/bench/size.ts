/** Only run through once, to see that it runs: its figures mean nothing. `npm test` does so. */
export const TINY = process.argv[3] === "tiny";

/** How much of it: as a benchmark, or run through once. */
export const so = <T>(full: T, tiny: T): T => (TINY ? tiny : full);
