import { type RunUpProfile, rpmScale } from "../run-up-profile";
import type { FoundStep, Mark, RunUpStep } from "./found-step";
import { HARDLY_RPM } from "./negligible-drops";
import type { PlateauLabel } from "./plateau-label";
import type { Plateau } from "./plateaus";

/** A hand may move this long before its prompt, and usually follows within this time, seconds. Common practice. */
const AHEAD_S = 0.6;
const FOLLOWS_S = 4;
/** Time constant for a step becoming unlikely for a prompt, late or early, seconds. */
const LATE_S = 2.5;
const EARLY_S = 1.5;
/** Maximum offset between step and prompt, seconds. */
const FURTHEST_S = 16;

/** Log probability of a prompted step left out, or an unprompted step done: about one in thirty (own estimate). */
const LEFT_OUT = -3.4;
const UNCALLED = -3.4;
/** Log likelihood ratio of a step done as prompted (own estimate). */
const DONE_AS_CALLED = 1.2;

/** Steps with too little or too slow a change of rpm to be found: they begin at their prompt. */
const WITHOUT_CHANGE: ReadonlySet<RunUpStep> = new Set([
  "load",
  "warm up",
  "lean",
  "set lean",
  "peak",
  "enrich",
]);

/** A propeller cycle is complete within this time of its prompt, seconds. Common practice: two to five. */
const CYCLE_S = 7;

const isSide = (step: RunUpStep): boolean => step === "right" || step === "left";
const BACK: ReadonlySet<RunUpStep> = new Set(["both", "cold", "run-up"]);
const LOW: ReadonlySet<RunUpStep> = new Set(["idle", "ground"]);

/** True if a step may be the response to a prompt. Sides look alike, and so do returns. */
function answers(done: RunUpStep, called: RunUpStep): boolean {
  if (done === called) return true;
  if (isSide(done)) return isSide(called);
  // A rise when a side was prompted: key and throttle moved together. A rise when alternate air was prompted: the air filter was
  // restricted.
  if (done === "clear")
    return called === "cold" || called === "run-up" || called === "heat" || isSide(called);
  return (BACK.has(done) && BACK.has(called)) || (LOW.has(done) && LOW.has(called));
}

/** Small penalty for a step found under another name: a high idle, a return from something else. */
const otherwise = (done: RunUpStep, called: RunUpStep): number =>
  done === called || isSide(done) ? 0 : LOW.has(done) || isSide(called) || called === "heat" ? -1.5 : -0.3;

/** How well a step's time fits a prompt, 0 for perfect. */
function followed(at: number, t: number): number {
  const after = at - t;
  if (after < -AHEAD_S) return (after + AHEAD_S) / EARLY_S;
  return after > FOLLOWS_S ? -(after - FOLLOWS_S) / LATE_S : 0;
}

/** Unprompted steps that occur often and cost less: a throttle overshoot, a return from an unprompted step. */
const costs = (done: RunUpStep, before: RunUpStep | undefined): number =>
  done === "clear" || done === "stop" || done === "ground" || BACK.has(done)
    ? 0
    : done === "propeller" && before !== undefined
      ? -0.5
      : UNCALLED;

/** Penalty for a prompt without response. Without a drop there is no return either, and alternate air may show nothing. */
const silence = (called: RunUpStep, { heat }: RunUpProfile): number =>
  called === "both" || called === "cold" || called === "ground" || called === "run-up"
    ? 0
    : called === "heat" && heat !== "carburettor heat"
      ? -0.5
      : LEFT_OUT;

interface Pairing {
  score: number;
  /** Index of the step that answers each prompt. */
  answeredBy: (number | undefined)[];
}

/** Best assignment of steps to prompts, in order. Complexity: O(steps · prompts). */
function pair(steps: readonly FoundStep[], marks: readonly Mark[], profile: RunUpProfile): Pairing {
  const rows: { score: number; from?: "pair" | "step" | "mark" }[][] = [];
  for (let i = 0; i <= steps.length; i++) {
    const row: (typeof rows)[number] = [];
    rows.push(row);
    for (let j = 0; j <= marks.length; j++) {
      const step = steps[i - 1];
      const mark = marks[j - 1];
      const ways: (typeof row)[number][] = [];
      if (step) {
        const before = rows[i - 1]?.[j] as { score: number };
        ways.push({ score: before.score + costs(step.step, steps[i - 2]?.step), from: "step" });
      }
      if (mark) {
        const before = row[j - 1] as { score: number };
        ways.push({ score: before.score + silence(mark.step, profile), from: "mark" });
      }
      if (step && mark && answers(step.step, mark.step) && Math.abs(step.at - mark.t) <= FURTHEST_S) {
        const before = rows[i - 1]?.[j - 1] as { score: number };
        const fits = DONE_AS_CALLED + followed(step.at, mark.t) + otherwise(step.step, mark.step);
        ways.push({ score: before.score + fits, from: "pair" });
      }
      row.push(ways.sort((a, b) => b.score - a.score)[0] ?? { score: 0 });
    }
  }
  const answeredBy: (number | undefined)[] = marks.map(() => undefined);
  let i = steps.length;
  let j = marks.length;
  while (i > 0 || j > 0) {
    const { from } = rows[i]?.[j] as { from?: string };
    if (from === "pair") answeredBy[j - 1] = i - 1;
    if (from !== "mark") i--;
    if (from !== "step") j--;
  }
  return { score: rows[steps.length]?.[marks.length]?.score ?? 0, answeredBy };
}

/**
 * Aligns one interpretation of a trace with the prompts: a step that answers a prompt takes its name, an unanswered prompt
 * becomes an unseen step, and the fit is a log likelihood. Prompts are strong evidence, not proof: a hand may be late, early, or
 * not move. Pure.
 * Source: sequence alignment, Needleman and Wunsch (1970); its figures are own estimates.
 */
export function alignWithPrompts(
  done: readonly FoundStep[],
  marks: readonly Mark[],
  profile: RunUpProfile,
): { steps: FoundStep[]; score: number } {
  const steps = stoppedOnSide(done, marks);
  const looked = marks.filter(({ step }) => !WITHOUT_CHANGE.has(step));
  const { score, answeredBy } = pair(steps, looked, profile);
  const laid = steps.map((step, i): FoundStep => {
    const mark = looked[answeredBy.indexOf(i)];
    if (mark) return { ...step, step: mark.step };
    return isSide(step.step) || step.step === "heat" ? { ...step, uncalled: true } : { ...step };
  });
  /** Earlier prompts stay before later ones, however late the hand was. */
  let behind = 0;
  let answered = false;
  const hardly = HARDLY_RPM * rpmScale(profile);
  for (const mark of marks) {
    const k = looked.indexOf(mark);
    const own = k < 0 ? undefined : answeredBy[k];
    if (own !== undefined) behind = laid.findIndex((step) => step.at === (steps[own] as FoundStep).at);
    else behind = lay(laid, mark, { least: behind, afterAnswer: answered, hardly });
    answered = own !== undefined;
  }
  return { steps: laid, score };
}

/** An engine that stopped while a side was prompted stopped on that side: on its way down it passes idle, which was not prompted. */
function stoppedOnSide(steps: readonly FoundStep[], marks: readonly Mark[]): FoundStep[] {
  const stop = steps.at(-1);
  const idle = steps.at(-2);
  if (stop?.step !== "stop" || !idle) return [...steps];
  const from = LOW.has(idle.step) ? idle : stop;
  const called = marks.findLast(({ t }) => t <= from.at + AHEAD_S);
  if (!called || !isSide(called.step) || from.at - called.t > FURTHEST_S) return [...steps];
  const { settle, atRange } = from;
  const side: FoundStep = {
    step: called.step,
    at: from.at,
    until: stop.until,
    seen: true,
    settle,
    level: 0,
    ...(atRange && { atRange }),
  };
  return [...steps.slice(0, from === stop ? -1 : -2), side];
}

/**
 * Inserts an unanswered prompt at its time, after the step `least`, as an unseen step. `afterAnswer`: whether the previous prompt
 * was answered. Returns the index of the inserted step, or of the step that hides it. `hardly`: a deviation up to this may not
 * show a return, rpm.
 */
function lay(
  steps: FoundStep[],
  { step, t }: Mark,
  { least, afterAnswer, hardly }: { least: number; afterAnswer: boolean; hardly: number },
): number {
  const i = Math.max(
    least,
    steps.findLastIndex(({ at }) => at <= t),
  );
  const within = steps[i];
  const next = steps[i + 1];
  const onSide = within !== undefined && isSide(within.step) && within.seen;
  // If the engine had not returned from one side, nothing is known of the next.
  if (
    (isSide(step) || step === "heat" || step === "propeller") &&
    (!within || onSide || within.step === "stop")
  ) {
    if (onSide) within.perhapsBoth = true;
    return i;
  }
  // It had not returned yet; a negligible deviation has nothing to return from.
  const was = steps.slice(0, i).findLast((before) => BACK.has(before.step))?.level;
  const left = was === undefined || within?.level === undefined || Math.abs(within.level - was) > hardly;
  const still = onSide || (within?.seen && within.step === "heat");
  if ((step === "both" || step === "cold") && still && left && afterAnswer) return i;
  const at = Math.min(Math.max(t, (within?.at ?? t) + 0.1), next?.at ?? Number.POSITIVE_INFINITY);
  const made: FoundStep = {
    step,
    at,
    until: Math.max(at, next?.at ?? steps.at(-1)?.until ?? at),
    seen: false,
    settle: 0.5,
    ...(within?.level !== undefined && { level: within.level }),
  };
  if (within) within.until = Math.min(within.until, at);
  // Cycled quickly, the propeller has no level of its own: an unprompted step after it is its way down and back.
  while (step === "propeller" && steps[i + 1]?.uncalled && (steps[i + 1] as FoundStep).at < at + CYCLE_S)
    made.until = (steps.splice(i + 1, 1)[0] as FoundStep).until;
  steps.splice(i + 1, 0, made);
  return i + 1;
}

/** Prior for the name of a stretch if the last prompt was followed, by confidence; none before the first prompt. */
export function promptPriors(
  marks: readonly Mark[],
): (label: PlateauLabel, plateau: Pick<Plateau, "onset">) => number {
  const first = marks.find(({ step }) => isSide(step))?.step;
  const labelOf = (step: RunUpStep): PlateauLabel | undefined =>
    isSide(step)
      ? step === first
        ? "first"
        : "second"
      : BACK.has(step)
        ? "base"
        : step === "heat" || step === "propeller" || step === "idle" || step === "ground"
          ? step
          : undefined;
  return (label, { onset }) => {
    const mark = marks.findLast(({ t }) => t <= onset + AHEAD_S);
    return mark && label === labelOf(mark.step) ? LEANS : 0;
  };
}
const LEANS = 3;
