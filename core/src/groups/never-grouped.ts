import type { Item, ItemKind } from "../aircraft/aircraft-type";

/** Why a kind of item is never one part of several: its answer is more than "as it should be". */
const ALONE_BY_KIND: Partial<Record<ItemKind, string>> = {
  count: "Counts are asked separately.",
  pull: "Pulling the blades is asked separately.",
  time: "Timed items are done separately.",
  confirm: "A value to be read out is asked separately.",
  observe: "A known discrepancy is checked separately.",
};

/** The same of numbers, by the beginning of their names. */
const ALONE_READINGS = ["fuel.dip", "fuel.sight", "oil.level", "magneto."];

/**
 * Why an item is always asked by itself, in a sentence; undefined where it may be one part of a group. Never grouped: locks, ignition, pitot,
 * whatever goes into the ledger, counts, brakes, caps, dips, oil, cowl latches, selectors, seats, controls, trim, magnetos, landing gear, fold
 * flags, and what is held or needs two (common practice).
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
