import { inUnit, type Judgement, limitText, notAssessed } from "../../judgement/judgement";
import type { Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import { formatNumber, type Quantity } from "../../units/format";
import { meanOf } from "../reading/channel-means";
import type { Mark } from "../reading/found-step";
import { valuesBetween } from "../reading/level-change";
import type { IdleReading } from "../reading/run-up-reading";
import { type RunUpProfile, rpmScale } from "../run-up-profile";
import { type CoachStep, clearSequence, groundRpm } from "./coach";
import { fastestSince, PAST_PEAK } from "./gauges-now";

/** Procedures coached separately from the run-up. */
export const PROCEDURES = ["warm up", "clear", "idle", "ground lean"] as const;
export type Procedure = (typeof PROCEDURES)[number];

/** True if this engine has the procedure: without a mixture lever there is no leaning. */
export function hasProcedure(procedure: Procedure, profile: RunUpProfile): boolean {
  return procedure !== "ground lean" || profile.groundLean.turnsIn > 0;
}

/** Steps of one procedure, in few words. */
export function procedureSequence(procedure: Procedure, profile: RunUpProfile): CoachStep[] {
  const { rpm, turnsIn } = profile.groundLean;
  const ground = formatNumber(groundRpm(profile));
  switch (procedure) {
    case "warm up":
      return [{ step: "warm up", say: "Warm up", watch: "wait until oil is in the green arc" }];
    case "clear":
      return clearSequence(profile);
    case "idle":
      return [
        { step: "ground", say: ground, watch: "let it settle", patienceS: 12 },
        {
          step: "idle",
          say: "Idle",
          watch: `${profile.idle.seconds} seconds, engine keeps running`,
          patienceS: 12,
        },
        { step: "ground", say: ground, watch: "let it settle", patienceS: 12 },
      ];
    case "ground lean":
      return [
        { step: "set lean", say: formatNumber(rpm), watch: "set and let it settle", patienceS: 25 },
        { step: "peak", say: "Lean slowly", watch: "rpm rises, then drops", patienceS: 75 },
        {
          step: "enrich",
          say: `Mixture ${formatNumber(turnsIn)} turns in`,
          watch: "smooth again",
          patienceS: 20,
        },
      ];
  }
}

/** Result of ground leaning, rpm and °F. */
export interface GroundLeanReading {
  from: number;
  to: number;
  /** Rpm before, at its highest, lowest past that, and at the end. */
  before: number;
  fastest: number;
  past: number;
  end: number;
  /** Peak and final EGT, mean of the cylinders; absent without probes. */
  egtPeak?: number;
  egtEnd?: number;
}

/**
 * Reads ground leaning from a trace with the coach's prompts. Undefined if it was not started or the trace is too short. Rpm, °F.
 * Valid range: a clean trace, marks with "peak".
 */
export function readGroundLeaning(trace: Trace, marks: readonly Mark[]): GroundLeanReading | undefined {
  const from = marks.findLast(({ step }) => step === "peak")?.t;
  const { rpm } = trace.channels;
  if (from === undefined || !rpm) return undefined;
  const to = trace.t.at(-1) ?? from;
  const back = marks.find(({ step, t }) => step === "enrich" && t >= from)?.t ?? to;
  const before = valuesBetween(trace, rpm, from - 3, from).y;
  const end = valuesBetween(trace, rpm, to - 2, to).y;
  const way = valuesBetween(trace, rpm, from, Math.min(to, back + 2.5)).y;
  if (before.length < 3 || end.length < 3 || way.length < 10) return undefined;
  const fastest = Math.max(fastestSince(trace, rpm, from - 3), median(before));
  const past = Math.min(...medians(way));
  const egt = hottestMean(trace, from, to);
  return {
    from,
    to,
    before: median(before),
    fastest,
    past,
    end: median(end),
    ...(egt && { egtPeak: egt.peak, egtEnd: egt.end }),
  };
}

function medians(values: readonly number[]): number[] {
  return values.map((_, i) => median(values.slice(Math.max(0, i - 3), i + 4)));
}

function hottestMean(trace: Trace, from: number, to: number): { peak: number; end: number } | undefined {
  const channels = Array.from({ length: 18 }, (_, i) => trace.channels[`egt${i + 1}`]).filter(
    (values) => values !== undefined,
  );
  if (channels.length === 0) return undefined;
  const at = (a: number, b: number) => {
    const values = channels.map((values) => meanOf(trace, values, a, b)).filter((v) => !Number.isNaN(v));
    return values.length > 0 ? median(values) : Number.NaN;
  };
  let peak = Number.NEGATIVE_INFINITY;
  for (let t = from; t < to; t += 2) {
    const mean = at(t, t + 2);
    if (mean > peak) peak = mean;
  }
  const end = at(to - 2, to);
  return Number.isFinite(peak) && Number.isFinite(end) ? { peak, end } : undefined;
}

const RICH_AGAIN =
  "Mixture rich before take-off, or as your handbook says. Full power this lean damages the engine.";

/**
 * Judges ground leaning: through the highest rpm, past it, and back slightly richer. Rpm. Valid range: a reading of
 * `readGroundLeaning`; without one "unjudged". Source: to a peak and a drop at about 1,200 rpm, then enriched by a few turns:
 * common practice.
 */
export function judgeGroundLeaning(
  reading: GroundLeanReading | undefined,
  profile: Pick<RunUpProfile, "groundLean" | "rpm" | "source">,
): Judgement {
  const id = "ground-lean";
  const subject = "Ground leaning";
  if (!reading) return notAssessed(id, subject, "Not leaned, or the trace is too short to tell.");
  const { rpm, turnsIn } = profile.groundLean;
  const { fastest, past, end, egtPeak, egtEnd } = reading;
  const enough = PAST_PEAK * rpm;
  const n = (value: number) => formatNumber(value);
  const source = profile.source;
  const base = {
    id,
    subject,
    scope: "day" as const,
    source,
    reading: { value: end, unit: "rpm" as const },
    caution: RICH_AGAIN,
  };
  if (fastest - past < 0.7 * enough)
    return {
      ...base,
      grade: "watch",
      sentence: `Rpm never dropped past its maximum of ${n(fastest)}: still as rich as before.`,
      action: `At ${n(rpm)} rpm lean until the rpm clearly drops, then ${n(turnsIn)} turns in.`,
    };
  if (fastest - end > 0.8 * enough)
    return {
      ...base,
      grade: "watch",
      sentence: `Rpm is still ${n(fastest - end)} below its maximum of ${n(fastest)}: too lean.`,
      action: `Turn the mixture in until the rpm is about ${n(fastest)} again.`,
    };
  const egt =
    egtPeak === undefined || egtEnd === undefined
      ? ""
      : ` EGT ${n(Math.max(0, egtPeak - egtEnd))} °F below peak.`;
  return {
    ...base,
    grade: "within limits",
    sentence: `Maximum ${n(fastest)} rpm, leaned past it to ${n(past)}, enriched to ${n(end)}.${egt}`,
  };
}

/**
 * Judges whether the oil is warm enough for the run-up. Value in °F, minutes since the start. Valid range: any; without a probe
 * "unjudged". Source: the type's own arc.
 */
export function judgeWarmUp(
  oilF: number | undefined,
  minutes: number,
  { oilTemperature }: Pick<RunUpProfile, "oilTemperature">,
): Judgement {
  const id = "warm-up";
  const subject = "Oil warm-up";
  if (oilF === undefined) return notAssessed(id, subject, "No oil temperature in this trace.");
  const { min, max } = inUnit(oilTemperature, "°F");
  const base = {
    id,
    subject,
    scope: "day" as const,
    reading: { value: oilF, unit: "°F" as const },
    limit: limitText(oilTemperature),
    source: oilTemperature.source,
  };
  const took = minutes < 0.75 ? "" : ` after ${formatNumber(minutes)} min`;
  if (max !== undefined && oilF > max)
    return {
      ...base,
      grade: "stop",
      margin: { value: max - oilF, unit: "°F" },
      sentence: `${formatNumber(oilF)} °F${took}: above the green arc.`,
      action: "Throttle back, nose into wind, cowl flaps open. If it keeps rising, shut down.",
    };
  if (min !== undefined && oilF < min)
    return {
      ...base,
      grade: "ask",
      margin: { value: oilF - min, unit: "°F" },
      sentence: `${formatNumber(oilF)} °F${took}: ${formatNumber(min - oilF)} °F below the green arc.`,
      action: "Keep the rpm low. No run-up until the oil is in the green arc.",
    };
  return {
    ...base,
    grade: "within limits",
    ...marginIn({ value: oilF, unit: "°F" }, { min, max }),
    sentence: `${formatNumber(oilF)} °F${took}: in the green arc, ready for the run-up.`,
  };
}

/**
 * Judges the idle check: rpm, duration, and whether the engine kept running. Rpm and seconds. Valid range: a reading of
 * `readRunUp`; without one "unjudged". Source: three to five seconds at the stop, common practice; the range is the type's.
 */
export function judgeIdleHold(
  idle: IdleReading | undefined,
  { idle: limit, rpm }: Pick<RunUpProfile, "idle" | "rpm">,
): Judgement {
  const id = "idle-hold";
  const subject = "Idle check";
  if (!idle) return notAssessed(id, subject, "No idle in this trace.");
  const base = {
    id,
    subject,
    scope: "aircraft" as const,
    reading: { value: idle.floor, unit: "rpm" as const },
    limit: limitText(limit),
    source: limit.source,
  };
  const held = `${formatNumber(idle.held)} s`;
  if (idle.quit)
    return {
      ...base,
      grade: "stop",
      sentence: "The engine stopped at idle.",
      action: "It may do the same on final approach. Do not fly until the idle has been adjusted.",
    };
  const low = limit.min !== undefined && idle.floor < limit.min;
  const high = limit.max !== undefined && idle.floor > limit.max;
  if (low || high)
    return {
      ...base,
      grade: "ask",
      sentence: `${formatNumber(idle.floor)} rpm, held ${held}: ${low ? "below" : "above"} its range.`,
      action: low
        ? "The engine may stop on the landing roll. Have the idle adjusted."
        : "The aircraft floats on landing and wears its brakes. Check the throttle is fully closed, then have the idle adjusted.",
    };
  if (idle.held < limit.seconds - 0.6)
    return {
      ...base,
      grade: "note",
      sentence: `${formatNumber(idle.floor)} rpm, but held for only ${held}.`,
      action: `Hold the throttle closed for ${formatNumber(limit.seconds)} seconds: a stop can come late.`,
    };
  return {
    ...base,
    grade: "within limits",
    ...marginIn(base.reading, limit),
    sentence: `${formatNumber(idle.floor)} rpm, held ${held}, kept running${limit.min !== undefined && idle.floor - limit.min < 15 * rpmScale({ rpm }) ? "; close to its minimum" : ""}.`,
  };
}

/** Distance to the nearer end of a range; undefined if it has none. */
function marginIn(
  { value, unit }: Quantity,
  {
    min = Number.NEGATIVE_INFINITY,
    max = Number.POSITIVE_INFINITY,
  }: { min?: number | undefined; max?: number | undefined },
): { margin?: Quantity } {
  const margin = Math.min(value - min, max - value);
  return Number.isFinite(margin) ? { margin: { value: margin, unit } } : {};
}
