import { judgeSample, type Sample } from "./fuel-sample";

/** Next step at a drain. */
export const DRAIN_STEPS = ["take", "again", "rock", "clean", "maintenance", "paper"] as const;
export type DrainStep = (typeof DRAIN_STEPS)[number];

export interface DrainAdvice {
  step: DrainStep;
  words: string;
  why: string;
  /** Timed seconds of draining without a clean sample. */
  seconds: number;
}

/** After this many unclean samples the tank needs attention, not just the drain (common practice). */
export const CUPS_BEFORE_ROCKING = 3;
/** After about a minute of draining without a clean sample it is a task for maintenance (common practice). */
export const DRAIN_LIMIT_S = 60;

/**
 * Decides the next step at a drain from its samples: repeat until clean; after three samples rock the wings, lower the tail,
 * wait, and sample every drain again; after three more, or a minute of draining, call maintenance. Rocking brings water down, so
 * the first samples after it may show some. What draining cannot cure is a discrepancy at once. `before` are samples before
 * rocking, `since` those after it (all of them if not rocked); newest last.
 * Source: common practice.
 */
export function drainAdvice(
  before: readonly Sample[],
  since: readonly Sample[],
  rocked: boolean,
  approved: readonly string[],
): DrainAdvice {
  const last = since.at(-1);
  const seconds = secondsOfDirt([...before, ...since], approved);
  const advice = (step: DrainStep, words: string, why: string): DrainAdvice => ({
    step,
    words,
    why,
    seconds,
  });
  if (!last)
    return rocked
      ? advice(
          "take",
          "Take another sample",
          "The wings were rocked, so water elsewhere in the tank is now at the drains.",
        )
      : advice(
          "take",
          "Take a sample, hold it to the light",
          "Water collects at the lowest point of each tank.",
        );
  const { outcome, sentence, action } = judgeSample(last, approved);
  if (outcome === "clean" || outcome === "other grade") return advice("clean", "Clean", sentence);
  if (outcome === "finding")
    return last.look === "colourless" && !last.paper
      ? advice("paper", "Put a drop on white paper", sentence)
      : advice("maintenance", "Do not fly", `${sentence} ${action}`);
  if (seconds >= DRAIN_LIMIT_S)
    return advice(
      "maintenance",
      "Do not fly: call maintenance",
      `${Math.round(seconds)} seconds of draining and still not clean: there is more in the tank than draining can clear.`,
    );
  const dirty = since.length - 1 - since.findLastIndex((s) => judgeSample(s, approved).outcome !== "drain");
  if (dirty < CUPS_BEFORE_ROCKING) return advice("again", action, sentence);
  return rocked
    ? advice(
        "maintenance",
        "Do not fly: call maintenance",
        `${dirty} more samples not clean after rocking and waiting: it does not clear.`,
      )
    : advice(
        "rock",
        "Rock the wings, lower the tail, wait",
        `${dirty} samples in a row not clean: there is more water in the tank. Bring it to the drain, then sample every drain again.`,
      );
}

/** Draining time at one drain since the last clean sample; untimed samples count zero. */
function secondsOfDirt(samples: readonly Sample[], approved: readonly string[]): number {
  const from = samples.findLastIndex((s) => judgeSample(s, approved).outcome === "clean") + 1;
  return samples.slice(from).reduce((sum, s) => sum + (s.seconds ?? 0), 0);
}
