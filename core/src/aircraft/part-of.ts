import type { Item } from "./aircraft-type";

/** Part of the aircraft an item concerns, as logged in a discrepancy: "Left aileron"; the whole title if the file names no part. */
export const partOf = ({ part, title }: Pick<Item, "part" | "title">): string => part ?? title;

const LONGEST = 80;

/** Part from a title such as "Left aileron: gap and edges"; undefined if the title has none. */
export function partOfTitle(title: string): string | undefined {
  const end = title.indexOf(":");
  const part = (end < 0 ? title : title.slice(0, end)).trim().replace(/\?$/, "");
  return part === "" || part.length > LONGEST ? undefined : part;
}
