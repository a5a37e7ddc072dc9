import type { Unit } from "./convert";

/** A number with its unit. */
export interface Quantity {
  value: number;
  unit: Unit;
}

/** Decimals readable on the usual scale of a unit; more would suggest false precision. */
const DECIMALS: Partial<Record<Unit, number>> = {
  cm: 1,
  "US qt": 1,
  V: 1,
  Ah: 1,
  inHg: 2,
  h: 1,
  L: 0,
  in: 1,
};

/**
 * Formats a number with its unit, thousands separators and a minus sign, rounded to the scale's precision. From 60 minutes on,
 * hours and minutes. Valid range: any finite number.
 * @example formatQuantity({ value: 1800, unit: "rpm" }) // "1,800 rpm"
 * @example formatQuantity({ value: 95, unit: "min" }) // "1 h 35 min"
 */
export function formatQuantity({ value, unit }: Quantity): string {
  if (unit === "min" && Math.abs(value) >= 59.5) {
    const minutes = Math.round(Math.abs(value));
    return `${value < 0 ? "−" : ""}${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, "0")} min`;
  }
  const number = formatNumber(value, DECIMALS[unit] ?? 0);
  if (unit === "count") return number;
  return unit === "°" ? `${number}°` : `${number} ${unit}`;
}

/**
 * Formats a number with thousands separators and a minus sign. Valid range: `decimals` from 0 to 20. A value that rounds to zero
 * has no sign.
 */
export function formatNumber(value: number, decimals = 0): string {
  const text = Math.abs(value).toFixed(decimals);
  const sign = value < 0 && Number(text) !== 0 ? "−" : "";
  const [whole = "0", fraction] = decimals === 0 ? [text] : text.split(".");
  const grouped = whole.length > 3 ? whole.replace(/\B(?=(\d{3})+$)/g, ",") : whole;
  return `${sign}${grouped}${fraction ? `.${fraction}` : ""}`;
}

/** Capitalises the first letter. */
export function capital(text: string): string {
  return text.slice(0, 1).toUpperCase() + text.slice(1);
}
