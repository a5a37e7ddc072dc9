import type { Item } from "../../aircraft/aircraft-type";
import { hashString } from "./hash-string";

/** Items asked by value per preflight: enough to make looking worthwhile, few enough to stay quick. */
const ASKED_A_DAY = 3;

/**
 * Turns some items that can be proven by a value into confirm items. The choice is unpredictable, but the same seed always gives
 * the same one. Without a seed, or without the fact on file, items are unchanged.
 */
export function withValueChecks(
  items: readonly Item[],
  facts: Readonly<Record<string, string>> | undefined,
  seed: string | undefined,
): { items: Item[]; asked: string[] } {
  if (seed === undefined) return { items: [...items], asked: [] };
  const asked = items
    .filter((item) => item.proof && facts?.[item.proof.fact] !== undefined)
    .map((item) => ({ id: item.id, chance: hashString(`${seed}?${item.id}`) }))
    .sort((a, b) => a.chance - b.chance)
    .slice(0, ASKED_A_DAY)
    .map(({ id }) => id);
  const chosen = new Set(asked);
  return {
    items: items.map((item) =>
      item.proof && chosen.has(item.id) ? { ...item, kind: "confirm" as const, confirm: item.proof } : item,
    ),
    asked,
  };
}
