import { cleanTrace, withoutFrozen } from "../../trace/clean-trace";
import { type Channel, cylindersOf, type Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import { chanceCases } from "../../units/chance-words";
import { capital, formatNumber } from "../../units/format";
import { type RunUpProfile, rpmScale } from "../run-up-profile";
import { findWays, propellerBack } from "./find-steps";
import type { FoundStep, Mark } from "./found-step";
import { asBoth, asDropped, hardlyDropped } from "./hardly-dropped";
import { jumpiness, meanOf } from "./label-plateaus";
import { pieceOf } from "./level-change";
import { grainOf, levelOf } from "./levels/stretch-level";
import { jumpingProbes } from "./probe-jumps";
import { layBeside, readMagneto } from "./read-magneto";
import {
  type Context,
  deviation,
  levelAtEnd,
  orNaN,
  rateOf,
  restsAtBase,
  rpmOf,
  SHORTEST_S,
  unsettled,
} from "./reading-context";
import type {
  HeatReading,
  IdleReading,
  NeedleReading,
  PropellerReading,
  RunUpNote,
  RunUpReading,
  Side,
} from "./run-up-reading";
import { asTold, onOneSide, type SidesTold, sidesAreNamed } from "./sides-told";
import { doubtUnsteady, isUnsteady } from "./unsteady";

/** So much on both sides of a run-up says how its probes are, seconds. */
const BESIDE_S = 30;

/**
 * Reads a run-up out of a trace: which steps there were and when, base, drop, recovery, difference, time on each side, exhaust by cylinder, heat,
 * propeller, idle and the needles meanwhile; and what was left out. Nothing is judged here. `marks` are the coach's prompts, where it was one; `told` is what
 * the pilot said of the sides where there are none: without it `right` and `left` are the first and the second (see `asTold`).
 * Values in the trace's own units (rpm, °F, psi, V, A, inHg). Valid range: any trace; what cannot be read is absent and named in `problems`.
 * Complexity: O(n) and a small search for each step; half an hour at ten lines a second in well under 200 ms.
 * Source: what a run-up shows is common practice; change points: Killick et al. (2012).
 */
export function readRunUp(
  raw: Trace,
  profile: RunUpProfile,
  marks?: readonly Mark[],
  told?: SidesTold,
): RunUpReading {
  return (readWays(raw, profile, marks, told)[0] as ReadWay).reading;
}

/** One way to read a run-up, and how likely it is; those of one trace add up to one. */
export interface ReadWay {
  weight: number;
  reading: RunUpReading;
}

/** The likely ways to read a run-up, likeliest first, each read as `readRunUp` does: four at most. */
export function readWays(
  raw: Trace,
  type: RunUpProfile,
  marks?: readonly Mark[],
  told?: SidesTold,
): ReadWay[] {
  const prompted = marks !== undefined && marks.length > 0;
  const profile = asTold(type, prompted, told);
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
  const grain = grainOf(trace.channels.rpm ?? []);
  const ways = findWays(trace, profile, marks).map(({ steps: found, weight }) => {
    const read = (steps: FoundStep[]): RunUpReading => {
      const made = { ...blank(), steps };
      fill(made, { trace, clean, profile, steps, grain });
      return made;
    };
    let reading = read(prompted ? found : onOneSide(found, profile, told));
    // What hardly dropped is a return to both that stands a little lower: it is taken for what it is, and the rest is read without it.
    const hardly = reading.tries.filter((one) => hardlyDropped(one, profile));
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
      sentence: `This trace can be read in another way too, about ${chanceCases(second.weight)}: ${sidesIn(second, profile)}.`,
    });
  }
  return ways;
}

/** From this weight on another way is worth a sentence. */
const WORTH_SAYING = 0.2;

/** Drops that are no further apart are the same, rpm. */
const ALIKE_RPM = 15;

const SIDES = ["right", "left"] as const;

function isAlike({ reading: one }: ReadWay, { reading: other }: ReadWay, side: Side): boolean {
  const a = one[side]?.drop;
  const b = other[side]?.drop;
  return a === undefined || b === undefined ? a === b : Math.abs(a - b) <= ALIKE_RPM;
}

const sidesAlike = (one: ReadWay, other: ReadWay): boolean =>
  SIDES.every((side) => isAlike(one, other, side));

/** With the coach there it is quickly done again: a side that another way to read it has otherwise is no measure. Where the engine stopped it stopped. */
function doubtUnlike(first: ReadWay, second: ReadWay): void {
  for (const side of SIDES) {
    const made = first.reading[side];
    if (made && made.feel !== "quit" && !isAlike(first, second, side))
      made.doubt ??= "The trace can be read in another way too: do it again.";
  }
}

/** What the sides did in one way to read it, in words: "right 75 rpm less, left does not show". */
function sidesIn({ reading }: ReadWay, { sideWords, firstSide }: RunUpProfile): string {
  const sides: Side[] = firstSide === "right" ? ["right", "left"] : ["left", "right"];
  return sides
    .map((side) => {
      const made = reading[side];
      const word = sideWords?.[side] ?? side;
      if (!made) return `${word} does not show`;
      if (made.feel === "quit") return `on ${word} it stopped`;
      return `${word} ${formatNumber(5 * Math.round(Math.abs(made.drop) / 5))} rpm ${made.drop < 0 ? "more" : "less"}`;
    })
    .join(", ");
}

/** Reads what these steps show. */
function fill(reading: RunUpReading, ctx: Context): void {
  const { trace, steps } = ctx;
  const jumping = jumpingProbes(
    trace,
    (steps[0]?.at ?? 0) - BESIDE_S,
    (steps.at(-1)?.until ?? Number.POSITIVE_INFINITY) + BESIDE_S,
  );
  if (jumping.length > 0) reading.egt.jumping = jumping;
  readBase(ctx, reading);
  for (const [i, step] of steps.entries()) {
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
  doubtUnsteady(reading, ctx);
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

/** How plainly it is warm air: long enough, out of a calm base, with the exhaust cooler. */
function plainness({ held, doubt, egtChange }: HeatReading): number {
  return (doubt ? 0 : 1) + (held >= SHORTEST_S ? 1 : 0) + (egtChange === undefined || egtChange < -6 ? 1 : 0);
}

/** Of two the later one, as with a try; without prompts what looks less like warm air takes nothing from what does. */
function plainer(before: HeatReading | undefined, now: HeatReading, prompted: boolean): HeatReading {
  return before && !prompted && plainness(before) > plainness(now) ? before : now;
}

/** So long behind its cycle a propeller is surely back, seconds. */
const BACK_S = 1.5;
/** No ice and no hand leaves the rpm so far beside the run-up's: something else was going on. */
const NO_BASE = 0.12;
/** And this part of the rpm before it is there again. */
const BACK_TO = 0.97;

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
  const half = Math.max(1, Math.round(0.8 / Math.max(ctx.clean.interval, 0.1)));
  const smooth = runningMedian(hotPiece.y, half);
  const hotRow = smooth.slice(Math.floor(smooth.length * 0.12));
  const least = hotRow.length > 0 ? Math.min(...hotRow) : base;
  const atEnd = median(orNaN(pieceOf(trace, rpm, step.until - 2, step.until - 0.15).y));
  const lateRow = pieceOf(trace, rpm, step.at + 2.5, step.until - 0.15).y;
  const late = median(orNaN(lateRow));
  // Without ice the needle stands; the least of a noisy row would make the drop look bigger than it is.
  const standing =
    Math.abs(atEnd - late) < 9 * rpmScale(ctx.profile) && Math.abs(late - least) < 14 * rpmScale(ctx.profile);
  const hot = standing ? late : least;
  const lowest = smooth.indexOf(least);
  const hotSigma = Math.hypot(
    sigmaOf(standing ? lateRow : hotPiece.y.slice(Math.max(0, lowest - half), lowest + half + 1), ctx.grain),
    unsettled(step.until - step.at, scale),
    // The middle one of its figures is one that the tachometer shows.
    ctx.grain / EVENLY,
  );
  // A base that was not the engine's own is as unsure as it is far from that.
  const baseSigma = Math.hypot(sigmaOf(calm.y, ctx.grain), (base - own) / 2);
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
    dropSigma: Math.hypot(baseSigma, hotSigma),
    seen: step.seen && Math.abs(base - hot) >= 6 * rpmScale(ctx.profile),
    roseWhileHot: Math.max(0, atEnd - hot),
    ...(climbs && { doubt: "The propeller was still coming back: do it again." }),
  };
  // A propeller that has come back stands on both again; one that is still pulled does not.
  const cycled =
    before?.step === "propeller" &&
    !climbs &&
    step.at - settled >= BACK_S &&
    own > BACK_TO * (steps[i - 2]?.level ?? own);
  // Without a prompt, and not out of a calm base, it may be anything.
  const beside = runUpBase !== undefined && Math.abs(base - runUpBase) > NO_BASE * runUpBase;
  if (!prompted && before && ((!restsAtBase(before) && !cycled) || beside))
    made.doubt ??= "The engine did not stand on both before it: do it again.";
  if (step.uncalled) made.doubt ??= "Nobody had called for it: do it again.";
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
      made.gainSigma = Math.hypot(
        baseSigma,
        again.length >= 3 ? sigmaOf(again, ctx.grain) : 0,
        unsettled(cold.until - cold.at, scale),
      );
    }
  }
  return made;
}

/** What lies anywhere between two ends has their distance by this as its standard deviation. */
const EVENLY = Math.sqrt(12);

/** How sure the level of a row is, one standard deviation; not a number where there is nothing in it. */
const sigmaOf = (values: readonly number[], grain: number): number =>
  values.length > 0 ? levelOf(values, grain).sigma : Number.NaN;

function runningMedian(values: readonly number[], half: number): number[] {
  return values.map((_, i) => median(values.slice(Math.max(0, i - half), i + half + 1)));
}

function readPropeller(ctx: Context, i: number): PropellerReading {
  const { trace, steps } = ctx;
  const step = steps[i] as FoundStep;
  const rpm = rpmOf(ctx);
  const before = pieceOf(trace, rpm, step.at - 3, step.at - 0.1).y;
  const base = median(orNaN(before));
  const piece = pieceOf(trace, rpm, step.at, step.until);
  // Half a second together, and no line more: a short cycle is one or two lines where they are far apart.
  const smooth = runningMedian(piece.y, Math.round(0.2 / Math.max(ctx.clean.interval, 0.05)));
  let lowest = 0;
  smooth.forEach((value, at) => {
    if (value < (smooth[lowest] as number)) lowest = at;
  });
  const least = smooth[lowest] ?? base;
  // Between its lowest line and the next it may have been lower still.
  const beside = Math.max(smooth[lowest - 1] ?? least, smooth[lowest + 1] ?? least) - least;
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
    dropSigma: Math.hypot(
      sigmaOf(before, ctx.grain),
      sigmaOf(piece.y.slice(Math.max(0, lowest - 2), lowest + 3), ctx.grain),
      beside / EVENLY,
    ),
    answeredIn:
      half >= 0 && begins >= 0 ? (piece.t[half] as number) - (piece.t[begins] as number) : Number.NaN,
    answeredInSigma: (ctx.clean.interval * Math.SQRT2) / EVENLY,
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
    floorSigma: quit ? 0 : Math.hypot(sigmaOf(used, ctx.grain), ctx.grain / EVENLY),
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
  // Of a trace that shows no drop at all nothing else is said of the sides.
  if (isUnsteady(reading)) return notes;
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
