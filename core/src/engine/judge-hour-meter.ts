import type { Judgement } from "../judgement/judgement";
import { assertNotNegative } from "../units/convert";
import { formatNumber } from "../units/format";

/** Reading resolution is a tenth: less than this is no gap. */
const TENTHS = 0.15;
/** Maximum rounding error of a log in hundredths read to tenths. */
const ROUNDED = 0.05;

/**
 * Compares the hour meter with the last logged reading: it cannot go back, and a gap is an unlogged flight. Undefined if they
 * agree, or nothing was logged after the last flight. `wasAfter`: the last reading was taken after a flight.
 * Valid range: hours ≥ 0; throws QuantityError otherwise. Source: arithmetic; "a gap means an unlogged flight" is common
 * practice.
 */
export function judgeHourMeter(
  hours: number,
  last: { value: number; at: string; wasAfter?: boolean } | undefined,
): Judgement | undefined {
  assertNotNegative("The hour meter", hours);
  if (!last) return undefined;
  const base = {
    id: "hours",
    subject: "Hour meter",
    scope: "day" as const,
    reading: { value: hours, unit: "h" as const },
  };
  const then = `${formatNumber(last.value, 1)} on ${last.at.slice(0, 10)}`;
  if (hours < last.value - ROUNDED - 1e-9)
    return {
      ...base,
      grade: "ask",
      sentence: `It read ${then}. A meter cannot go back.`,
      action: "Read it again. If it is right, one of the two entries is wrong or the meter was replaced.",
    };
  if (last.wasAfter && hours - last.value > TENTHS)
    return {
      ...base,
      grade: "ask",
      sentence: `It read ${then} after the last flight: ${formatNumber(hours - last.value, 1)} h not logged.`,
      action: "Find out who flew. Fuel, oil and inspections depend on it.",
    };
  return undefined;
}
