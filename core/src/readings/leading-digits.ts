import type { Unit } from "../units/convert";

/** Where a number is expected: its leading digits need not be typed. */
export interface Expected {
  /** The digits that every number in the range begins with. */
  start: string;
  from: number;
  to: number;
  /** The last digit is always a tenth: its point need not be typed. */
  tenths?: boolean;
}

/** How far from the last one a number of such a unit is expected, as a part of it or in the unit itself (common practice). */
const REACH: Partial<Record<Unit, (last: number) => [from: number, to: number]>> = {
  // An hour meter only goes forward.
  h: (last) => [last, last + 10],
  hPa: (last) => [last - 12, last + 12],
  V: (last) => [last * 0.94, last * 1.06],
  // From the run-up's own rpm downwards, and a little above it.
  rpm: (last) => [last * 0.85, last * 1.05],
};
/** So many keys are typed without help. */
const EASY = 3;

/**
 * The leading digits that a reading surely has, from the last one of its kind: the thousands of an hour meter, the "10" of a pressure setting.
 * They say nothing that could be copied instead of read. Undefined where all digits differ, where no last one is known, or where the number is
 * short. Units: h, hPa, V, rpm. Source: common practice.
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

/** What was typed, as it is taken: digits that were not typed, and the typed ones as they stand behind them. */
export interface Typed {
  start: string;
  rest: string;
}

/**
 * What was typed, behind the leading digits or whole: whichever of the two is where a number is expected, the whole one first; of an hour meter,
 * whose last digit is always a tenth, also without its point. Where none is (a dead magneto, a flat battery), what was typed counts as it stands.
 * Valid range: text of digits, with a point or a minus; a number that is not finished yet is shown behind the leading digits.
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

/** The number that was typed, as `typedText` takes it; undefined while there is none. */
export function typedNumber(text: string, expected: Expected | undefined): number | undefined {
  if (text === "" || text === "-") return undefined;
  const { start, rest } = typedText(text, expected);
  const taken = Number(start + rest);
  // Shown behind the leading digits while it goes on, it counts as it was typed until it is where one is expected.
  return expected && start !== "" && (taken < expected.from || taken > expected.to) ? Number(text) : taken;
}
