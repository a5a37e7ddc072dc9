import { type Channel, readLine, rowsOf, type Trace, type TraceLine } from "./trace";

/** Share dropped when the buffer is full. */
const GOES = 1 / 9;

/**
 * A fixed-size buffer for a monitor's samples: memory does not grow. When full, the oldest ninth is dropped. Valid range:
 * capacity at least nine. Complexity: O(1) per sample, amortised.
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

  /** Time of the last sample, seconds; 0 before the first. */
  get now(): number {
    return this.times[this.count - 1] ?? 0;
  }

  /** Last value of a channel; undefined if there is none. */
  last(channel: Channel): number | undefined {
    const value = this.channels[channel]?.[this.count - 1] ?? Number.NaN;
    return Number.isNaN(value) ? undefined : value;
  }

  /** Appends samples, in order of arrival. */
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

  /**
   * Latest samples back to `from`, stopping at a time that jumps back, seconds; at least one. A view, valid until the next
   * sample.
   */
  since(from: number): Trace {
    let start = Math.max(0, this.count - 1);
    while (start > 0 && (this.times[start - 1] as number) >= from) start--;
    return this.from(start);
  }

  /** Everything stored, as an independent trace. */
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

/** How to thin a long trace: samples kept at both ends, and the number kept between. */
export interface Thinning {
  first: number;
  between: number;
  last: number;
}

/** Thins the middle of a long trace; short ones are returned unchanged. Complexity: O(remaining samples). */
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
