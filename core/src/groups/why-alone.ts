import type { Item, ItemKind } from "../aircraft/aircraft-type";

/** Why a kind of item is never one part of several: its answer is more than "as it should be". */
const ALONE_BY_KIND: Partial<Record<ItemKind, string>> = {
  count: "What is counted is counted by itself.",
  pull: "Blade by blade, nothing beside it.",
  time: "What is held is held by itself.",
  confirm: "A value read out is an answer of its own.",
  observe: "What is known to be there is measured again by itself.",
};

/** The same of numbers, by the beginning of their names. */
const ALONE_READINGS = ["fuel.dip", "fuel.sight", "oil.level", "magneto."];

/**
 * Why an item is always asked by itself, in a sentence; undefined where it may be one part of a group. Never grouped: locks, ignition, pitot,
 * whatever goes into the ledger, counts, brakes, caps, dips, oil, cowl latches, selectors, seats, controls, trim, magnetos, landing gear, fold
 * flags, and what is held or needs two (common practice).
 */
export function whyAlone(
  item: Pick<Item, "kind" | "alone" | "ledger" | "second" | "drill" | "reading">,
): string | undefined {
  if (item.alone) return `Asked by itself: ${item.alone}.`;
  const kind = ALONE_BY_KIND[item.kind];
  if (kind) return kind;
  if (item.ledger) return "What comes off, on or open is put down by itself.";
  if (item.second) return "Two people do it together: nothing beside it.";
  if (item.drill) return "It is drilled on a page of its own.";
  if (item.reading && ALONE_READINGS.some((name) => item.reading?.key.startsWith(name)))
    return "A dip, the oil and a magneto are read by themselves.";
  return undefined;
}
