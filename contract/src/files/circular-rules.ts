import type { AircraftType, OrderRule } from "@cravix/core/aircraft/aircraft-type";
import { waitsFor } from "@cravix/core/checklist/list/order-by-rules";

/**
 * Ordering rules that wait for each other, so that no order follows them: index of a rule of the circle and its items. Rules of
 * different methods never apply together. Complexity: O(methods · (items · rules)).
 */
export function circularRule({
  items,
  rules = [],
}: AircraftType): { rule: number; circle: string[] } | undefined {
  const methods = [...new Set(rules.map(({ method }) => method))];
  for (const method of methods) {
    const active = rules.flatMap((rule, i) =>
      rule.method === undefined || rule.method === method ? [{ rule, i }] : [],
    );
    const found = circleAmong(items, active);
    if (found) return found;
  }
  return undefined;
}

function circleAmong(items: AircraftType["items"], active: readonly { rule: OrderRule; i: number }[]) {
  const waiting = new Map<string, { item: string; rule: number }[]>();
  for (const { rule, i } of active)
    for (const item of items)
      if (waitsFor(rule, item))
        waiting.set(rule.first, [...(waiting.get(rule.first) ?? []), { item: item.id, rule: i }]);
  const done = new Set<string>();
  const visit = (item: string, path: readonly string[]): { rule: number; circle: string[] } | undefined => {
    if (done.has(item)) return undefined;
    for (const next of waiting.get(item) ?? []) {
      const at = path.indexOf(next.item);
      if (at >= 0) return { rule: next.rule, circle: path.slice(at) };
      const found = visit(next.item, [...path, next.item]);
      if (found) return found;
    }
    done.add(item);
    return undefined;
  };
  for (const item of waiting.keys()) {
    const found = visit(item, [item]);
    if (found) return found;
  }
  return undefined;
}
