import { QuantityError } from "../units/convert";

/** Channels of an engine monitor, besides the cylinders. */
export const PLAIN_CHANNELS = [
  "rpm",
  "map",
  "fuelFlow",
  "oilPressure",
  "oilTemperature",
  "volts",
  "amps",
  "suction",
] as const;
export type PlainChannel = (typeof PLAIN_CHANNELS)[number];
/** As many as a two-row radial has. */
export const MAX_CYLINDERS = 18;
/** EGT and CHT of one cylinder, counted from 1. */
export type CylinderChannel = `egt${number}` | `cht${number}`;
export type Channel = PlainChannel | CylinderChannel;

/** Unit of each channel in a trace; files are converted when read. */
export const CHANNEL_UNITS: Record<PlainChannel | "egt" | "cht", string> = {
  rpm: "rpm",
  map: "inHg",
  fuelFlow: "US gal/h",
  oilPressure: "psi",
  oilTemperature: "°F",
  volts: "V",
  amps: "A",
  suction: "inHg",
  egt: "°F",
  cht: "°F",
};

/**
 * Engine data by channel over common times: seconds, increasing after cleaning. NaN means missing. A channel the monitor does not
 * have is absent.
 */
export interface Trace {
  t: Float64Array;
  channels: { [channel in Channel]?: Float64Array };
}

export function cylindersOf(trace: Trace, kind: "egt" | "cht"): number[] {
  const found: number[] = [];
  for (let i = 1; i <= MAX_CYLINDERS; i++) if (trace.channels[`${kind}${i}`]) found.push(i);
  return found;
}

/** Existing channels with their values. */
export function rowsOf(channels: Trace["channels"]): [Channel, Float64Array][] {
  return Object.entries(channels) as [Channel, Float64Array][];
}

/** Part of a trace between two times, inclusive. Seconds. Complexity: O(samples of the part). */
export function cutTrace(trace: Trace, from: number, to: number): Trace {
  const a = firstAt(trace.t, from);
  let b = firstAt(trace.t, to);
  while (b < trace.t.length && (trace.t[b] as number) <= to) b++;
  const channels: Trace["channels"] = {};
  for (const [name, values] of rowsOf(trace.channels)) channels[name] = values.subarray(a, b);
  return { t: trace.t.subarray(a, b), channels };
}

/** Index of the first time not before `at`; the length if there is none. Times must increase. Complexity: O(log n). */
export function firstAt(t: ArrayLike<number>, at: number): number {
  let low = 0;
  let high = t.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((t[middle] as number) < at) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** A monitor sample as transmitted: cylinders as arrays; everything but the time is optional. */
export interface TraceLine extends Partial<Record<PlainChannel, number>> {
  t: number;
  egt?: readonly number[];
  cht?: readonly number[];
}

/** Calls `give` for every number of a sample with its channel; anything else is skipped. */
export function readLine(line: TraceLine, give: (channel: Channel, value: number) => void): void {
  const tell = (channel: Channel, value: unknown) => {
    if (typeof value === "number" && !Number.isNaN(value)) give(channel, value);
  };
  for (const name of PLAIN_CHANNELS) tell(name, line[name]);
  for (const kind of ["egt", "cht"] as const)
    line[kind]?.forEach((value, c) => {
      tell(`${kind}${c + 1}`, value);
    });
}

/** Trace of samples, in order of arrival. Valid range: at least one; throws QuantityError otherwise. */
export function traceOf(lines: readonly TraceLine[]): Trace {
  if (lines.length === 0) throw new QuantityError("No data from the engine monitor.");
  const n = lines.length;
  const t = new Float64Array(n);
  const channels: Trace["channels"] = {};
  lines.forEach((line, i) => {
    t[i] = line.t;
    readLine(line, (channel, value) => {
      channels[channel] ??= new Float64Array(n).fill(Number.NaN);
      (channels[channel] as Float64Array)[i] = value;
    });
  });
  return { t, channels };
}
