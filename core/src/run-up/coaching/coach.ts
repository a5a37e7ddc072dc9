import { otherSide } from "../../engine/side";
import { inUnit } from "../../judgement/judgement";
import { firstAt, MAX_CYLINDERS, type Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import { capital, formatNumber } from "../../units/format";
import type { RunUpStep } from "../reading/found-step";
import { valuesBetween } from "../reading/level-change";
import { type RunUpProfile, rpmScale } from "../run-up-profile";

/** One prompt of the coach, and what it watches. */
export interface CoachStep {
  step: RunUpStep;
  /** Short text, spoken and displayed. */
  say: string;
  /** What to look at. */
  watch: string;
  /** Maximum wait for a response before asking, seconds; absent for steps without one. */
  patienceS?: number;
}

/** Idle-to-taxi rpm on the ground, to the next hundred: 1,000 for a rated 2,700. Common practice. */
export function groundRpm({ ratedRpm }: Pick<RunUpProfile, "ratedRpm">): number {
  return Math.round((ratedRpm * 0.37) / 100) * 100;
}

/** Sequence of steps for this type. `lean` adds leaning before the drops, at high density altitude. */
export function coachSequence(
  profile: RunUpProfile,
  { lean = false, warm = true }: { lean?: boolean; warm?: boolean } = {},
): CoachStep[] {
  const word = (side: "right" | "left") => profile.sideWords?.[side] ?? side;
  const first = profile.firstSide;
  const other = otherSide(first);
  const rpm = formatNumber(profile.rpm);
  const ground = groundRpm(profile);
  return [
    ...(warm
      ? []
      : [{ step: "warm up" as const, say: "Warm up", watch: "oil temperature into the green arc" }]),
    { step: "run-up", say: `${rpm}`, watch: "hold brakes, look outside", patienceS: 40 },
    ...(lean ? [{ step: "lean" as const, say: "Lean for maximum rpm", watch: "best power, then hold" }] : []),
    { step: first, say: capital(word(first)), watch: "small drop, smooth", patienceS: 9 },
    { step: "both", say: "Both", watch: "rpm back to normal", patienceS: 9 },
    { step: other, say: capital(word(other)), watch: "similar drop, smooth", patienceS: 9 },
    { step: "both", say: "Both", watch: "rpm back to normal", patienceS: 9 },
    ...(profile.propeller === "constant speed"
      ? [
          {
            step: "propeller" as const,
            say: "Propeller back, then forward",
            watch: "rpm down, then up again",
            patienceS: 12,
          },
        ]
      : []),
    ...(profile.heat === "none"
      ? []
      : [
          {
            step: "heat" as const,
            say: profile.heat === "alternate air" ? "Alternate air" : "Carburettor heat",
            watch: profile.heat === "alternate air" ? "small rpm drop" : "rpm drop",
            // An injected engine barely responds to alternate air.
            patienceS: profile.heat === "alternate air" ? 5 : 9,
          },
          { step: "cold" as const, say: "Off again", watch: "rpm back, or higher", patienceS: 9 },
        ]),
    { step: "load", say: "Electrical load on", watch: "voltage steady" },
    { step: "idle", say: "Idle", watch: "engine keeps running", patienceS: 12 },
    { step: "ground", say: formatNumber(ground), watch: "let it settle", patienceS: 12 },
  ];
}

/**
 * Clearing a plug: one lean minute with CHT watched, then the drops again. Source: figures of the type's profile; order by common
 * practice.
 */
export function clearSequence(profile: RunUpProfile): CoachStep[] {
  const { seconds, rpm } = profile.clear;
  const magnetos = coachSequence({ ...profile, heat: "none", propeller: "fixed" }).filter(({ step }) =>
    ["run-up", "right", "left", "both"].includes(step),
  );
  return [
    { step: "clear", say: `${formatNumber(rpm)}, lean`, watch: `${seconds} seconds, watch CHT and oil` },
    ...magnetos,
  ];
}

/** State of the current step. */
export type CoachStatus = "waiting" | "settling" | "done" | "no answer" | "stopped" | "too hot";

export interface CoachView {
  status: CoachStatus;
  /** The relevant number, rpm unless another unit is given. */
  number?: number;
  unit?: string;
  /** Progress of this step, 0 to 1. */
  progress: number;
  /** Text, if there is something to say. */
  words?: string;
}

/** Seconds a side is held once the rpm is steady. */
const HOLD_S = 4;

/**
 * State of a step from the trace so far: whether the engine has responded, settled, or not responded in time. `since` is the time
 * of the prompt, `base` the rpm before the first magneto. Times are the trace's seconds. Pure: the same trace gives the same
 * view.
 * Complexity: O(samples of the last seconds).
 */
export function coachView(
  trace: Trace,
  step: CoachStep,
  since: number,
  profile: RunUpProfile,
  base?: number,
): CoachView {
  const rpm = trace.channels.rpm;
  const now = trace.t.at(-1) ?? since;
  if (!rpm || trace.t.length === 0) return { status: "waiting", progress: 0 };
  const scale = rpmScale(profile);
  const passed = now - since;
  const last = valuesBetween(trace, rpm, now - 1.4, now).y;
  const here = last.length > 0 ? median(last) : Number.NaN;
  if (here < 0.07 * profile.rpm && step.step !== "stop") return { status: "stopped", number: 0, progress: 0 };
  const before = median(orNaN(valuesBetween(trace, rpm, since - 3, since).y));
  const wide = valuesBetween(trace, rpm, now - 2.4, now).y;
  const early = median(orNaN(wide.slice(0, Math.ceil(wide.length / 2))));
  const late = median(orNaN(wide.slice(Math.floor(wide.length / 2))));
  const stands = wide.length >= 3 && Math.abs(early - late) < 4 * scale;
  const answered = Math.abs(here - before) >= 6 * scale;
  const tooLate = step.patienceS !== undefined && passed > step.patienceS;
  const hold = (done: boolean, started: boolean, seconds: number): CoachView => {
    if (!started) return { status: tooLate ? "no answer" : "waiting", number: here, progress: 0 };
    const at = answeredAt(trace, rpm, since, before, 6 * scale) ?? since;
    const progress = Math.min(1, Math.max(0, (now - at) / (seconds + 1.5)));
    return { status: done && progress >= 1 ? "done" : "settling", number: here, progress };
  };
  switch (step.step) {
    case "warm up": {
      const least = inUnit(profile.oilTemperature, "°F").min ?? 75;
      const oil = lastOf(trace, "oilTemperature", now);
      const left = oil === undefined || oil >= least ? undefined : minutesUntil(trace, least, now);
      return {
        status: oil !== undefined && oil >= least && passed > 3 ? "done" : "waiting",
        ...(oil !== undefined && { number: oil, unit: "°F" }),
        progress: oil === undefined ? 0 : Math.min(1, oil / least),
        words: `oil to ${formatNumber(least)} °F${left === undefined ? "" : `, about ${left === 1 ? "a minute" : `${left} minutes`}`}`,
      };
    }
    case "run-up": {
      const there = Math.abs(here - profile.rpm) <= profile.within;
      return hold(stands && passed > 3, there, 2.5);
    }
    case "right":
    case "left": {
      // A level that drifted away meanwhile is not a response to the key.
      const at = answered ? steppedAt(trace, rpm, since, now, 6 * scale) : undefined;
      if (at === undefined) return { status: tooLate ? "no answer" : "waiting", number: here, progress: 0 };
      const progress = Math.min(1, Math.max(0, (now - at) / (HOLD_S + 1.5)));
      return { status: stands && progress >= 1 ? "done" : "settling", number: here, progress };
    }
    case "both": {
      // Without a drop there is no recovery either.
      const back = base === undefined ? answered : Math.abs(here - base) < 12 * scale;
      if (back) return hold(stands && passed > 2.5, true, 2.5);
      return {
        status: tooLate ? "done" : "waiting",
        number: here,
        progress: 0,
        ...(tooLate && { words: "rpm not fully back" }),
      };
    }
    case "heat": {
      if (!answered && !tooLate) return { status: "waiting", number: here, progress: 0 };
      // Ice takes time to melt: wait as long as the rpm rises.
      const rising = late - early > 4 * scale && passed < 40;
      return {
        status: passed > 6.5 && !rising ? "done" : "settling",
        number: here,
        progress: Math.min(1, passed / 7),
      };
    }
    case "cold":
      return {
        status: stands && passed > 5 ? "done" : tooLate ? "done" : "settling",
        number: here,
        progress: Math.min(1, passed / 5.5),
      };
    case "propeller": {
      // Last time it was clearly lower: when a fall begins, the last seconds still look steady.
      const { t, y } = valuesBetween(trace, rpm, since, now);
      const lastLow = t.findLast((_, i) => (y[i] as number) < before - 60 * scale);
      const fell = lastLow !== undefined;
      const back = fell && now - lastLow > 2 && Math.abs(here - before) < 25 * scale;
      return {
        status: back && stands ? "done" : tooLate ? "done" : fell ? "settling" : "waiting",
        number: here,
        progress: fell ? (back ? 1 : 0.5) : 0,
      };
    }
    case "load": {
      const volts = lastOf(trace, "volts", now);
      return {
        status: passed > 5 ? "done" : "settling",
        ...(volts !== undefined && { number: volts, unit: "V" }),
        progress: Math.min(1, passed / 5),
      };
    }
    case "idle": {
      const low = here < (profile.idle.max ?? 0.45 * profile.rpm) + 120 * scale;
      return hold(passed > 4, low, profile.idle.seconds + 0.5);
    }
    case "ground":
      return {
        status: stands && passed > 3 ? "done" : "settling",
        number: here,
        progress: Math.min(1, passed / 4),
      };
    case "clear":
      return clearing(trace, since, now, profile, here);
    case "set lean":
      return hold(stands && passed > 3, Math.abs(here - profile.groundLean.rpm) <= 80 * scale, 2);
    case "peak": {
      const fastest = fastestSince(trace, rpm, since);
      const fallen = fastest - here;
      const enough = PAST_PEAK * profile.groundLean.rpm;
      return {
        status: fallen >= enough && passed > 3 ? "done" : tooLate ? "no answer" : "settling",
        number: here,
        progress: Math.min(1, Math.max(0, fallen / enough)),
        words: fallen > 0.4 * enough ? "falling: lean slightly more" : `maximum ${formatNumber(fastest)}`,
      };
    }
    case "enrich":
      return {
        status: (stands && passed > 5) || tooLate ? "done" : "settling",
        number: here,
        progress: Math.min(1, passed / 5.5),
      };
    case "lean":
      return { status: passed > 18 ? "done" : "settling", number: here, progress: Math.min(1, passed / 18) };
    case "stop":
      return { status: here < 50 ? "done" : "waiting", number: here, progress: 0 };
  }
}

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

function clearing(trace: Trace, since: number, now: number, profile: RunUpProfile, here: number): CoachView {
  const { rpm: aim, seconds, headMax } = profile.clear;
  const scale = rpmScale(profile);
  const rpm = trace.channels.rpm as Float64Array;
  const hottest = hottestHead(trace, now);
  const most = inUnit(headMax, "°F").max;
  if (hottest !== undefined && most !== undefined && hottest > most)
    return {
      status: "too hot",
      number: hottest,
      unit: "°F",
      progress: 0,
      words: `CHT over ${formatNumber(most)} °F: throttle back`,
    };
  // The minute counts from when the rpm is steady.
  const piece = valuesBetween(trace, rpm, since, now);
  const from = piece.t.find((_, i) => Math.abs((piece.y[i] as number) - aim) < 90 * scale);
  const held = from === undefined ? 0 : now - from;
  return {
    status: held >= seconds ? "done" : held > 0 ? "settling" : "waiting",
    number: held > 0 ? Math.max(0, Math.ceil(seconds - held)) : here,
    ...(held > 0 && { unit: "s" }),
    progress: Math.min(1, held / seconds),
    ...(hottest !== undefined && { words: `hottest CHT ${formatNumber(hottest)} °F` }),
  };
}

/** Whole minutes until the oil is warm enough at its present rate; undefined if it is not rising. */
function minutesUntil(trace: Trace, least: number, now: number): number | undefined {
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

function lastOf(trace: Trace, channel: keyof Trace["channels"], now: number): number | undefined {
  const values = trace.channels[channel];
  if (!values) return undefined;
  const { y } = valuesBetween(trace, values, now - 1.5, now);
  return y.length > 0 ? median(y) : undefined;
}

/** How far back a step is searched, seconds: older ones were seen when they happened. */
const STEP_BACK_S = 25;
/** A clear step shows within a second; a small one must last several seconds to stand out from the noise. */
const STEP_WINDOWS = [
  { seconds: 1.2, times: 2.4 },
  { seconds: 3.5, times: 1 },
] as const;

/**
 * Time of the last step down by at least this much within a second or two; undefined if rpm only drifted. A warming engine drifts
 * by a few rpm per minute, a key acts at once. Switching off a magneto never raises rpm: a rise means the throttle is still
 * moving.
 */
function steppedAt(
  trace: Trace,
  rpm: Float64Array,
  since: number,
  now: number,
  least: number,
): number | undefined {
  const piece = valuesBetween(trace, rpm, Math.max(since - 4, now - STEP_BACK_S), now);
  for (const { seconds, times } of STEP_WINDOWS) {
    const at = lastStep(piece, since - 0.5, seconds, least * times);
    if (at !== undefined) return at;
  }
  return undefined;
}

function lastStep(
  { t, y }: { t: number[]; y: number[] },
  from: number,
  seconds: number,
  least: number,
): number | undefined {
  if (t.length < 4) return undefined;
  const interval = ((t.at(-1) as number) - (t[0] as number)) / (t.length - 1);
  const wide = Math.max(seconds, 3.2 * interval);
  const end = (t.at(-1) as number) + interval;
  const levelIn = (begin: number, until: number) =>
    median(orNaN(y.slice(firstAt(t, begin), firstAt(t, until + 1e-6))));
  let last: { at: number; size: number } | undefined;
  let before = false;
  for (const at of t) {
    const whole = at >= from && at - wide >= (t[0] as number) - interval && at + 0.8 + wide <= end;
    const size = whole ? levelIn(at - wide, at) - levelIn(at + 0.8, at + 0.8 + wide) : 0;
    const steps = size >= least;
    if (steps && (!before || size > (last?.size ?? 0))) last = { at, size };
    before = steps;
  }
  return last?.at;
}

function answeredAt(
  trace: Trace,
  rpm: Float64Array,
  since: number,
  before: number,
  least: number,
): number | undefined {
  const { t, y } = valuesBetween(trace, rpm, since, trace.t.at(-1) ?? since);
  for (let i = 2; i < y.length; i++)
    if (Math.abs(median([y[i - 2] as number, y[i - 1] as number, y[i] as number]) - before) >= least)
      return t[i - 2];
  return undefined;
}

function orNaN(values: number[]): number[] {
  return values.length > 0 ? values : [Number.NaN];
}
