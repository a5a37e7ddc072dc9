import { QuantityError } from "../units/convert";

/** What an engine monitor can show, besides the cylinders. */
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
/** Exhaust gas and head of one cylinder, counted from 1. */
export type CylinderChannel = `egt${number}` | `cht${number}`;
export type Channel = PlainChannel | CylinderChannel;

/** The unit in which a trace holds each channel; a file may bring others, which are turned into these when it is read. */
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
 * What an engine did, channel by channel over one row of times: seconds, rising after cleaning. NaN is "nothing came".
 * A channel that the monitor does not have is absent.
 */
export interface Trace {
  t: Float64Array;
  channels: { [channel in Channel]?: Float64Array };
}

export function cylindersOf(trace: Trace, kind: "egt" | "cht"): number[] {
  const found: number[] = [];
  for (let i = 1; i <= 18; i++) if (trace.channels[`${kind}${i}`]) found.push(i);
  return found;
}

/** The channels that there are, each with its values. */
export function rowsOf(channels: Trace["channels"]): [Channel, Float64Array][] {
  return Object.entries(channels) as [Channel, Float64Array][];
}

/** The piece of a trace from one time to another, both included. */
export function cutTrace(trace: Trace, from: number, to: number): Trace {
  const a = firstAt(trace.t, from);
  let b = firstAt(trace.t, to);
  while (b < trace.t.length && (trace.t[b] as number) <= to) b++;
  const channels: Trace["channels"] = {};
  for (const [name, values] of rowsOf(trace.channels)) channels[name] = values.subarray(a, b);
  return { t: trace.t.subarray(a, b), channels };
}

/** The place of the first time that is not before `at`. Times must rise. */
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

/** A line of a monitor, as it comes over the wire: cylinders as rows, everything but the time may be absent. */
export interface TraceLine extends Partial<Record<PlainChannel, number>> {
  t: number;
  egt?: readonly number[];
  cht?: readonly number[];
}

/** Lines as a trace, in the order in which they came. Valid range: at least one line; throws QuantityError otherwise. */
export function traceOf(lines: readonly TraceLine[]): Trace {
  if (lines.length === 0) throw new QuantityError("Nothing has come from the engine monitor.");
  const n = lines.length;
  const t = new Float64Array(n);
  const channels: Trace["channels"] = {};
  const row = (name: Channel) => {
    channels[name] ??= new Float64Array(n).fill(Number.NaN);
    return channels[name] as Float64Array;
  };
  lines.forEach((line, i) => {
    t[i] = line.t;
    for (const name of PLAIN_CHANNELS) {
      const value = line[name];
      if (value !== undefined) row(name)[i] = value;
    }
    for (const kind of ["egt", "cht"] as const)
      line[kind]?.forEach((value, c) => {
        row(`${kind}${c + 1}`)[i] = value;
      });
  });
  return { t, channels };
}
