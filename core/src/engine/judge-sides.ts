import type { Judgement } from "../judgement/judgement";
import { formatQuantity, type Quantity } from "../units/format";

/** What two engines of one kind show of the same thing. */
export interface Sides {
  id: string;
  what: string;
  left: Quantity;
  right: Quantity;
}

/**
 * How far two healthy engines of one type stand apart, in the unit of the reading (common practice, set wide: what is here is looked at, not grounded).
 */
export const MAX_SIDE_DIFFERENCE: Readonly<Record<string, number>> = {
  "oil.temperature": 25,
  "oil.pressure": 12,
  "volts.charging": 0.6,
  "magneto.right": 50,
  "magneto.left": 50,
};

/**
 * Judges the sides of a twin against each other: each within its own limit, they can still stand apart, and the one that does is about to say
 * something. Watch beyond the usual distance, within limits else; undefined where no distance is known or the units differ. Source: common practice.
 */
export function judgeSides({ id, what, left, right }: Sides): Judgement | undefined {
  const most = MAX_SIDE_DIFFERENCE[id];
  if (most === undefined || left.unit !== right.unit) return undefined;
  const apart = Math.abs(left.value - right.value);
  const distance = formatQuantity({ value: apart, unit: left.unit });
  const both = `Left ${formatQuantity(left)}, right ${formatQuantity(right)}`;
  const base = {
    id: `sides.${id}`,
    subject: `${what}, left and right`,
    scope: "aircraft",
    reading: { value: apart, unit: left.unit },
    limit: `difference at most ${formatQuantity({ value: most, unit: left.unit })}`,
    margin: { value: most - apart, unit: left.unit },
    source: {
      kind: "common practice",
      text: "two engines of the same type read about the same",
      example: true,
    },
  } as const;
  return apart > most
    ? {
        ...base,
        grade: "watch",
        sentence: `${both}: ${distance} difference.`,
        action: "Read both again. If the difference remains, have the engine that changed checked.",
      }
    : { ...base, grade: "within limits", sentence: `${both}: about the same.` };
}
