import type { Item, ItemKind } from "../aircraft/aircraft-type";

/** Why items of a kind are never grouped: the answer is more than "serviceable". */
const ALONE_BY_KIND: Partial<Record<ItemKind, string>> = {
  count: "Counts are asked separately.",
  pull: "Pulling the blades is asked separately.",
  time: "Timed items are done separately.",
  confirm: "A value to be read out is asked separately.",
  observe: "A known discrepancy is checked separately.",
};

/** The same for readings, by prefix. */
const ALONE_READINGS = ["fuel.dip", "fuel.sight", "oil.level", "magneto."];

/**
 * Why an item is always asked alone, in a sentence; undefined if it may be grouped. Never grouped: locks, ignition, pitot,
 * anything that must be put back, counts, brakes, caps, dips, oil, cowl latches, selectors, seats, controls, trim, magnetos,
 * landing gear, fold flags, and items that are held or need two people (common practice).
 */
export function neverGroupedReason(
  item: Pick<Item, "kind" | "alone" | "ledger" | "second" | "drill" | "reading">,
): string | undefined {
  if (item.alone) return `Asked separately: ${item.alone}.`;
  const kind = ALONE_BY_KIND[item.kind];
  if (kind) return kind;
  if (item.ledger) return "Anything removed, switched on or opened is logged on its own.";
  if (item.second) return "An item that needs two people is asked separately.";
  if (item.drill) return "This item has its own page.";
  if (item.reading && ALONE_READINGS.some((name) => item.reading?.key.startsWith(name)))
    return "Dips, oil level and magnetos are read separately.";
  return undefined;
}
