/**
 * Conversion between common aviation units. Every factor is exact or to the last digit of NIST SP 811, appendix B (values from
 * memory, checked in the tests against an independent units library).
 */
const QUANTITIES = {
  volume: { L: 1, "US gal": 3.785411784, "imp gal": 4.54609, "US qt": 0.946352946 },
  mass: { kg: 1, lb: 0.45359237 },
  length: { m: 1, cm: 0.01, mm: 0.001, ft: 0.3048, in: 0.0254, NM: 1852 },
  speed: { "m/s": 1, kt: 1852 / 3600, "km/h": 1 / 3.6 },
  pressure: { hPa: 1, inHg: 33.8639, psi: 68.9475729 },
  time: { s: 1, min: 60, h: 3600 },
} as const;

const BY_UNIT = new Map<string, { quantity: string; factor: number }>();
for (const [quantity, units] of Object.entries(QUANTITIES))
  for (const [unit, factor] of Object.entries(units)) BY_UNIT.set(unit, { quantity, factor });

/** Units without a conversion factor, or with an offset. */
export const PLAIN_UNITS = ["rpm", "V", "A", "Ah", "°", "°C", "°F", "drops", "count", "ft/min", "%"] as const;
export type ConvertibleUnit = {
  [Q in keyof typeof QUANTITIES]: keyof (typeof QUANTITIES)[Q];
}[keyof typeof QUANTITIES];
export type Unit = ConvertibleUnit | (typeof PLAIN_UNITS)[number];
export const UNITS: readonly Unit[] = [...(BY_UNIT.keys() as Iterable<ConvertibleUnit>), ...PLAIN_UNITS];

/** A value that cannot be used, with a message that says what to do. */
export class QuantityError extends RangeError {
  override readonly name = "QuantityError";
}

/** Rejects anything but finite numbers. `what` names the quantity. Throws QuantityError. */
export function assertFinite(what: string, value: number): void {
  if (typeof value !== "number" || !Number.isFinite(value))
    throw new QuantityError(`${what} is not a number.`);
}

/** Rejects negative or non-finite values. `what` names the quantity. Throws QuantityError. */
export function assertNotNegative(what: string, value: number): void {
  assertFinite(what, value);
  if (value < 0) throw new QuantityError(`${what} cannot be negative.`);
}

/**
 * Converts `value` from one unit to another of the same quantity, temperatures included.
 * Valid range: any finite number. Throws QuantityError for a value that is not finite or for units of different
 * quantities. Source: NIST SP 811, appendix B.
 * @example convert(10, "US gal", "L") // 37.85411784
 */
export function convert(value: number, from: Unit, to: Unit): number {
  assertFinite("The value", value);
  if (from === to) return value;
  if (from === "°C" && to === "°F") return value * 1.8 + 32;
  if (from === "°F" && to === "°C") return (value - 32) / 1.8;
  const a = BY_UNIT.get(from);
  const b = BY_UNIT.get(to);
  if (!a || !b || a.quantity !== b.quantity) throw new QuantityError(`${from} cannot be converted to ${to}.`);
  return (value * a.factor) / b.factor;
}

/**
 * Value of a quantity in the wanted unit. `what` names it in the message.
 * Valid range: any finite number. Throws QuantityError for non-finite numbers and incompatible units.
 * Source: as `convert`.
 */
export function valueIn(what: string, { value, unit }: { value: number; unit: Unit }, wanted: Unit): number {
  assertFinite(what, value);
  if (!isConvertible(unit, wanted))
    throw new QuantityError(`${what} is in ${unit}, but ${wanted} is needed.`);
  return convert(value, unit, wanted);
}

/** True if units are of the same quantity. */
export function isConvertible(from: Unit, to: Unit): boolean {
  if (from === to || (TEMPERATURES.has(from) && TEMPERATURES.has(to))) return true;
  const quantity = BY_UNIT.get(from)?.quantity;
  return quantity !== undefined && quantity === BY_UNIT.get(to)?.quantity;
}

const TEMPERATURES: ReadonlySet<Unit> = new Set(["°C", "°F"]);
