/** Converts ISO time to the database's format and back. UTC with milliseconds. */
export const toDb = (iso: string): string => iso.slice(0, 23).replace("T", " ");
export const fromDb = (moment: string): string => `${moment.replace(" ", "T").padEnd(23, "0")}Z`;
export const fromDbOrNull = (moment: string | null): string | null =>
  moment === null ? null : fromDb(moment);
/** For columns that may be empty. */
export const orNull = (iso: string | undefined): string | null => (iso === undefined ? null : toDb(iso));
/** A stored time with all its digits. */
export const dbMoment = (moment: string | null): string | null =>
  moment === null ? null : moment.padEnd(23, moment.length === 19 ? ".000" : "0").slice(0, 23);
