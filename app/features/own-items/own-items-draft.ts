import { contentHash } from "@cravix/contract/content-hash";
import type { Aircraft, OwnItem } from "@cravix/core/aircraft/aircraft-type";
import { partOfTitle } from "@cravix/core/aircraft/part-of";
import type { Entry } from "../../ui/form/form-faults";

export interface OwnItemsDraft {
  items: OwnItem[];
  /** Version the draft is based on, so that another change is not overwritten; "" until something is changed. */
  basis: string;
}

/** Items as saved: empty optional texts are left out, and a new title names its part. */
export function savedItems(known: readonly OwnItem[], items: readonly OwnItem[]): OwnItem[] {
  return items.map(({ bad, expected, part, ...item }) => {
    const before = known.find(({ id }) => id === item.id);
    const named = before?.title === item.title ? part : partOfTitle(item.title);
    return {
      ...item,
      ...(bad !== undefined && bad !== "" && { bad }),
      ...(item.kind === "count" && { expected: expected ?? 1 }),
      ...(named !== undefined && { part: named }),
    };
  });
}

/** The aircraft's file with these items, or what its schema says is wrong with them. */
export async function fileOf(aircraft: Aircraft, draft: OwnItemsDraft): Promise<Entry<{ text: string }>> {
  const file: Aircraft = { ...aircraft, ownItems: savedItems(aircraft.ownItems, draft.items) };
  const text = JSON.stringify(file);
  const { readFileText } = await import("@cravix/contract/schemas");
  const reading = readFileText(text);
  if (!("faults" in reading)) return { data: { text } };
  return {
    faults: reading.faults.map(({ path, expected }) => ({
      at: path.startsWith("ownItems[") ? path.replace("ownItems", "items") : "root",
      words: expected,
    })),
  };
}

/** A new item at a station, with everything still to be entered. */
export const newItem = (id: string, station: string): OwnItem => ({
  id,
  station,
  kind: "look",
  title: "",
  good: "",
  why: "",
  miss: "ask",
});

/** The version of the aircraft that a draft begins from. */
export const basisOf = (aircraft: Aircraft): string => contentHash(aircraft);
