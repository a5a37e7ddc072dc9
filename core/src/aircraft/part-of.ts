import type { Item } from "./aircraft-type";

/** What of the aircraft an item is about, as a discrepancy is logged: "Left aileron"; the whole title where the file names no part. */
export const partOf = ({ part, title }: Pick<Item, "part" | "title">): string => part ?? title;

const LONGEST = 80;

/** The part as a title is commonly written, "Left aileron: gap and edges"; undefined where there is none to tell. */
export function partOfTitle(title: string): string | undefined {
  const end = title.indexOf(":");
  const part = (end < 0 ? title : title.slice(0, end)).trim().replace(/\?$/, "");
  return part === "" || part.length > LONGEST ? undefined : part;
}
