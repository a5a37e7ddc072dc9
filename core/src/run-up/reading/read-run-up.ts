import { type CleanTrace, cleanTrace, withoutFrozen } from "../../trace/clean-trace";
import { type Channel, cylindersOf, type Trace } from "../../trace/trace";
import { median, midmean } from "../../trend/median";
import { capital, formatNumber } from "../../units/format";
import { type RunUpProfile, rpmScale } from "../run-up-profile";
import { findSteps, propellerBack } from "./find-steps";
import type { FoundStep, Mark } from "./found-step";
import { jumpiness, meanOf } from "./label-plateaus";
import { pieceOf } from "./level-change";
import { jumpingProbes } from "./probe-jumps";
import type {
  HeatReading,
  IdleReading,
  MagnetoReading,
  NeedleReading,
  PropellerReading,
  RunUpNote,
  RunUpReading,
  Side,
} from "./run-up-reading";
import { grainOf, levelOf, type StretchLevel } from "./stretch-level";

/** A side that was left sooner than this has not settled, seconds. */
const SHORTEST_S = 2.5;

/** How far from its level a side is left after no time at all, rpm at 1,800: what has not settled is as unsure (own estimate). */
const UNSETTLED_RPM = 12;

/** So much on both sides of a run-up says how its probes are, seconds. */
const BESIDE_S = 30;

/**
 * Reads a run-up out of a trace: which steps there were and when, base, drop, recovery, difference, time on each side, exhaust by cylinder, heat,
 * propeller, idle and the needles meanwhile; and what was left out. Nothing is judged here. `marks` are the coach's prompts, where it was one.
 * Values in the trace's own units (rpm, °F, psi, V, A, inHg). Valid range: any trace; what cannot be read is absent and named in `problems`.
 * Complexity: O(n) and a small search for each step; half an hour at ten lines a second in well under 200 ms.
 * Source: what a run-up shows is common practice; change points: Killick et al. (2012).
 */
export function readRunUp(raw: Trace, profile: RunUpProfile, marks?: readonly Mark[]): RunUpReading {
  const clean = cleanTrace(raw);
  const trace = withoutFrozen(clean);
  const reading: RunUpReading = {
    prompted: marks !== undefined && marks.length > 0,
    interval: clean.interval,
    problems: clean.problems,
    steps: [],
    tries: [],
    egt: { base: {}, idle: {}, ground: {}, scatter: {} },
    notes: [],
  };
  if (clean.problems.some((problem) => problem.kind === "no rpm" || problem.kind === "too short"))
    return reading;
  reading.steps = findSteps(trace, profile, marks);
  const jumping = jumpingProbes(
    trace,
    (reading.steps[0]?.at ?? 0) - BESIDE_S,
    (reading.steps.at(-1)?.until ?? Number.POSITIVE_INFINITY) + BESIDE_S,
  );
  if (jumping.length > 0) reading.egt.jumping = jumping;
  const grain = grainOf(trace.channels.rpm ?? []);
  const ctx = { trace, clean, profile, steps: reading.steps, grain };
  readBase(ctx, reading);
  for (const [i, step] of reading.steps.entries()) {
    if (step.step === "right" || step.step === "left") readMagneto(ctx, i, step.step, reading);
    else if (step.step === "heat")
      reading.heat = plainer(reading.heat, readHeat(ctx, i, reading), reading.prompted);
    else if (step.step === "propeller") reading.propeller = readPropeller(ctx, i);
    else if (step.step === "idle") reading.idle = readIdle(ctx, i);
    else if (step.step === "load") {
      const volts = needle(trace, "volts", step.at + 2, step.until);
      if (volts) reading.voltsUnderLoad = volts;
    }
  }
  layBeside(ctx, reading);
  readNeedles(ctx, reading);
  reading.notes.push(...notesOn(reading, profile, marks));
  return reading;
}

interface Context {
  trace: Trace;
  clean: CleanTrace;
  profile: RunUpProfile;
  steps: readonly FoundStep[];
  /** In which steps the tachometer shows its values, rpm. */
  grain: number;
}

const rpmOf = ({ trace }: Context) => trace.channels.rpm as Float64Array;

/** Where the engine stands on both at the run-up figure: behind these steps, once it has settled. */
function restsAtBase({ step }: FoundStep): boolean {
  return step === "run-up" || step === "both" || step === "cold" || step === "load";
}

function readBase(ctx: Context, reading: RunUpReading): void {
  const { trace, steps, profile } = ctx;
  const first = steps.findIndex(({ step }) => step === "right" || step === "left");
  const base = (first > 0 ? steps.slice(0, first) : steps).findLast(restsAtBase);
  if (!base) return;
  const to = base.until - 0.1;
  // Some lines at least, however far apart they are.
  const back = Math.max(2.5, 3.6 * ctx.clean.interval);
  const piece = pieceOf(trace, rpmOf(ctx), Math.min(Math.max(base.at + 2, to - back), to - 1), to).y;
  if (piece.length < (ctx.clean.interval > 0.5 ? 2 : 3)) return;
  const { value } = levelOf(piece, ctx.grain);
  reading.base = { value, from: Math.max(base.at, to - 5), to, sigma: deviation(piece, value) };
  if (Math.abs(value - profile.rpm) > profile.within)
    reading.notes.push({
      kind: "beside the figure",
      sentence: `Run up at ${formatNumber(value)} rpm, the figure is ${formatNumber(profile.rpm)}: the limits hold for that.`,
    });
}

function deviation(values: readonly number[], middle: number): number {
  return 1.4826 * median(values.map((value) => Math.abs(value - middle)));
}

function readMagneto(ctx: Context, i: number, side: Side, reading: RunUpReading): void {
  const { trace, steps, clean, profile } = ctx;
  const step = steps[i] as FoundStep;
  const before = steps[i - 1];
  const next = steps[i + 1];
  const rpm = rpmOf(ctx);
  const scale = rpmScale(profile);
  // Without an answer the needle is read from when a hand would have moved.
  const from = step.seen ? step.at + Math.min(3, Math.max(1.2, 4 * step.settle)) : step.at + 3;
  const to = step.until - 0.15;
  const beforeFrom = Math.max(before ? before.at + Math.min(3, 4 * before.settle) : step.at - 5, step.at - 5);
  const fewest = Math.max(1.5, 2.6 * clean.interval);
  // What lies before the stretch is its way there, and no base.
  const least = before ? before.at + Math.min(1.5, 2 * before.settle) : Number.NEGATIVE_INFINITY;
  const calmPiece = pieceOf(
    trace,
    rpm,
    Math.max(least, Math.min(beforeFrom, step.at - fewest)),
    step.at - 0.1,
  );
  const stoodAt = before?.level;
  if (calmPiece.y.length < 2 && stoodAt !== undefined) {
    // Too few lines in it: where the stretch as a whole stood.
    calmPiece.t = [step.at - 1, step.at];
    calmPiece.y = [stoodAt, stoodAt];
  }
  const calm = calmPiece.y;
  const alone = pieceOf(trace, rpm, from, to).y;
  const whole = pieceOf(trace, rpm, step.at, Math.max(to, step.at + 0.5)).y;
  if (calm.length < 2 || whole.length < 2) return;
  const straight = before?.step === "right" || before?.step === "left";
  const short = before?.level !== undefined && step.at - before.at < 5 * before.settle;
  const base = straight
    ? (reading.base?.value ?? midmean(calm))
    : // Left before it had settled: where it was going says more than where it was.
      short
      ? (before.level as number)
      : levelAtEnd(calmPiece, 4 * scale, ctx.grain);
  const quit = step.cut === true || Math.min(...whole) < 0.12 * profile.rpm;
  const settled = alone.length >= 4 ? alone : whole.slice(-Math.max(2, Math.floor(whole.length / 3)));
  const stood =
    alone.length < 4 && step.level !== undefined
      ? onFewLines(step.level, settled)
      : levelOf(settled, ctx.grain);
  const level = quit ? 0 : stood.value;
  const calmly = levelOf(calm, ctx.grain);
  // A base that still moved is as unsure as it is far from where it stood.
  const baseSigma = Math.hypot(calmly.sigma, straight ? 0 : (base - calmly.value) / 2);
  const held = step.until - step.at;
  const calmSigma = Math.max(deviation(calm, median(calm)), 2.2 * scale);
  const shake = quit ? 0 : deviation(settled, median(settled));
  const roughness = quit ? 1 : Math.max(shake, 0.1) / calmSigma;
  // However far apart the lines are, one lies in it.
  const lines = 1.2 * clean.interval;
  const egtBefore: Record<number, number> = {};
  const egtChange: Record<number, number> = {};
  for (const cylinder of cylindersOf(trace, "egt")) {
    const values = trace.channels[`egt${cylinder}`] as Float64Array;
    // Straight from the other side it is hot already: it is held against both.
    const calmTo = straight ? (reading.base?.to ?? step.at) : step.at;
    const was = meanOf(trace, values, calmTo - Math.max(2, lines), calmTo);
    const is = meanOf(trace, values, Math.max(step.at + 1.5, to - Math.max(1.5, lines)), to);
    if (Number.isNaN(was) || Number.isNaN(is)) continue;
    egtBefore[cylinder] = was;
    egtChange[cylinder] = is - was;
  }
  const made: MagnetoReading = {
    side,
    from: step.at,
    to: step.until,
    base,
    level,
    drop: base - level,
    dropSigma: Math.hypot(baseSigma, stood.sigma, UNSETTLED_RPM * scale * Math.exp(-held / 5)),
    seen: step.seen,
    held,
    roughness,
    feel: quit ? "quit" : roughness > 2.6 && shake > 8.5 * scale ? "rough" : "smooth",
    egtBefore,
    egtChange,
    egtBeside: egtChange,
  };
  if (next?.step === "both") {
    const back = pieceOf(
      trace,
      rpm,
      next.at + Math.min(3, 4 * next.settle + 0.5),
      Math.min(next.until, next.at + 8) - 0.1,
    ).y;
    if (back.length >= 3) {
      made.back = levelOf(back, ctx.grain).value;
      made.backAfter = next.settle * 3;
    }
  }
  const hole = clean.problems.some(
    (p) => p.kind === "gap" && (p.from ?? 0) < step.until && (p.to ?? 0) > step.at - 1,
  );
  if (hole) made.doubt = "There is a hole in the trace here: do it again.";
  else if (!quit && held < SHORTEST_S) made.doubt = "Too short to settle: stay a few seconds longer.";
  reading.tries.push(made);
  // Without prompts a moment on the way back may look like one more try: it takes nothing from one that had settled.
  const settledBefore = !reading.prompted && reading[side] !== undefined && !reading[side]?.doubt;
  // Nor from one on which it stopped: what looks like a try behind it may be the propeller, or the other side.
  const stoppedBefore = !reading.prompted && reading[side]?.feel === "quit" && !quit;
  if (!stoppedBefore && (!made.doubt || !settledBefore)) reading[side] = made;
}

/** A side of so few lines that half of them lie on its way: where the curve through them leads, no surer than that is from where they are. */
function onFewLines(level: number, lines: readonly number[]): StretchLevel {
  return { value: level, sigma: 0.7 * Math.abs(level - midmean(lines)) };
}

/**
 * Exhaust goes on rising for seconds, and takes as long to fall again: two sides are compared after the same time on each, and from the lower of the
 * two beginnings, since the second may begin while the gas is still hot from the first.
 */
function layBeside({ trace, clean }: Context, { right, left }: RunUpReading): void {
  if (!right || !left) return;
  const short = Math.min(right.held, left.held);
  for (const made of [right, left]) {
    made.egtBeside = Object.fromEntries(
      Object.keys(made.egtBefore).flatMap((name) => {
        const cylinder = Number(name);
        const was = Math.min(
          right.egtBefore[cylinder] ?? Number.POSITIVE_INFINITY,
          left.egtBefore[cylinder] ?? Number.POSITIVE_INFINITY,
        );
        const values = trace.channels[`egt${cylinder}`] as Float64Array;
        const end = made.from + short - 0.15;
        const is = meanOf(
          trace,
          values,
          Math.max(made.from + 1.5, end - Math.max(1.5, 1.2 * clean.interval)),
          end,
        );
        return Number.isNaN(is) ? [] : [[cylinder, is - was]];
      }),
    );
  }
}

/** The level at the end of a piece: its middle, or where its line ends when it still climbs or falls by more than `slope` a second. */
function levelAtEnd({ t, y }: { t: number[]; y: number[] }, slope: number, grain: number): number {
  const third = Math.floor(y.length / 3);
  const rate = rateOf({ t, y });
  if (Math.abs(rate) <= slope) return levelOf(y, grain).value;
  const seconds = ((t.at(-1) as number) - (t[0] as number)) * (2 / 3);
  return median(y.slice(-third)) + rate * (seconds / 4);
}

/** How fast a piece climbs from its first third to its last, a second; 0 where it is too short to say. */
function rateOf({ t, y }: { t: number[]; y: number[] }): number {
  const third = Math.floor(y.length / 3);
  if (third < 3) return 0;
  const seconds = ((t.at(-1) as number) - (t[0] as number)) * (2 / 3);
  return (median(y.slice(-third)) - median(y.slice(0, third))) / seconds;
}

/** How plainly it is warm air: long enough, out of a calm base, with the exhaust cooler. */
function plainness({ held, doubt, egtChange }: HeatReading): number {
  return (doubt ? 0 : 1) + (held >= SHORTEST_S ? 1 : 0) + (egtChange === undefined || egtChange < -6 ? 1 : 0);
}

/** Of two the later one, as with a try; without prompts what looks less like warm air takes nothing from what does. */
function plainer(before: HeatReading | undefined, now: HeatReading, prompted: boolean): HeatReading {
  return before && !prompted && plainness(before) > plainness(now) ? before : now;
}

function readHeat(ctx: Context, i: number, { base: runUp, prompted }: RunUpReading): HeatReading {
  const { trace, steps } = ctx;
  const runUpBase = runUp?.value;
  const step = steps[i] as FoundStep;
  const cold = steps[i + 1]?.step === "cold" ? steps[i + 1] : undefined;
  const rpm = rpmOf(ctx);
  const scale = rpmScale(ctx.profile);
  const before = steps[i - 1];
  const settled =
    before?.step === "propeller"
      ? propellerBack(trace, before.at, step.at - 0.1, scale)
      : before
        ? before.at + Math.min(3, 4 * before.settle)
        : 0;
  const calm = pieceOf(trace, rpm, Math.min(step.at - 1.5, Math.max(step.at - 4, settled)), step.at - 0.1);
  // A propeller that is still on its way back is no base: then it is that of the magnetos.
  const climbs = before?.step === "propeller" && rateOf(calm) > 6 * scale;
  const own = levelAtEnd({ t: calm.t, y: orNaN(calm.y) }, 4 * scale, ctx.grain);
  const base = climbs && runUpBase !== undefined ? Math.max(own, runUpBase) : own;
  const hotPiece = pieceOf(trace, rpm, step.at, step.until - 0.15);
  const smooth = runningMedian(hotPiece.y, Math.max(1, Math.round(0.8 / Math.max(ctx.clean.interval, 0.1))));
  const hotRow = smooth.slice(Math.floor(smooth.length * 0.12));
  const least = hotRow.length > 0 ? Math.min(...hotRow) : base;
  const atEnd = median(orNaN(pieceOf(trace, rpm, step.until - 2, step.until - 0.15).y));
  const late = median(orNaN(pieceOf(trace, rpm, step.at + 2.5, step.until - 0.15).y));
  // Without ice the needle stands; the least of a noisy row would make the drop look bigger than it is.
  const standing =
    Math.abs(atEnd - late) < 9 * rpmScale(ctx.profile) && Math.abs(late - least) < 14 * rpmScale(ctx.profile);
  const hot = standing ? late : least;
  const egt = cylindersOf(trace, "egt").flatMap((cylinder) => {
    const values = trace.channels[`egt${cylinder}`] as Float64Array;
    const change =
      meanOf(trace, values, step.until - 1.5, step.until) - meanOf(trace, values, step.at - 2, step.at);
    return Number.isNaN(change) ? [] : [change];
  });
  const made: HeatReading = {
    from: step.at,
    to: cold?.until ?? step.until,
    held: step.until - step.at,
    base,
    hot,
    drop: base - hot,
    seen: step.seen && Math.abs(base - hot) >= 6 * rpmScale(ctx.profile),
    roseWhileHot: Math.max(0, atEnd - hot),
    ...(climbs && { doubt: "The propeller was still coming back: do it again." }),
  };
  // Without a prompt, and not out of a calm base, it may be anything.
  if (!prompted && before && !restsAtBase(before))
    made.doubt ??= "The engine did not stand on both before it: do it again.";
  if (egt.length > 0) made.egtChange = median(egt);
  if (cold) {
    const again = pieceOf(
      trace,
      rpm,
      cold.at + Math.min(3, 4 * cold.settle + 0.5),
      Math.min(cold.until, cold.at + 9) - 0.1,
    ).y;
    // Left again too soon for that: where the stretch as a whole stood.
    const coldAgain = again.length >= 3 ? levelOf(again, ctx.grain).value : cold.level;
    if (coldAgain !== undefined) {
      made.coldAgain = coldAgain;
      made.gain = coldAgain - base;
    }
  }
  return made;
}

function orNaN(values: number[]): number[] {
  return values.length > 0 ? values : [Number.NaN];
}

function runningMedian(values: readonly number[], half: number): number[] {
  return values.map((_, i) => median(values.slice(Math.max(0, i - half), i + half + 1)));
}

function readPropeller(ctx: Context, i: number): PropellerReading {
  const { trace, steps } = ctx;
  const step = steps[i] as FoundStep;
  const rpm = rpmOf(ctx);
  const base = median(orNaN(pieceOf(trace, rpm, step.at - 3, step.at - 0.1).y));
  const piece = pieceOf(trace, rpm, step.at, step.until);
  const smooth = runningMedian(piece.y, 2);
  let lowest = 0;
  smooth.forEach((value, at) => {
    if (value < (smooth[lowest] as number)) lowest = at;
  });
  const least = smooth[lowest] ?? base;
  // Its answer is how soon half of the fall has come, from where it begins to fall.
  const fallen = (part: number) => smooth.findIndex((value) => value < base - (base - least) * part);
  const begins = fallen(0.12);
  const half = fallen(0.5);
  const map = trace.channels.map;
  const mapRise = map
    ? Math.max(...orNaN(pieceOf(trace, map, step.at, step.until).y)) -
      meanOf(trace, map, step.at - 3, step.at)
    : Number.NaN;
  const back = pieceOf(trace, rpm, step.until - 2, step.until - 0.1).y;
  return {
    from: step.at,
    to: step.until,
    base,
    least,
    drop: base - least,
    answeredIn:
      half >= 0 && begins >= 0 ? (piece.t[half] as number) - (piece.t[begins] as number) : Number.NaN,
    ...(back.length >= 3 && { back: median(back) }),
    ...(!Number.isNaN(mapRise) && { mapRise }),
  };
}

function readIdle(ctx: Context, i: number): IdleReading {
  const { trace, steps, profile } = ctx;
  const step = steps[i] as FoundStep;
  const rpm = rpmOf(ctx);
  const all = pieceOf(trace, rpm, step.at, step.until).y;
  const settled = pieceOf(trace, rpm, step.at + Math.max(2, 4 * step.settle), step.until - 0.2).y;
  const quit = all.length > 0 && Math.min(...all) < 0.06 * profile.rpm;
  const used = settled.length >= 3 ? settled : all.slice(-3);
  return {
    from: step.at,
    to: step.until,
    floor: quit ? 0 : median(orNaN(used)),
    held: step.until - step.at,
    quit: quit || steps[i + 1]?.step === "stop",
  };
}

function needle(trace: Trace, name: Channel, from: number, to: number): NeedleReading | undefined {
  const values = trace.channels[name];
  if (!values) return undefined;
  const { y } = pieceOf(trace, values, from, to);
  return y.length >= 3 ? { value: median(y), from, to } : undefined;
}

/** The needles while the run-up rpm stood: over the last calm stretch before the idle, where the temperatures are highest. */
function readNeedles(ctx: Context, reading: RunUpReading): void {
  const { trace, steps } = ctx;
  const calm = steps.filter(restsAtBase).filter(({ at, until }) => until - at > 2);
  const first = calm[0];
  const last = calm.at(-1);
  if (!first || !last) return;
  // On both, wherever that was: a step later the needles have had their time.
  const whole = (name: Channel) => {
    const values = calm.flatMap(({ at, until }) =>
      trace.channels[name] ? pieceOf(trace, trace.channels[name], at + 1.5, until).y : [],
    );
    return values.length >= 3 ? { value: median(values), from: first.at, to: last.until } : undefined;
  };
  const set = <
    K extends "oilPressure" | "oilTemperature" | "volts" | "amps" | "suction" | "map" | "fuelFlow",
  >(
    name: K,
  ) => {
    const made = name === "oilTemperature" ? needle(trace, name, last.at, last.until) : whole(name);
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
  let hottest: (NeedleReading & { cylinder: number }) | undefined;
  let coolest = Number.POSITIVE_INFINITY;
  for (const cylinder of cylindersOf(trace, "cht")) {
    const made = needle(trace, `cht${cylinder}`, last.until - 4, last.until);
    if (!made) continue;
    coolest = Math.min(coolest, made.value);
    if (!hottest || made.value > hottest.value) hottest = { ...made, cylinder };
  }
  if (hottest) reading.head = { ...hottest, coolest };
  const ground = steps.findLast(({ step, until }) => step === "ground" && until <= first.at + 0.5);
  for (const cylinder of cylindersOf(trace, "egt")) {
    const values = trace.channels[`egt${cylinder}`] as Float64Array;
    const piece = pieceOf(trace, values, first.at + 3, first.until).y;
    if (piece.length < 3) continue;
    const settledOnly = piece.slice(
      -Math.max(3, Math.min(piece.length, Math.round(4 / Math.max(ctx.clean.interval, 0.05)))),
    );
    reading.egt.base[cylinder] = median(settledOnly);
    reading.egt.scatter[cylinder] = jumpiness(piece);
    const atEnd = (step: { from: number; to: number } | undefined) => {
      const long = Math.max(2.5, 3.2 * ctx.clean.interval);
      const y = step ? pieceOf(trace, values, Math.max(step.from, step.to - long), step.to).y : [];
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
  const other = (side: Side): Side => (side === "right" ? "left" : "right");
  const ran = steps.some(({ step }) => step === "run-up" || step === "both");
  if (
    tries.length === 0 &&
    ran &&
    !(marks && marks.length > 0 && !marks.some((mark) => mark.step === "right" || mark.step === "left"))
  )
    notes.push({
      kind: "none tried",
      sentence: "Neither magneto was tried in this trace, or neither dropped.",
    });
  for (const side of ["right", "left"] as const)
    if (tries.length > 0 && !reading[side])
      notes.push({
        kind: "second never tried",
        side,
        sentence: `Only one magneto shows in this trace: ${word(side)} was never tried, or it did not drop. Do both again.`,
      });
  steps.forEach((step, i) => {
    if (step.step !== "right" && step.step !== "left") return;
    const next = steps[i + 1];
    const missing = next && next.step !== "both" && next.step !== "stop" && next.step !== step.step;
    if (missing || (!next && step.seen && reading.tries.at(-1)?.feel !== "quit"))
      notes.push({
        kind: "not back to both",
        side: step.step,
        sentence: `You did not come back to both after ${word(step.step)}.`,
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
        sentence: `${capital(word(side))} was tried ${own.length} times: the last one counts.`,
      });
    if (last && !last.seen)
      notes.push({
        kind: "no change seen",
        side,
        sentence: `Nothing changed when ${word(side)} was called.`,
      });
  }
  if (reading.heat?.doubt)
    notes.push({ kind: "heat in doubt", sentence: `${capital(profile.heat)}: ${reading.heat.doubt}` });
  if (marks && tries.length > 1 && tries[0]?.side === other(profile.firstSide))
    notes.push({
      kind: "wrong order",
      side: profile.firstSide,
      sentence: `This type tries ${word(profile.firstSide)} first.`,
    });
  return notes;
}
