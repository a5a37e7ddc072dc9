import { inUnit } from "../../judgement/judgement";
import type { Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import { formatNumber } from "../../units/format";
import type { RunUpStep } from "../reading/found-step";
import { valuesBetween } from "../reading/level-change";
import { type RunUpProfile, rpmScale } from "../run-up-profile";
import type { CoachStep } from "./coach";
import { fastestSince, hottestHead, lastOf, minutesUntil, PAST_PEAK } from "./gauges-now";
import { answeredAt, orNaN, steppedAt } from "./response-to-key";

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

/** Times of the steps, seconds: common practice, adjusted to what simulated and generated engines need to settle. */
const TIME = {
  /** A side is held once the rpm is steady. */
  hold: 4,
  settle: 1.5,
  side: 2.5,
  steadyAfter: 3,
  bothAfter: 2.5,
  heat: 6.5,
  /** Ice takes time to melt: wait as long as the rpm rises, but not longer than this. */
  melting: 40,
  cold: 5,
  load: 5,
  idleAfter: 4,
  lean: 18,
  enrich: 5,
} as const;

/** Changes of rpm that count, for a usual engine. Own values. */
const RPM = {
  steady: 4,
  answer: 6,
  back: 12,
  propellerFell: 60,
  propellerBack: 25,
  idleAbove: 120,
  leanWithin: 80,
  clearWithin: 90,
} as const;

/** Below this fraction of run-up rpm the engine has stopped. */
const STOPPED = 0.07;
/** Rpm below which a shut-down is complete. */
const STOPPED_RPM = 50;

/** What a step looks at. Times are the trace's seconds. */
interface Look {
  trace: Trace;
  rpm: Float64Array;
  step: CoachStep;
  profile: RunUpProfile;
  scale: number;
  since: number;
  now: number;
  passed: number;
  /** Rpm before the first magneto. */
  base: number | undefined;
  /** Rpm now, before the prompt, and in both halves of the last seconds. */
  here: number;
  before: number;
  early: number;
  late: number;
  /** The rpm is steady; it has responded to the prompt; it should have by now. */
  stands: boolean;
  answered: boolean;
  tooLate: boolean;
}

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
  if (!rpm || trace.t.length === 0) return { status: "waiting", progress: 0 };
  const look = lookAt(trace, rpm, step, since, profile, base);
  if (look.here < STOPPED * profile.rpm && step.step !== "stop")
    return { status: "stopped", number: 0, progress: 0 };
  return VIEWS[step.step](look);
}

function lookAt(
  trace: Trace,
  rpm: Float64Array,
  step: CoachStep,
  since: number,
  profile: RunUpProfile,
  base: number | undefined,
): Look {
  const now = trace.t.at(-1) ?? since;
  const scale = rpmScale(profile);
  const passed = now - since;
  const here = median(orNaN(valuesBetween(trace, rpm, now - 1.4, now).y));
  const before = median(orNaN(valuesBetween(trace, rpm, since - 3, since).y));
  const wide = valuesBetween(trace, rpm, now - 2.4, now).y;
  const early = median(orNaN(wide.slice(0, Math.ceil(wide.length / 2))));
  const late = median(orNaN(wide.slice(Math.floor(wide.length / 2))));
  return {
    ...{ trace, rpm, step, profile, scale, since, now, passed, base, here, before, early, late },
    stands: wide.length >= 3 && Math.abs(early - late) < RPM.steady * scale,
    answered: Math.abs(here - before) >= RPM.answer * scale,
    tooLate: step.patienceS !== undefined && passed > step.patienceS,
  };
}

const part = (progress: number): number => Math.min(1, Math.max(0, progress));

const waiting = ({ tooLate, here }: Look): CoachView => ({
  status: tooLate ? "no answer" : "waiting",
  number: here,
  progress: 0,
});

/** Held for some seconds after the engine responded. */
function held(look: Look, done: boolean, started: boolean, seconds: number): CoachView {
  const { trace, rpm, since, before, now, scale, here } = look;
  if (!started) return waiting(look);
  const at = answeredAt(trace, rpm, since, before, RPM.answer * scale) ?? since;
  const progress = part((now - at) / (seconds + TIME.settle));
  return { status: done && progress >= 1 ? "done" : "settling", number: here, progress };
}

const timed = ({ here, passed }: Look, done: boolean, seconds: number): CoachView => ({
  status: done ? "done" : "settling",
  number: here,
  progress: Math.min(1, passed / seconds),
});

/** View of each step. */
const VIEWS: Readonly<Record<RunUpStep, (look: Look) => CoachView>> = {
  "warm up": warmingUp,
  "run-up": (look) =>
    held(
      look,
      look.stands && look.passed > TIME.steadyAfter,
      Math.abs(look.here - look.profile.rpm) <= look.profile.within,
      TIME.side,
    ),
  right: onSide,
  left: onSide,
  both: onBoth,
  heat: withHeat,
  cold: (look) => timed(look, (look.stands && look.passed > TIME.cold) || look.tooLate, 5.5),
  propeller: cycling,
  load: underLoad,
  idle: (look) =>
    held(
      look,
      look.passed > TIME.idleAfter,
      look.here < (look.profile.idle.max ?? 0.45 * look.profile.rpm) + RPM.idleAbove * look.scale,
      look.profile.idle.seconds + 0.5,
    ),
  ground: (look) => timed(look, look.stands && look.passed > TIME.steadyAfter, 4),
  clear: clearing,
  "set lean": (look) =>
    held(
      look,
      look.stands && look.passed > TIME.steadyAfter,
      Math.abs(look.here - look.profile.groundLean.rpm) <= RPM.leanWithin * look.scale,
      2,
    ),
  peak: pastPeak,
  enrich: (look) => timed(look, (look.stands && look.passed > TIME.enrich) || look.tooLate, 5.5),
  lean: (look) => timed(look, look.passed > TIME.lean, TIME.lean),
  stop: ({ here }) => ({ status: here < STOPPED_RPM ? "done" : "waiting", number: here, progress: 0 }),
};

function warmingUp({ trace, profile, now, passed }: Look): CoachView {
  const least = inUnit(profile.oilTemperature, "°F").min ?? 75;
  const oil = lastOf(trace, "oilTemperature", now);
  const left = oil === undefined || oil >= least ? undefined : minutesUntil(trace, least, now);
  const about = left === undefined ? "" : `, about ${left === 1 ? "a minute" : `${left} minutes`}`;
  return {
    status: oil !== undefined && oil >= least && passed > TIME.steadyAfter ? "done" : "waiting",
    ...(oil !== undefined && { number: oil, unit: "°F" }),
    progress: oil === undefined ? 0 : Math.min(1, oil / least),
    words: `oil to ${formatNumber(least)} °F${about}`,
  };
}

/** A level that drifted away meanwhile is not a response to the key. */
function onSide(look: Look): CoachView {
  const { trace, rpm, since, now, scale, answered, stands, here } = look;
  const at = answered ? steppedAt(trace, rpm, since, now, RPM.answer * scale) : undefined;
  if (at === undefined) return waiting(look);
  const progress = part((now - at) / (TIME.hold + TIME.settle));
  return { status: stands && progress >= 1 ? "done" : "settling", number: here, progress };
}

function onBoth(look: Look): CoachView {
  const { base, answered, here, scale, stands, passed, tooLate } = look;
  // Without a drop there is no recovery either.
  const back = base === undefined ? answered : Math.abs(here - base) < RPM.back * scale;
  if (back) return held(look, stands && passed > TIME.bothAfter, true, TIME.side);
  return {
    status: tooLate ? "done" : "waiting",
    number: here,
    progress: 0,
    ...(tooLate && { words: "rpm not fully back" }),
  };
}

function withHeat(look: Look): CoachView {
  const { answered, tooLate, here, late, early, scale, passed } = look;
  if (!answered && !tooLate) return { status: "waiting", number: here, progress: 0 };
  const rising = late - early > RPM.steady * scale && passed < TIME.melting;
  return timed(look, passed > TIME.heat && !rising, 7);
}

/** Last time it was clearly lower: when a fall begins, the last seconds still look steady. */
function cycling({ trace, rpm, since, now, before, scale, here, stands, tooLate }: Look): CoachView {
  const { t, y } = valuesBetween(trace, rpm, since, now);
  const lastLow = t.findLast((_, i) => (y[i] as number) < before - RPM.propellerFell * scale);
  const fell = lastLow !== undefined;
  const back = fell && now - lastLow > 2 && Math.abs(here - before) < RPM.propellerBack * scale;
  return {
    status: (back && stands) || tooLate ? "done" : fell ? "settling" : "waiting",
    number: here,
    progress: fell ? (back ? 1 : 0.5) : 0,
  };
}

function underLoad({ trace, now, passed }: Look): CoachView {
  const volts = lastOf(trace, "volts", now);
  return {
    status: passed > TIME.load ? "done" : "settling",
    ...(volts !== undefined && { number: volts, unit: "V" }),
    progress: Math.min(1, passed / TIME.load),
  };
}

function pastPeak({ trace, rpm, since, here, profile, passed, tooLate }: Look): CoachView {
  const fastest = fastestSince(trace, rpm, since);
  const fallen = fastest - here;
  const enough = PAST_PEAK * profile.groundLean.rpm;
  const done = fallen >= enough && passed > TIME.steadyAfter;
  return {
    status: done ? "done" : tooLate ? "no answer" : "settling",
    number: here,
    progress: part(fallen / enough),
    words: fallen > 0.4 * enough ? "falling: lean slightly more" : `maximum ${formatNumber(fastest)}`,
  };
}

function clearing({ trace, rpm, since, now, profile, scale, here }: Look): CoachView {
  const { rpm: aim, seconds, headMax } = profile.clear;
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
  const from = piece.t.find((_, i) => Math.abs((piece.y[i] as number) - aim) < RPM.clearWithin * scale);
  const held = from === undefined ? 0 : now - from;
  return {
    status: held >= seconds ? "done" : held > 0 ? "settling" : "waiting",
    number: held > 0 ? Math.max(0, Math.ceil(seconds - held)) : here,
    ...(held > 0 && { unit: "s" }),
    progress: Math.min(1, held / seconds),
    ...(hottest !== undefined && { words: `hottest CHT ${formatNumber(hottest)} °F` }),
  };
}
