import { otherSide } from "../../engine/side";
import { cleanTrace, withoutFrozen } from "../../trace/clean-trace";
import { type Channel, cylindersOf, type Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import { capital, formatNumber } from "../../units/format";
import { probabilityCases } from "../../units/probability-text";
import type { RunUpProfile } from "../run-up-profile";
import { jumpiness } from "./channel-means";
import { findInterpretations } from "./find-steps";
import type { FoundStep, Mark } from "./found-step";
import { valuesBetween } from "./level-change";
import { instrumentResolution, levelOf } from "./levels/stretch-level";
import { type MagnetoSideOrder, onOneSide, orderByAnswer, sidesAreNamed } from "./magneto-side-order";
import { asBoth, asDropped, negligibleDrops } from "./negligible-drops";
import { noisyProbes } from "./noisy-probes";
import { clearerReading, readHeat } from "./read-heat";
import { compareSides, readMagneto } from "./read-magneto";
import { readPropeller } from "./read-propeller";
import { type Context, deviation, EVENLY, orNaN, restsAtBase, rpmOf, sigmaOf } from "./reading-context";
import type { GaugeReading, IdleReading, RunUpNote, RunUpReading, Side } from "./run-up-reading";
import { doubtUnsteady, isUnsteady } from "./unsteady";

/** Context on both sides of a run-up used to measure its probes, seconds. */
const BESIDE_S = 30;

/**
 * Reads a run-up from a trace: steps with times, base, drops, recovery, difference, EGT by cylinder, heat, propeller, idle and
 * gauges, and what was left out. It judges nothing. `marks` are the coach's prompts, if any; `told` is the pilot's answer about
 * the sides of an unprompted trace: without it `right` and `left` are first and second (see `asTold`). Values in the trace's
 * units (rpm, °F, psi, V, A, inHg). Valid range: any trace; what cannot be read is absent and named in `problems`.
 * Complexity: O(n) plus a small search per step; half an hour at ten samples per second in well under 200 ms.
 * Source: signs of a run-up are common practice; change points: Killick et al. (2012).
 */
export function readRunUp(
  raw: Trace,
  profile: RunUpProfile,
  marks?: readonly Mark[],
  told?: MagnetoSideOrder,
): RunUpReading {
  return (readWays(raw, profile, marks, told)[0] as ReadWay).reading;
}

/** One interpretation of a run-up with its probability; those of one trace sum to one. */
export interface ReadWay {
  weight: number;
  reading: RunUpReading;
}

/** Likely interpretations of a run-up, most likely first, each read as by `readRunUp`: at most four. */
export function readWays(
  raw: Trace,
  type: RunUpProfile,
  marks?: readonly Mark[],
  told?: MagnetoSideOrder,
): ReadWay[] {
  const prompted = marks !== undefined && marks.length > 0;
  const profile = orderByAnswer(type, prompted, told);
  const clean = cleanTrace(raw);
  const trace = withoutFrozen(clean);
  const blank = (): RunUpReading => ({
    prompted,
    ...(!sidesAreNamed(prompted, told) && { unnamed: true as const }),
    interval: clean.interval,
    problems: clean.problems,
    steps: [],
    tries: [],
    egt: { base: {}, idle: {}, ground: {}, scatter: {} },
    notes: [],
  });
  if (clean.problems.some((problem) => problem.kind === "no rpm" || problem.kind === "too short"))
    return [{ weight: 1, reading: blank() }];
  const grain = instrumentResolution(trace.channels.rpm ?? []);
  const ways = findInterpretations(trace, profile, marks).map(({ steps: found, weight }) => {
    const read = (steps: FoundStep[]): RunUpReading => {
      const made = { ...blank(), steps };
      fill(made, { trace, clean, profile, steps, grain });
      return made;
    };
    let reading = read(prompted ? found : onOneSide(found, profile, told));
    // A negligible drop is a slightly lower return to both: read the rest without it.
    const hardly = reading.tries.filter((one) => negligibleDrops(one, profile));
    if (prompted) reading = read(asDropped(reading, profile));
    else if (hardly.length > 0) reading = read(onOneSide(asBoth(reading.steps, hardly), profile, told));
    reading.notes.push(...notesOn(reading, profile, marks));
    return { weight, reading };
  });
  const [first, second] = ways;
  if (first && second && second.weight >= WORTH_SAYING && !sidesAlike(first, second)) {
    if (prompted) doubtUnlike(first, second);
    first.reading.notes.push({
      kind: "read otherwise",
      sentence: `This trace can also be read differently (chance about ${probabilityCases(second.weight)}): ${sidesIn(second, profile)}.`,
    });
  }
  return ways;
}

/** Minimum weight of an interpretation worth mentioning. */
const WORTH_SAYING = 0.2;

/** Drops closer than this are equal, rpm. */
const ALIKE_RPM = 15;

const SIDES = ["right", "left"] as const;

function isAlike({ reading: one }: ReadWay, { reading: other }: ReadWay, side: Side): boolean {
  const a = one[side]?.drop;
  const b = other[side]?.drop;
  return a === undefined || b === undefined ? a === b : Math.abs(a - b) <= ALIKE_RPM;
}

const sidesAlike = (one: ReadWay, other: ReadWay): boolean =>
  SIDES.every((side) => isAlike(one, other, side));

/**
 * With the coach a repeat is quick: a side that another interpretation reads differently is marked doubtful, unless the engine
 * stopped.
 */
function doubtUnlike(first: ReadWay, second: ReadWay): void {
  for (const side of SIDES) {
    const made = first.reading[side];
    if (made && made.feel !== "quit" && !isAlike(first, second, side))
      made.doubt ??= "The trace is not clear here: repeat it.";
  }
}

/** Result of the sides under one interpretation, in words: "right 75 rpm drop, left not seen". */
function sidesIn({ reading }: ReadWay, { sideWords, firstSide }: RunUpProfile): string {
  const sides: Side[] = firstSide === "right" ? ["right", "left"] : ["left", "right"];
  return sides
    .map((side) => {
      const made = reading[side];
      const word = sideWords?.[side] ?? side;
      if (!made) return `${word} not visible`;
      if (made.feel === "quit") return `engine stopped on ${word}`;
      return `${word} ${formatNumber(5 * Math.round(Math.abs(made.drop) / 5))} rpm ${made.drop < 0 ? "rise" : "drop"}`;
    })
    .join(", ");
}

/** Fills a reading from its steps. */
function fill(reading: RunUpReading, ctx: Context): void {
  const { trace, steps } = ctx;
  const jumping = noisyProbes(
    trace,
    (steps[0]?.at ?? 0) - BESIDE_S,
    (steps.at(-1)?.until ?? Number.POSITIVE_INFINITY) + BESIDE_S,
  );
  if (jumping.length > 0) reading.egt.jumping = jumping;
  readBase(ctx, reading);
  for (const [i, step] of steps.entries()) {
    if (step.step === "right" || step.step === "left") readMagneto(ctx, i, step.step, reading);
    else if (step.step === "heat")
      reading.heat = clearerReading(reading.heat, readHeat(ctx, i, reading), reading.prompted);
    else if (step.step === "propeller") reading.propeller = readPropeller(ctx, i);
    else if (step.step === "idle") reading.idle = readIdle(ctx, i);
    else if (step.step === "load") {
      const volts = gauge(trace, "volts", step.at + 2, step.until);
      if (volts) reading.voltsUnderLoad = volts;
    }
  }
  compareSides(ctx, reading);
  readGauges(ctx, reading);
  doubtUnsteady(reading, ctx);
}

function readBase(ctx: Context, reading: RunUpReading): void {
  const { trace, steps, profile } = ctx;
  const first = steps.findIndex(({ step }) => step === "right" || step === "left");
  const base = (first > 0 ? steps.slice(0, first) : steps).findLast(restsAtBase);
  if (!base) return;
  const to = base.until - 0.1;
  // At least a few samples, at any sampling interval.
  const back = Math.max(2.5, 3.6 * ctx.clean.interval);
  const piece = valuesBetween(trace, rpmOf(ctx), Math.min(Math.max(base.at + 2, to - back), to - 1), to).y;
  if (piece.length < (ctx.clean.interval > 0.5 ? 2 : 3)) return;
  const { value } = levelOf(piece, ctx.grain);
  reading.base = { value, from: Math.max(base.at, to - 5), to, sigma: deviation(piece, value) };
  if (Math.abs(value - profile.rpm) > profile.within)
    reading.notes.push({
      kind: "beside the figure",
      sentence: `Run-up made at ${formatNumber(value)} rpm, but the limits apply at ${formatNumber(profile.rpm)} rpm.`,
    });
}

function readIdle(ctx: Context, i: number): IdleReading {
  const { trace, steps, profile } = ctx;
  const step = steps[i] as FoundStep;
  const rpm = rpmOf(ctx);
  const all = valuesBetween(trace, rpm, step.at, step.until).y;
  const settled = valuesBetween(trace, rpm, step.at + Math.max(2, 4 * step.settle), step.until - 0.2).y;
  const quit = all.length > 0 && Math.min(...all) < 0.06 * profile.rpm;
  const used = settled.length >= 3 ? settled : all.slice(-3);
  return {
    from: step.at,
    to: step.until,
    floor: quit ? 0 : median(orNaN(used)),
    floorSigma: quit ? 0 : Math.hypot(sigmaOf(used, ctx.grain), ctx.grain / EVENLY),
    held: step.until - step.at,
    quit: quit || steps[i + 1]?.step === "stop",
  };
}

function gauge(trace: Trace, name: Channel, from: number, to: number): GaugeReading | undefined {
  const values = trace.channels[name];
  if (!values) return undefined;
  const { y } = valuesBetween(trace, values, from, to);
  return y.length >= 3 ? { value: median(y), from, to } : undefined;
}

/** Gauges at run-up rpm: over the last steady stretch before idle, when temperatures are highest. */
function readGauges(ctx: Context, reading: RunUpReading): void {
  const { trace, steps } = ctx;
  const calm = steps.filter(restsAtBase).filter(({ at, until }) => until - at > 2);
  const first = calm[0];
  const last = calm.at(-1);
  if (!first || !last) return;
  // On both, wherever that was: later, gauges have settled.
  const whole = (name: Channel) => {
    const values = calm.flatMap(({ at, until }) =>
      trace.channels[name] ? valuesBetween(trace, trace.channels[name], at + 1.5, until).y : [],
    );
    return values.length >= 3 ? { value: median(values), from: first.at, to: last.until } : undefined;
  };
  const set = <
    K extends "oilPressure" | "oilTemperature" | "volts" | "amps" | "suction" | "map" | "fuelFlow",
  >(
    name: K,
  ) => {
    const made = name === "oilTemperature" ? gauge(trace, name, last.at, last.until) : whole(name);
    if (made) reading[name] = made;
  };
  for (const name of [
    "oilPressure",
    "oilTemperature",
    "volts",
    "amps",
    "suction",
    "map",
    "fuelFlow",
  ] as const)
    set(name);
  let hottest: (GaugeReading & { cylinder: number }) | undefined;
  let coolest = Number.POSITIVE_INFINITY;
  for (const cylinder of cylindersOf(trace, "cht")) {
    const made = gauge(trace, `cht${cylinder}`, last.until - 4, last.until);
    if (!made) continue;
    coolest = Math.min(coolest, made.value);
    if (!hottest || made.value > hottest.value) hottest = { ...made, cylinder };
  }
  if (hottest) reading.head = { ...hottest, coolest };
  const ground = steps.findLast(({ step, until }) => step === "ground" && until <= first.at + 0.5);
  for (const cylinder of cylindersOf(trace, "egt")) {
    const values = trace.channels[`egt${cylinder}`] as Float64Array;
    const piece = valuesBetween(trace, values, first.at + 3, first.until).y;
    if (piece.length < 3) continue;
    const settledOnly = piece.slice(
      -Math.max(3, Math.min(piece.length, Math.round(4 / Math.max(ctx.clean.interval, 0.05)))),
    );
    reading.egt.base[cylinder] = median(settledOnly);
    reading.egt.scatter[cylinder] = jumpiness(piece);
    const atEnd = (step: { from: number; to: number } | undefined) => {
      const long = Math.max(2.5, 3.2 * ctx.clean.interval);
      const y = step ? valuesBetween(trace, values, Math.max(step.from, step.to - long), step.to).y : [];
      return y.length >= 3 ? median(y) : undefined;
    };
    const idle = atEnd(reading.idle);
    if (idle !== undefined) reading.egt.idle[cylinder] = idle;
    const waited = atEnd(ground && { from: ground.at + 1.5, to: ground.until - 0.2 });
    if (waited !== undefined) reading.egt.ground[cylinder] = waited;
  }
}

function notesOn(
  reading: RunUpReading,
  profile: RunUpProfile,
  marks: readonly Mark[] | undefined,
): RunUpNote[] {
  const notes: RunUpNote[] = [];
  const { tries, steps } = reading;
  const word = (side: Side) => profile.sideWords?.[side] ?? side;
  const ran = steps.some(({ step }) => step === "run-up" || step === "both");
  if (
    tries.length === 0 &&
    ran &&
    !(marks && marks.length > 0 && !marks.some((mark) => mark.step === "right" || mark.step === "left"))
  )
    notes.push({
      kind: "none tried",
      sentence: "Neither magneto was checked in this trace, or neither dropped.",
    });
  // Without any drop, nothing more is said about the sides.
  if (isUnsteady(reading)) return notes;
  for (const side of ["right", "left"] as const)
    if (tries.length > 0 && !reading[side])
      notes.push({
        kind: "second never tried",
        side,
        sentence: `Only one magneto shows in this trace: ${word(side)} was not checked or did not drop. Check both again.`,
      });
  steps.forEach((step, i) => {
    if (step.step !== "right" && step.step !== "left") return;
    const next = steps[i + 1];
    const missing = next && next.step !== "both" && next.step !== "stop" && next.step !== step.step;
    if (missing || (!next && step.seen && reading.tries.at(-1)?.feel !== "quit"))
      notes.push({
        kind: "not back to both",
        side: step.step,
        sentence: `You did not go back to both after ${word(step.step)}.`,
      });
  });
  for (const side of ["right", "left"] as const) {
    const own = tries.filter((made) => made.side === side);
    const last = own.at(-1);
    if (last?.doubt)
      notes.push({ kind: "too short", side, sentence: `${capital(word(side))}: ${last.doubt}` });
    if (own.length > 1)
      notes.push({
        kind: "repeated",
        side,
        sentence: `${capital(word(side))} was checked ${own.length} times: the last one is used.`,
      });
    if (last && !last.seen)
      notes.push({
        kind: "no change seen",
        side,
        sentence: `No rpm change when ${word(side)} was called.`,
      });
  }
  if (reading.heat?.doubt)
    notes.push({ kind: "heat in doubt", sentence: `${capital(profile.heat)}: ${reading.heat.doubt}` });
  if (marks && tries.length > 1 && tries[0]?.side === otherSide(profile.firstSide))
    notes.push({
      kind: "wrong order",
      side: profile.firstSide,
      sentence: `On this type check ${word(profile.firstSide)} first.`,
    });
  return notes;
}
