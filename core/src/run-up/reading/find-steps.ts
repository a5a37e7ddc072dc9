import { otherSide } from "../../engine/side";
import type { Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import { type RunUpProfile, rpmScale } from "../run-up-profile";
import { alignWithPrompts, promptPriors } from "./align-with-prompts";
import { findCuts, insertEngineCuts } from "./find-cuts";
import { findPropellerCycles, insertPropellerCycles } from "./find-propeller-cycles";
import type { FoundStep, Mark, RunUpStep } from "./found-step";
import { LONG_FOR_ONE_S, labelPlateaus } from "./label-plateaus";
import { findLevelChange, valuesBetween } from "./level-change";
import type { PlateauLabel } from "./plateau-label";
import { findPlateaus, type Plateau } from "./plateaus";

/** One interpretation of a trace: its steps and probability; the weights of all interpretations sum to one. */
export interface WayToRead {
  steps: FoundStep[];
  weight: number;
}

/** Minimum weight, and maximum number of interpretations. */
const MIN_WEIGHT = 0.03;
const MAX_WAYS = 4;

/**
 * Finds the likely interpretations of a run-up trace, most likely first, from rpm levels, EGT, and the coach's prompts if any.
 * Start times are fitted to a fraction of a second. Seconds, rpm. Without an rpm channel or with fewer than ten samples: one
 * interpretation without steps.
 * Source: own method; `npm run bench` measures its performance.
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
  const cycles = findPropellerCycles(trace, profile);
  const labelled = labelPlateaus(trace, plateaus, profile, leans);
  const likeliest = labelled[0]?.score ?? 0;
  // With prompts, a sequence that is less likely by itself may be the prompted one.
  const worthLooking = labelled.filter(({ score }) => prompts || Math.exp(score - likeliest) >= MIN_WEIGHT);
  const rows = worthLooking.map(({ labels, score }) => {
    const levels = insertPropellerCycles(stepsFromLevels(plateaus, labels, profile), cycles);
    const steps = insertEngineCuts(levels, cuts, profile);
    if (!prompts || !leans) return { steps, score };
    // The prompt prior is removed here, because the alignment accounts for all prompts.
    const leant = plateaus.reduce((sum, plateau, i) => sum + leans(labels[i] as PlateauLabel, plateau), 0);
    const laid = alignWithPrompts(steps, prompts, profile);
    return { steps: laid.steps, score: score - leant + laid.score };
  });
  rows.sort((a, b) => b.score - a.score);
  const best = rows[0]?.score ?? 0;
  const ways = new Map<string, WayToRead>();
  for (const { steps, score } of rows) {
    const weight = Math.exp(score - best);
    if (weight < MIN_WEIGHT) break;
    const key = steps.map(({ step, at }) => `${step} ${at.toFixed(1)}`).join();
    const known = ways.get(key);
    if (known) known.weight += weight;
    else ways.set(key, { steps, weight });
  }
  const found = [...ways.values()].sort((a, b) => b.weight - a.weight).slice(0, MAX_WAYS);
  const all = found.reduce((sum, { weight }) => sum + weight, 0);
  if (found.length > 0)
    return found.map(({ steps, weight }) => ({
      steps: prompts ? asOneChange(trace, steps) : steps,
      weight: weight / all,
    }));
  const cutOnly = insertEngineCuts([], cuts, profile);
  return [{ steps: prompts ? alignWithPrompts(cutOnly, prompts, profile).steps : cutOnly, weight: 1 }];
}

/** Maximum interval at which a single step is resolved, seconds. */
const DENSE_S = 0.22;
/** Search window for the change of a step, seconds, and its minimum significance, standard deviations. */
const AROUND_S = 3;
const PLAIN_Z = 8;

/**
 * Moves the start of each prompted step to the single change after its prompt: a slowly settling level may have been split. Only
 * for densely sampled traces.
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
    // With ice rpm falls a little and then rises a lot: the response is the fall.
    if (step.step === "heat" && change.after > change.before) continue;
    step.at = change.at;
    step.settle = change.settle;
    before.until = change.at;
  }
  return made;
}

/**
 * Time at which a propeller cycled at `from` had recovered, seconds: after the last sample clearly below the level at `to`.
 * `scale` as of `rpmScale`. Source: forty rpm at 1,800 (own estimate).
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
        // Above the base after heat: the ice is gone. Otherwise the pilot is clearing a plug or checking power.
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
    // If both sides are done, an engine that stops has quit at idle: the throttle was closed too briefly to show a level.
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
  // Only one side found: two sides in direct succession with equal drops look the same. Longer than usual for one side, it may be
  // both, even if the other was also checked.
  const alone = new Set(sides.map(({ step }) => step)).size === 1;
  for (const side of sides)
    if (side.until - side.at >= (alone ? TWO_SIDES_S : MAX_S)) side.perhapsBoth = true;
  return found;
}

/** Minimum duration of two sides, seconds. Common practice: at least three seconds each. */
const TWO_SIDES_S = 6;
/** Maximum usual duration of one side, seconds. Common practice: three to fifteen seconds. */
const MAX_S = 15;

/** When the engine stops the trace usually ends soon: a few samples at zero are enough. */
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

/** True if both sides were checked, as far as can be told: a long stretch may be both. */
const bothTried = (found: readonly FoundStep[]): boolean => {
  const sides = found.filter(({ step }) => step === "right" || step === "left");
  return (
    new Set(sides.map(({ step }) => step)).size === 2 ||
    sides.some(({ at, until }) => until - at >= LONG_FOR_ONE_S)
  );
};

/** True after steps that leave the engine at base rpm on both: staying there is not a step. */
function isAtBase(step: RunUpStep): boolean {
  return step === "both" || step === "cold" || step === "propeller" || step === "run-up";
}
