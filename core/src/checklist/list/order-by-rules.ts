import type { Item, OrderRule } from "../../aircraft/aircraft-type";

/** True if this item must wait for the first part of a rule. */
export function waitsFor({ first, waits }: OrderRule, item: Item): boolean {
  if (item.id === first) return false;
  return Boolean(waits.items?.includes(item.id) || (waits.touches && item.touches?.includes(waits.touches)));
}

/**
 * Orders the items of one station by the rules: the first part of a rule moves in front of the items that wait for it; otherwise
 * the order is kept. Circular rules leave the order unchanged. Complexity: O(items · rules) if nothing moves.
 */
export function orderByRules(items: readonly Item[], rules: readonly OrderRule[]): Item[] {
  const order = [...items];
  // Each pass fixes one breach; more passes than pairs means a circle.
  for (let turn = 0; turn < items.length * Math.max(1, rules.length); turn++) {
    const moved = rules.some((rule) => {
      const at = order.findIndex((item) => item.id === rule.first);
      const waiting = order.findIndex((item) => waitsFor(rule, item));
      if (at < 0 || waiting < 0 || waiting > at) return false;
      const [first] = order.splice(at, 1);
      if (first) order.splice(waiting, 0, first);
      return true;
    });
    if (!moved) return order;
  }
  return [...items];
}
