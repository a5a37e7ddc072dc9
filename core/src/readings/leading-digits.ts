import type { Unit } from "../units/convert";

/** Expected range of a number, whose leading digits need not be entered. */
export interface Expected {
  /** Digits common to every number in the range. */
  start: string;
  from: number;
  to: number;
  /** The last digit is always a tenth: its point need not be entered. */
  tenths?: boolean;
}

/** Expected range from the last reading of a unit, relative or absolute (common practice). */
const REACH: Partial<Record<Unit, (last: number) => [from: number, to: number]>> = {
  // An hour meter only goes forward.
  h: (last) => [last, last + 10],
  hPa: (last) => [last - 12, last + 12],
  V: (last) => [last * 0.94, last * 1.06],
  // From the run-up rpm downwards, and slightly above it.
  rpm: (last) => [last * 0.85, last * 1.05],
};
/** Digits that are entered without help. */
const EASY = 3;

/**
 * Leading digits that a reading certainly has, from the previous one: the thousands of an hour meter, the "10" of a pressure
 * setting. They reveal nothing that could be copied instead of read. Undefined if all digits may differ, without a previous
 * reading, or for a short number. Units: h, hPa, V, rpm. Source: common practice.
 */
export function leadingDigits(
  { unit, decimals }: { unit: Unit; decimals: number },
  last: number | undefined,
): Expected | undefined {
  const reach = REACH[unit];
  if (!reach || last === undefined || !(last > 0)) return undefined;
  const [from, to] = reach(last);
  const low = String(Math.floor(from));
  const high = String(Math.floor(to));
  if (low.length !== high.length || low.length + (decimals > 0 ? 1 + decimals : 0) <= EASY) return undefined;
  let start = "";
  while (start.length < low.length - 1 && low[start.length] === high[start.length])
    start += low[start.length];
  return start === ""
    ? undefined
    : { start, from, to, ...(unit === "h" && decimals === 1 && { tenths: true }) };
}

/** Interpretation of the entered digits: the completed prefix, and the digits as entered. */
export interface Typed {
  start: string;
  rest: string;
}

/**
 * Interprets entered digits, with the leading digits or as a whole number: whichever is in the expected range, the whole number
 * first; for an hour meter, also without its decimal point. If neither is (a dead magneto, a flat battery), the digits count as
 * entered.
 * Valid range: digits with a point or minus; an unfinished number is shown behind the leading digits.
 */
export function typedText(text: string, expected: Expected | undefined): Typed {
  const whole = { start: "", rest: text };
  if (!expected) return whole;
  const { start, from, to, tenths } = expected;
  const isExpected = (digits: string) => digits !== "" && Number(digits) >= from && Number(digits) <= to;
  if (isExpected(text)) return whole;
  if (isExpected(start + text)) return { start, rest: text };
  const pointed = `${text.slice(0, -1)}.${text.slice(-1)}`;
  if (tenths && /^\d{2,}$/.test(text) && isExpected(start + pointed)) return { start, rest: pointed };
  return (start + text).length < String(Math.floor(to)).length ? { start, rest: text } : whole;
}

/** The number entered, as interpreted by `typedText`; undefined while there is none. */
export function typedNumber(text: string, expected: Expected | undefined): number | undefined {
  if (text === "" || text === "-") return undefined;
  const { start, rest } = typedText(text, expected);
  const taken = Number(start + rest);
  // While unfinished it is shown with the leading digits, but counts as entered until it is in the expected range.
  return expected && start !== "" && (taken < expected.from || taken > expected.to) ? Number(text) : taken;
}
