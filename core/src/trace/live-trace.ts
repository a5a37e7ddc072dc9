import { type Channel, readLine, rowsOf, type Trace, type TraceLine } from "./trace";

/** How much goes when it is full, as a part of what is kept. */
const GOES = 1 / 9;

/**
 * The lines of a monitor as they come, kept as rows of numbers whose room is taken once: however long it runs, it grows no further. When it is full the
 * oldest ninth goes. Valid range: at least nine lines are kept. Complexity: O(1) a line; O(lines kept) once in that many ninths.
 */
export class LiveTrace {
  private readonly times: Float64Array;
  private readonly channels: Trace["channels"] = {};
  private count = 0;

  constructor(private readonly most: number) {
    this.times = new Float64Array(most);
  }

  get length(): number {
    return this.count;
  }

  /** The time of the last line, seconds; 0 before the first. */
  get now(): number {
    return this.times[this.count - 1] ?? 0;
  }

  /** What a channel showed last; undefined where nothing came. */
  last(channel: Channel): number | undefined {
    const value = this.channels[channel]?.[this.count - 1] ?? Number.NaN;
    return Number.isNaN(value) ? undefined : value;
  }

  /** Takes lines in, in the order in which they came. */
  add(lines: readonly TraceLine[]): void {
    for (const line of lines) {
      if (this.count === this.most) this.drop(Math.ceil(this.most * GOES));
      const i = this.count++;
      this.times[i] = line.t;
      for (const [, row] of rowsOf(this.channels)) row[i] = Number.NaN;
      readLine(line, (channel, value) => {
        this.channels[channel] ??= new Float64Array(this.most).fill(Number.NaN);
        (this.channels[channel] as Float64Array)[i] = value;
      });
    }
  }

  /** The last lines, as far back as their times are not before `from` without a break, seconds; at least one. A view: good until the next line comes. */
  since(from: number): Trace {
    let start = Math.max(0, this.count - 1);
    while (start > 0 && (this.times[start - 1] as number) >= from) start--;
    return this.from(start);
  }

  /** All that is kept, as a trace of its own. */
  copy(): Trace {
    const { t, channels } = this.from(0);
    return { t: t.slice(), channels: mapRows(channels, (row) => row.slice()) };
  }

  private from(start: number): Trace {
    return {
      t: this.times.subarray(start, this.count),
      channels: mapRows(this.channels, (row) => row.subarray(start, this.count)),
    };
  }

  private drop(lines: number): void {
    this.times.copyWithin(0, lines);
    for (const [, row] of rowsOf(this.channels)) row.copyWithin(0, lines);
    this.count -= lines;
  }
}

/** What of a long trace is looked at line by line, and of how many lines of what lies between. */
export interface Thinning {
  first: number;
  between: number;
  last: number;
}

/** A trace whose middle is thinned where it is long; the trace itself where it is not. Complexity: O(lines that are left). */
export function thinMiddle(trace: Trace, { first, between, last }: Thinning): Trace {
  const n = trace.t.length;
  const middle = n - first - last;
  if (middle <= between) return trace;
  const stride = Math.ceil(middle / between);
  const picked: number[] = [];
  for (let i = 0; i < n; i += i < first || i >= n - last ? 1 : Math.min(stride, n - last - i)) picked.push(i);
  const pick = (row: Float64Array) => Float64Array.from(picked, (i) => row[i] as number);
  return { t: pick(trace.t), channels: mapRows(trace.channels, pick) };
}

function mapRows(channels: Trace["channels"], map: (row: Float64Array) => Float64Array): Trace["channels"] {
  return Object.fromEntries(rowsOf(channels).map(([name, row]) => [name, map(row)]));
}
