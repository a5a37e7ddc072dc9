import { otherSide } from "../../engine/side";
import type { Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import { type RunUpProfile, rpmScale } from "../run-up-profile";
import { alignWithPrompts, promptPriors } from "./align-with-prompts";
import { findCuts, insertEngineCuts } from "./find-cuts";
import type { FoundStep, Mark, RunUpStep } from "./found-step";
import { LONG_FOR_ONE_S, labelPlateaus, type PlateauLabel } from "./label-plateaus";
import { findLevelChange, valuesBetween } from "./level-change";
import { findPlateaus, type Plateau } from "./plateaus";

/** One way to read a trace: its steps, and how likely that they are what was done; the weights of all ways add up to one. */
export interface WayToRead {
  steps: FoundStep[];
  weight: number;
}

/** Ways that are less likely are left out, and more than so many say nothing new. */
const LEAST_WEIGHT = 0.03;
const MOST_WAYS = 4;

/**
 * The likely ways to read the steps of a run-up in a trace, likeliest first. They follow from where the rpm stands, what the exhaust does meanwhile and,
 * where the coach called them, from its prompts: each way is laid beside what was called. When each began is fitted to a fraction of a second. Seconds, rpm. Without an rpm channel or with fewer than ten lines one way without steps.
 * Source: our own; how well it does is measured by `npm run bench`.
 */
export function findInterpretations(trace: Trace, type: RunUpProfile, marks?: readonly Mark[]): WayToRead[] {
  if (!trace.channels.rpm || trace.t.length < 10) return [{ steps: [], weight: 1 }];
  const prompts = marks && marks.length > 0 ? marks : undefined;
  const called = prompts?.find(({ step }) => step === "right" || step === "left")?.step;
  const profile = called === "right" || called === "left" ? { ...type, firstSide: called } : type;
  const leans = prompts && promptPriors(prompts);
  const plateaus = findPlateaus(trace, rpmScale(profile));
  const quiet = stoppedAtEnd(trace, profile, plateaus.at(-1));
  if (quiet) plateaus.push(quiet);
  const cuts = findCuts(trace, profile);
  const labelled = labelPlateaus(trace, plateaus, profile, leans);
  const likeliest = labelled[0]?.score ?? 0;
  // With prompts a row that is less likely by itself may be the one that was called.
  const worthLooking = labelled.filter(({ score }) => prompts || Math.exp(score - likeliest) >= LEAST_WEIGHT);
  const rows = worthLooking.map(({ labels, score }) => {
    const steps = insertEngineCuts(stepsFromLevels(plateaus, labels, profile), cuts, profile);
    if (!prompts || !leans) return { steps, score };
    // What was called is counted once: where all of it is laid beside all that was done.
    const leant = plateaus.reduce((sum, plateau, i) => sum + leans(labels[i] as PlateauLabel, plateau), 0);
    const laid = alignWithPrompts(steps, prompts, profile);
    return { steps: laid.steps, score: score - leant + laid.score };
  });
  rows.sort((a, b) => b.score - a.score);
  const best = rows[0]?.score ?? 0;
  const ways = new Map<string, WayToRead>();
  for (const { steps, score } of rows) {
    const weight = Math.exp(score - best);
    if (weight < LEAST_WEIGHT) break;
    const key = steps.map(({ step, at }) => `${step} ${at.toFixed(1)}`).join();
    const known = ways.get(key);
    if (known) known.weight += weight;
    else ways.set(key, { steps, weight });
  }
  const found = [...ways.values()].sort((a, b) => b.weight - a.weight).slice(0, MOST_WAYS);
  const all = found.reduce((sum, { weight }) => sum + weight, 0);
  if (found.length > 0)
    return found.map(({ steps, weight }) => ({
      steps: prompts ? asOneChange(trace, steps) : steps,
      weight: weight / all,
    }));
  const cutOnly = insertEngineCuts([], cuts, profile);
  return [{ steps: prompts ? alignWithPrompts(cutOnly, prompts, profile).steps : cutOnly, weight: 1 }];
}

/** Lines no further apart show a step by itself, seconds. */
const DENSE_S = 0.22;
/** So far from where it was found the one change of a step is looked for, seconds; and so plain it has to be, in standard deviations. */
const AROUND_S = 3;
const PLAIN_Z = 8;

/**
 * The steps of a run-up that was called, with the begin of each where the one change behind its prompt begins: a level that settles slowly may have been cut in two. Only where the lines lie close
 * together.
 */
function asOneChange(trace: Trace, steps: readonly FoundStep[]): FoundStep[] {
  const { rpm } = trace.channels;
  const first = trace.t[0] as number;
  const interval = ((trace.t.at(-1) as number) - first) / Math.max(1, trace.t.length - 1);
  if (!rpm || interval > DENSE_S) return [...steps];
  const made = steps.map((step) => ({ ...step }));
  for (const [i, step] of made.entries()) {
    const before = made[i - 1];
    if (
      !before ||
      !step.seen ||
      step.cut ||
      before.cut ||
      step.step === "propeller" ||
      before.step === "propeller"
    )
      continue;
    const from = Math.max(step.at - AROUND_S, before.at + Math.min(2, 3 * before.settle));
    const { t, y } = valuesBetween(trace, rpm, from, Math.min(step.until, step.at + AROUND_S));
    const change = findLevelChange(t, y);
    if (!change || change.z < PLAIN_Z) continue;
    // With ice it falls a little and then rises a lot: the answer to the hand is the fall.
    if (step.step === "heat" && change.after > change.before) continue;
    step.at = change.at;
    step.settle = change.settle;
    before.until = change.at;
  }
  return made;
}

/**
 * When a propeller that was cycled from `from` on had come back, seconds: behind the last line that was plainly below where the rpm stands at
 * `to`. `scale` as of `rpmScale`. Source: forty rpm at 1,800 (our own).
 */
export function propellerRecoveryTime(trace: Trace, from: number, to: number, scale: number): number {
  const { t, y } = valuesBetween(trace, trace.channels.rpm as Float64Array, from, to);
  if (y.length === 0) return from;
  const level = median(y.slice(-Math.max(3, Math.ceil(y.length / 12))));
  const low = t.findLast((_, i) => (y[i] as number) < level - 40 * scale);
  return low === undefined ? from : Math.min(low + 1, to - 1);
}

function stepsFromLevels(
  plateaus: readonly Plateau[],
  labels: readonly PlateauLabel[],
  profile: RunUpProfile,
): FoundStep[] {
  const other = otherSide(profile.firstSide);
  const named = (label: PlateauLabel, before: RunUpStep | undefined): RunUpStep | undefined => {
    switch (label) {
      case "first":
        return profile.firstSide;
      case "second":
        return other;
      case "base":
        if (before === "right" || before === "left") return "both";
        return before === "heat" ? "cold" : before === "propeller" ? "propeller" : "run-up";
      case "power":
        // Above the base behind the heat: the ice is gone. Elsewhere somebody clears a plug or tries the power.
        return before === "heat" ? "cold" : "clear";
      case "heat":
      case "propeller":
      case "idle":
      case "ground":
        return label;
      case "stopped":
        return "stop";
      case "other":
        return undefined;
    }
  };
  const found: FoundStep[] = [];
  plateaus.forEach((plateau, i) => {
    const before = found.at(-1);
    const step = named(labels[i] as PlateauLabel, before?.step);
    if (!step) return;
    const goesOn = before && (before.step === step || (step === "run-up" && isAtBase(before.step)));
    if (before && goesOn) {
      before.until = plateau.to;
      before.level = plateau.rpm;
      return;
    }
    const onset = { at: plateau.onset, settle: plateau.settle };
    if (before) {
      before.until = onset.at;
      before.untilRange = plateau.onsetRange;
    }
    // With both sides behind it, what stops out of the run-up has quit at idle: the throttle was closed, and it stood there too short to be seen.
    if (step === "stop" && before && (isAtBase(before.step) || before.step === "heat") && bothTried(found))
      found.push({ step: "idle", at: onset.at, until: plateau.from, seen: true, settle: onset.settle });
    found.push({
      step,
      at: onset.at,
      until: plateau.to,
      seen: true,
      settle: onset.settle,
      level: plateau.rpm,
      atRange: plateau.onsetRange,
    });
  });
  const sides = found.filter(({ step }) => step === "right" || step === "left");
  // One side alone, and nothing of the other: straight after each other and alike, both look like that.
  // Longer than anybody stays on one, it may be both although the other was tried as well: a second time.
  const alone = new Set(sides.map(({ step }) => step)).size === 1;
  for (const side of sides)
    if (side.until - side.at >= (alone ? TWO_SIDES_S : LONGEST_S)) side.perhapsBoth = true;
  return found;
}

/** Two sides take as long at least, seconds. Common practice: three seconds and more on each. */
const TWO_SIDES_S = 6;
/** So long nobody stays on one side, seconds. Common practice: three to fifteen seconds. */
const LONGEST_S = 15;

/** Where the engine stops the trace mostly ends soon: the few lines at nought are too short to stand, and still say it. */
function stoppedAtEnd(
  { t, channels: { rpm } }: Trace,
  profile: RunUpProfile,
  last: Plateau | undefined,
): Plateau | undefined {
  if (!rpm || !last || last.rpm < 0.08 * profile.rpm) return undefined;
  let from = t.length;
  while (from > 0 && (rpm[from - 1] as number) < 0.12 * profile.rpm) from--;
  if (from === t.length || (t[from] as number) <= last.to) return undefined;
  return {
    from: t[from] as number,
    to: t.at(-1) as number,
    onset: t[from] as number,
    onsetRange: [t[from] as number, t[from] as number],
    rpm: 0,
    settle: 0.3,
    sigma: 0,
  };
}

/** Whether both sides were tried, as far as can be told: one that stands for so long may be both. */
const bothTried = (found: readonly FoundStep[]): boolean => {
  const sides = found.filter(({ step }) => step === "right" || step === "left");
  return (
    new Set(sides.map(({ step }) => step)).size === 2 ||
    sides.some(({ at, until }) => until - at >= LONG_FOR_ONE_S)
  );
};

/** After these the engine is at its base, on both: going on there is no step of its own. */
function isAtBase(step: RunUpStep): boolean {
  return step === "both" || step === "cold" || step === "propeller" || step === "run-up";
}
