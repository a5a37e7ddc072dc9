import { assertFinite, QuantityError, type Unit } from "./convert";
import { formatQuantity } from "./format";

/** Range an instrument or dipstick can show, and why. A number outside is an error, not a reading. */
export interface Plausible {
  min: number;
  max: number;
  why: string;
}

/** Widest range for this unit in a light aircraft (common practice, deliberately generous). */
const WIDEST: Record<Unit, readonly [number, number]> = {
  rpm: [0, 8000],
  "US qt": [0, 30],
  "US gal": [0, 400],
  L: [0, 1500],
  cm: [0, 300],
  mm: [0, 2000],
  in: [0, 120],
  psi: [0, 3000],
  hPa: [850, 1090],
  inHg: [0, 40],
  "°C": [-60, 1000],
  "°F": [-80, 1900],
  V: [0, 40],
  A: [-150, 150],
  Ah: [0, 500],
  kt: [0, 150],
  ft: [-1500, 20000],
  "°": [0, 360],
  h: [0, 100000],
  min: [0, 6000],
  "%": [0, 100],
  kg: [0, 6000],
  lb: [0, 13000],
  "imp gal": [0, 400],
  drops: [0, 600],
  count: [0, 1000],
  m: [-500, 10_000],
  NM: [0, 1000],
  "m/s": [-50, 80],
  "km/h": [0, 400],
  s: [0, 86_400],
  "ft/min": [-6000, 6000],
};

/**
 * Rejects a number that this instrument, or any light aircraft, cannot show: throws QuantityError with the reason.
 * Valid range: the item's own plausible range, otherwise the widest for the unit.
 */
export function assertPlausible(what: string, value: number, unit: Unit, own?: Plausible): void {
  assertFinite(what, value);
  const [min, max] = own ? [own.min, own.max] : WIDEST[unit];
  if (value >= min && value <= max) return;
  const side = value < min ? "below" : "above";
  const end = formatQuantity({ value: value < min ? min : max, unit });
  throw new QuantityError(
    `${formatQuantity({ value, unit })} is ${side} the possible range (${end}). ${own?.why ?? "Read it again."}`,
  );
}
