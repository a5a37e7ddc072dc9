import { MAX_CYLINDERS, type Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import { valuesBetween } from "../reading/level-change";

/** Relative fall of rpm that shows the mixture is past its peak. */
export const PAST_PEAK = 0.028;

/** Highest rpm since a time, by medians over about a second. Seconds, rpm; −Infinity without samples. */
export function fastestSince(trace: Trace, rpm: Float64Array, since: number): number {
  const { t, y } = valuesBetween(trace, rpm, since, Number.POSITIVE_INFINITY);
  let fastest = Number.NEGATIVE_INFINITY;
  for (let from = 0; from < y.length; ) {
    let to = from;
    while (to < y.length && (t[to] as number) < (t[from] as number) + 1) to++;
    fastest = Math.max(fastest, median(y.slice(from, to)));
    from = to;
  }
  return fastest;
}

/** Whole minutes until the oil is warm enough at its present rate; undefined if it is not rising. */
export function minutesUntil(trace: Trace, least: number, now: number): number | undefined {
  const values = trace.channels.oilTemperature;
  if (!values) return undefined;
  const { t, y } = valuesBetween(trace, values, now - 60, now);
  const third = Math.floor(y.length / 3);
  const seconds = ((t.at(-1) ?? 0) - (t[0] ?? 0)) * (2 / 3);
  if (third < 4 || seconds < 6) return undefined;
  const late = median(y.slice(-third));
  const rate = (late - median(y.slice(0, third))) / seconds;
  return rate > 0.01 ? Math.max(1, Math.ceil((least - late) / rate / 60)) : undefined;
}

/** Highest CHT now, °F; undefined without probes. */
export function hottestHead(trace: Trace, now: number): number | undefined {
  let most: number | undefined;
  for (let i = 1; i <= MAX_CYLINDERS; i++) {
    const values = trace.channels[`cht${i}`];
    if (!values) break;
    const value = lastOf(trace, `cht${i}`, now);
    if (value !== undefined && (most === undefined || value > most)) most = value;
  }
  return most;
}

/** Oil temperature at the end of a trace, °F; undefined without a probe. */
export function oilNow(trace: Trace): number | undefined {
  return lastOf(trace, "oilTemperature", trace.t.at(-1) ?? 0);
}

/** Present value of a channel, by the median of the last seconds; undefined without samples. */
export function lastOf(trace: Trace, channel: keyof Trace["channels"], now: number): number | undefined {
  const values = trace.channels[channel];
  if (!values) return undefined;
  const { y } = valuesBetween(trace, values, now - 1.5, now);
  return y.length > 0 ? median(y) : undefined;
}
