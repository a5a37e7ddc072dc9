import { cylindersOf, firstAt, type Trace } from "../../trace/trace";

/** So far off the middle of its neighbours a line is a jump: metal does not warm so fast, and cool again, °F. */
const JUMP_F = 40;
/** As many jumps may come of a line that was broken, or of an engine that was cut and caught. */
const FEWEST = 4;
/** So great a part of the lines makes a probe wild. */
const PART = 0.05;

/**
 * The exhaust probes that jump: more than one line in twenty stands apart from the middle of the five around it, and of the other probes' lines far fewer do. A probe that climbs or falls
 * does not jump, however fast. Over the lines from one time to another, seconds; °F. Complexity: O(lines · probes). Source: common practice; the figures are own estimates.
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
      // What did not come is sorted to the end.
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
