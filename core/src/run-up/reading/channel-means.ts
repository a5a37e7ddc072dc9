import { firstAt, type Trace } from "../../trace/trace";

/** Mean of a channel between two times, inclusive; NaN without values. */
export function meanOf({ t }: Trace, values: Float64Array, from: number, to: number): number {
  let sum = 0;
  let count = 0;
  for (let i = firstAt(t, from); i < t.length && (t[i] as number) <= to; i++) {
    const value = values[i] as number;
    if (Number.isNaN(value)) continue;
    sum += value;
    count++;
  }
  return count > 0 ? sum / count : Number.NaN;
}

/**
 * Deviation of values from the line between their neighbours, upper quartile: large for a noisy probe, even on one sample in
 * four; small for one that rises or falls. In the values' unit; 0 for fewer than three values.
 */
export function jumpiness(values: readonly number[]): number {
  const jumps: number[] = [];
  for (let i = 2; i < values.length; i++)
    jumps.push(Math.abs((values[i - 1] as number) - ((values[i] as number) + (values[i - 2] as number)) / 2));
  return jumps.length > 0
    ? (jumps.sort((a, b) => a - b)[Math.floor(0.75 * (jumps.length - 1))] as number)
    : 0;
}

/** Upper quartile of that deviation for plain noise, in standard deviations: 1.15 times the root of 1.5. */
export const JUMPS = 1.41;
