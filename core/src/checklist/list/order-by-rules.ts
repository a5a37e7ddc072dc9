import type { Item, OrderRule } from "../../aircraft/aircraft-type";

/** Whether this item has to wait for the first part of a rule. */
export function waitsFor({ first, waits }: OrderRule, item: Item): boolean {
  if (item.id === first) return false;
  return Boolean(waits.items?.includes(item.id) || (waits.touches && item.touches?.includes(waits.touches)));
}

/**
 * The items of one station in their own order, changed only where a rule asks for it: the first part of a rule is moved in front of
 * what waits for it. Rules that go round in a circle leave the order as it is. Complexity: O(items · rules) where nothing moves.
 */
export function orderByRules(items: readonly Item[], rules: readonly OrderRule[]): Item[] {
  const order = [...items];
  // Each pass mends one breach; more passes than pairs means a circle.
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
