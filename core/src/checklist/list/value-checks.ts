import type { Item } from "../../aircraft/aircraft-type";
import { hashString } from "./hash-string";

/** How many items are asked by their value on one day: enough that looking is worth it, few enough to stay quick. */
const ASKED_A_DAY = 3;

/**
 * Turns some of the items that can be proven by a value into confirming ones: which, nobody can foresee, and the same seed always
 * gives the same. Without a seed, and for facts that this aircraft has not on file, every item stays as it is.
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
