import { cylindersOf, firstAt, type Trace } from "../../trace/trace";

/** Deviation from the median of neighbours that counts as a jump: metal cannot heat and cool that fast, °F. */
const JUMP_F = 40;
/** Minimum number of jumps: fewer may come from one bad sample, or an engine cut. */
const FEWEST = 4;
/** Minimum share of samples that jump. */
const PART = 0.05;

/**
 * EGT probes that jump: more than one sample in twenty deviates from the median of five, and far more than on the other probes. A
 * fast but steady rise or fall is not a jump. Between two times, seconds; °F. Complexity: O(samples · probes). Source: common
 * practice; the figures are own estimates.
 */
export function noisyProbes(trace: Trace, from: number, to: number): number[] {
  const begin = firstAt(trace.t, from);
  const end = firstAt(trace.t, to);
  const counts = cylindersOf(trace, "egt").map((cylinder) => {
    const values = trace.channels[`egt${cylinder}`] as Float64Array;
    let jumps = 0;
    let lines = 0;
    const five = new Float64Array(5);
    for (let i = begin + 2; i < end - 2; i++) {
      for (let k = 0; k < 5; k++) five[k] = values[i + k - 2] as number;
      const here = five[2] as number;
      five.sort();
      // Missing values sort to the end.
      if (Number.isNaN(five[4])) continue;
      lines++;
      if (Math.abs(here - (five[2] as number)) > JUMP_F) jumps++;
    }
    return { cylinder, jumps, lines };
  });
  const usual =
    counts.map(({ jumps }) => jumps).sort((a, b) => a - b)[Math.floor((counts.length - 1) / 2)] ?? 0;
  return counts
    .filter(({ jumps, lines }) => jumps - usual >= FEWEST && jumps - usual > PART * lines)
    .map(({ cylinder }) => cylinder);
}
