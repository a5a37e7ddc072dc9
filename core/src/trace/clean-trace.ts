import { median } from "../trend/median";
import { formatNumber } from "../units/format";
import { type Channel, rowsOf, type Trace } from "./trace";

/** A problem of the trace itself, to report before its results. */
export interface TraceProblem {
  kind:
    | "no rpm"
    | "too short"
    | "time disorder"
    | "duplicates"
    | "gap"
    | "missing"
    | "frozen"
    | "implausible"
    | "tachometer dead";
  channel?: Channel;
  from?: number;
  to?: number;
  sentence: string;
}

export interface CleanTrace {
  trace: Trace;
  problems: TraceProblem[];
  /** Typical sampling interval, seconds. */
  interval: number;
}

/** Plausible ranges of working probes, in the trace's units; values outside count as missing. Common practice, generous. */
const POSSIBLE: Record<string, readonly [number, number]> = {
  rpm: [0, 8000],
  map: [3, 70],
  fuelFlow: [0, 120],
  oilPressure: [0, 150],
  oilTemperature: [-60, 400],
  volts: [0, 40],
  amps: [-150, 200],
  suction: [0, 12],
  egt: [-60, 2000],
  cht: [-60, 700],
};

const NAMES: Record<string, string> = {
  rpm: "Rpm",
  map: "Manifold pressure",
  fuelFlow: "Fuel flow",
  oilPressure: "Oil pressure",
  oilTemperature: "Oil temperature",
  volts: "Volts",
  amps: "Amps",
  suction: "Suction",
};

/** Display name of a channel. */
export function channelName(channel: Channel): string {
  const cylinder = /^(egt|cht)(\d+)$/.exec(channel);
  if (cylinder) return `${cylinder[1] === "egt" ? "EGT" : "CHT"} ${cylinder[2]}`;
  return NAMES[channel] ?? channel;
}

/** A probe unchanged for this long while the engine changes is frozen, seconds. */
const FROZEN_S = 8;
/** Minimum number of samples: a few sparse ones may be equal by chance. */
const FROZEN_LINES = 8;

/**
 * Cleans a trace: sorts by time, keeps the later of two samples at one time, removes implausible values, and reports problems:
 * gaps, frozen and missing channels, a tachometer at zero with the engine running.
 * Valid range: any trace; never throws. Complexity: O(n log n) per channel at worst, O(n) for sorted samples.
 */
export function cleanTrace(raw: Trace): CleanTrace {
  const problems: TraceProblem[] = [];
  const trace = inOrder(raw, problems);
  const n = trace.t.length;
  const interval = n > 1 ? typicalInterval(trace.t) : 0;
  if (n < 10 || (trace.t[n - 1] as number) - (trace.t[0] as number) < 5)
    problems.push({
      kind: "too short",
      sentence: "The trace is shorter than five seconds: nothing can be read from it.",
    });
  for (const [name, values] of rowsOf(trace.channels))
    trace.channels[name] = withoutImpossible(name, trace.t, values, problems);
  for (let i = 1; i < n; i++) {
    const wait = (trace.t[i] as number) - (trace.t[i - 1] as number);
    if (wait > Math.max(1.5, interval * 5))
      problems.push({
        kind: "gap",
        from: trace.t[i - 1] as number,
        to: trace.t[i] as number,
        sentence: `No data for ${formatNumber(wait, 1)} s.`,
      });
  }
  if (!trace.channels.rpm || trace.channels.rpm.every(Number.isNaN))
    problems.push({
      kind: "no rpm",
      channel: "rpm",
      sentence: "No rpm in this trace, so no drop can be read. Enter the numbers by hand.",
    });
  deadTachometer(trace, problems);
  for (const name of Object.keys(trace.channels) as Channel[]) frozen(trace, name, problems);
  return { trace, problems, interval };
}

function inOrder(raw: Trace, problems: TraceProblem[]): Trace {
  const n = raw.t.length;
  let disorder = 0;
  let repeats = 0;
  let unusable = 0;
  for (let i = 0; i < n; i++) {
    const at = raw.t[i] as number;
    if (!Number.isFinite(at)) unusable++;
    else if (i > 0 && at < (raw.t[i - 1] as number)) disorder++;
    else if (i > 0 && at === raw.t[i - 1]) repeats++;
  }
  const copy = (keep: ArrayLike<number>, count: number): Trace => {
    const pick = (values: Float64Array) => {
      const out = new Float64Array(count);
      for (let i = 0; i < count; i++) out[i] = values[keep[i] as number] as number;
      return out;
    };
    return {
      t: pick(raw.t),
      channels: Object.fromEntries(rowsOf(raw.channels).map(([name, values]) => [name, pick(values)])),
    };
  };
  if (disorder === 0 && repeats === 0 && unusable === 0) return { t: raw.t, channels: { ...raw.channels } };
  // Stable sort, so that the later of two samples at one time stays later.
  const order: number[] = [];
  for (let i = 0; i < n; i++) if (Number.isFinite(raw.t[i])) order.push(i);
  if (disorder > 0) order.sort((a, b) => (raw.t[a] as number) - (raw.t[b] as number) || a - b);
  const kept = order.filter((place, i) => raw.t[place] !== raw.t[order[i + 1] ?? -1]);
  const twice = order.length - kept.length;
  if (disorder > 0)
    problems.push({
      kind: "time disorder",
      sentence: `${formatNumber(disorder)} ${disorder === 1 ? "line was" : "lines were"} out of order: sorted by time.`,
    });
  if (twice > 0)
    problems.push({
      kind: "duplicates",
      sentence: `${formatNumber(twice)} ${twice === 1 ? "time appears" : "times appear"} twice: the later line is used.`,
    });
  if (unusable > 0)
    problems.push({
      kind: "time disorder",
      sentence: `${formatNumber(unusable)} ${unusable === 1 ? "line" : "lines"} without a time: ignored.`,
    });
  return copy(kept, kept.length);
}

function typicalInterval(t: Float64Array): number {
  const gaps: number[] = [];
  const stride = Math.max(1, Math.floor(t.length / 2000));
  for (let i = 1; i < t.length; i += stride) gaps.push((t[i] as number) - (t[i - 1] as number));
  return median(gaps);
}

function withoutImpossible(
  channel: Channel,
  t: Float64Array,
  values: Float64Array,
  problems: TraceProblem[],
): Float64Array {
  const [least, most] = POSSIBLE[channel.replace(/\d+$/, "")] ?? [
    Number.NEGATIVE_INFINITY,
    Number.POSITIVE_INFINITY,
  ];
  let out: Float64Array | undefined;
  let count = 0;
  let missing = 0;
  for (let i = 0; i < values.length; i++) {
    const value = values[i] as number;
    if (Number.isNaN(value)) {
      missing++;
      continue;
    }
    if (value >= least && value <= most) continue;
    out ??= Float64Array.from(values);
    out[i] = Number.NaN;
    count++;
  }
  if (count > 0)
    problems.push({
      kind: "implausible",
      channel,
      sentence: `${channelName(channel)}: ${formatNumber(count)} impossible ${count === 1 ? "value" : "values"} ignored.`,
    });
  if (missing > values.length * 0.2)
    problems.push({
      kind: "missing",
      channel,
      from: t[0] as number,
      to: t.at(-1) as number,
      sentence: `${channelName(channel)} is missing for ${formatNumber((100 * missing) / values.length)} % of the time.`,
    });
  return out ?? values;
}

/** Detects a tachometer at zero while other channels show a running engine. */
function deadTachometer({ t, channels }: Trace, problems: TraceProblem[]): void {
  const { rpm, oilPressure, fuelFlow, map } = channels;
  if (!rpm) return;
  let from: number | undefined;
  let until = 0;
  let longest = 0;
  let span: [number, number] | undefined;
  for (let i = 0; i < t.length; i++) {
    // A stopped engine has no oil pressure and no fuel flow; manifold pressure is ambient.
    const alive =
      (oilPressure && (oilPressure[i] as number) > 20 ? 1 : 0) +
      (fuelFlow && (fuelFlow[i] as number) > 1.2 ? 1 : 0) +
      (map && (map[i] as number) < 22 && (map[i] as number) > 5 ? 1 : 0);
    const dead = (rpm[i] as number) < 50 && alive >= 2;
    if (dead) {
      from ??= t[i] as number;
      until = t[i] as number;
      if (until - from > longest) {
        longest = until - from;
        span = [from, until];
      }
    } else from = undefined;
  }
  // Oil pressure takes seconds to fall after a real stop.
  if (span && longest > 4)
    problems.push({
      kind: "tachometer dead",
      channel: "rpm",
      from: span[0],
      to: span[1],
      sentence: `The tachometer shows zero for ${formatNumber(longest)} s while the engine is running: tachometer fault. Do not use its drop.`,
    });
}

/** Channels that change whenever rpm changes. */
const LIVELY = new Set<string>(["rpm", "map", "fuelFlow", "egt"]);

function frozen({ t, channels }: Trace, name: Channel, problems: TraceProblem[]): void {
  const kind = name.replace(/\d+$/, "");
  if (!LIVELY.has(kind)) return;
  const values = channels[name] as Float64Array;
  // Rpm is compared with fuel flow or manifold pressure, other channels with rpm.
  const other = name === "rpm" ? (channels.map ?? channels.fuelFlow) : channels.rpm;
  if (!other) return;
  const moves = name === "rpm" ? 2.5 : 120;
  let start = 0;
  let least = Number.POSITIVE_INFINITY;
  let most = Number.NEGATIVE_INFINITY;
  for (let i = 1; i <= values.length; i++) {
    const same = i < values.length && values[i] === values[start];
    if (same) {
      const beside = other[i] as number;
      if (!Number.isNaN(beside)) {
        least = Math.min(least, beside);
        most = Math.max(most, beside);
      }
      continue;
    }
    const from = t[start] as number;
    const to = t[i - 1] as number;
    const stopped = name !== "rpm" && (channels.rpm?.[start] as number) < 50;
    if (
      to - from >= FROZEN_S &&
      i - start >= FROZEN_LINES &&
      most - least > moves &&
      (values[start] as number) !== 0 &&
      !stopped
    )
      problems.push({
        kind: "frozen",
        channel: name,
        from,
        to,
        sentence: `${channelName(name)} did not change for ${formatNumber(to - from)} s while the engine did: frozen, not used there.`,
      });
    start = i;
    least = Number.POSITIVE_INFINITY;
    most = Number.NEGATIVE_INFINITY;
  }
}

/** Removes frozen stretches, channel by channel. */
export function withoutFrozen({ trace, problems }: CleanTrace): Trace {
  const channels = { ...trace.channels };
  for (const { kind, channel, from, to } of problems) {
    if (
      (kind !== "frozen" && kind !== "tachometer dead") ||
      !channel ||
      from === undefined ||
      to === undefined
    )
      continue;
    const values = Float64Array.from(channels[channel] ?? []);
    for (let i = 0; i < values.length; i++) {
      const at = trace.t[i] as number;
      if (at >= from && at <= to) values[i] = Number.NaN;
    }
    channels[channel] = values;
  }
  return { t: trace.t, channels };
}
