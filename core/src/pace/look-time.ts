import type { Item, ItemKind } from "../aircraft/aircraft-type";

/**
 * Minimum seconds to do an item: reach, look and press (common practice, deliberately short, so that nobody who looked is accused
 * of rushing).
 */
const LEAST: Record<ItemKind, number> = {
  look: 1,
  feel: 1.5,
  count: 0.8,
  measure: 3,
  set: 0.8,
  remove: 2.5,
  sample: 6,
  pull: 6,
  choice: 0.6,
  time: 0,
  confirm: 2,
  observe: 1.5,
};
/** Per counted thing (common practice). */
const EACH = 0.25;

/** Minimum seconds for an item. Valid range: any item; a held one takes as long as it is held. */
export function minimumSeconds(item: Pick<Item, "kind" | "expected" | "seconds">): number {
  if (item.kind === "time") return item.seconds ?? 0;
  return LEAST[item.kind] + (item.kind === "count" ? EACH * (item.expected ?? 1) : 0);
}
