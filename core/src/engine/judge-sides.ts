import type { Judgement } from "../judgement/judgement";
import { formatQuantity, type Quantity } from "../units/format";

/** The same reading of a twin's two engines. */
export interface Sides {
  id: string;
  what: string;
  left: Quantity;
  right: Quantity;
}

/**
 * Usual maximum difference between two healthy engines of one type, in the unit of the reading (common practice, set wide: it
 * prompts a look, not a grounding).
 */
export const MAX_SIDE_DIFFERENCE: Readonly<Record<string, number>> = {
  "oil.temperature": 25,
  "oil.pressure": 12,
  "volts.charging": 0.6,
  "magneto.right": 50,
  "magneto.left": 50,
};

/**
 * Compares the two engines of a twin: even within limits, a difference may announce a fault. Watch beyond the usual difference,
 * otherwise within limits; undefined if no usual difference is known or the units differ. Source: common practice.
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
