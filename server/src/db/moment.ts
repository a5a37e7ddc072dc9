/** Converts ISO time to the database's format and back. UTC with milliseconds. */
export const toDb = (iso: string): string => iso.slice(0, 23).replace("T", " ");
export const fromDb = (moment: string): string => `${moment.replace(" ", "T").padEnd(23, "0")}Z`;
export const fromDbOrNull = (moment: string | null): string | null =>
  moment === null ? null : fromDb(moment);
