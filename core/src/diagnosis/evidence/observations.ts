import type { Side } from "../../run-up/reading/run-up-reading";

/**
 * Features of a run-up with their possible states. A feature that could not be observed (no probe, step not done) is left out.
 * Features of a side carry it; those that name a cylinder carry that.
 */
export const FEATURES = {
  /** Drop on one side: none, within the limit, uneven against the other side, over the limit, or the engine quits. */
  drop: ["none", "usual", "uneven", "over", "quit"],
  /** In an unprompted trace: whether this side is visible at all. */
  shown: ["seen", "not seen", "one long"],
  /** Running on one side. */
  feel: ["smooth", "rough"],
  /** EGT on one side against both: all hotter, one cylinder colder, much hotter than on the other side, no change, all colder. */
  exhaust: ["hotter", "one colder", "much hotter", "no change", "colder"],
  /** Carburettor heat or alternate air: a drop, nothing, more rpm while on, more rpm afterwards than before. */
  heat: ["drop", "nothing", "more while on", "more after"],
  volts: ["low", "in range", "high"],
  ammeter: ["charging", "discharging"],
  suction: ["low", "in range", "high"],
  oilPressure: ["low", "in range", "high"],
  propeller: ["answers", "slow", "nothing"],
  idle: ["in range", "low", "quits", "high"],
  /** EGT at idle against the run-up: all alike, or one cylinder deviating slightly, clearly or far. */
  idleExhaust: ["alike", "a little apart", "one apart", "far apart"],
  /** A probe that jumps or is stuck. */
  probe: ["quiet", "wild"],
  /** Whether the pilot confirmed turning the key. */
  turned: ["confirmed", "not sure"],
  /** Outcome of a further test. */
  cleared: ["gone", "same"],
  leaned: ["gone", "same"],
  again: ["drops now", "still none"],
  grounded: ["falters", "runs on"],
  longHeat: ["more after", "no change"],
  reset: ["back", "same"],
  crossCheck: ["agrees", "disagrees"],
  cycled: ["quick now", "same"],
  morePower: ["alike now", "same"],
} as const;

const OUTCOME_TEXT: Partial<Record<string, string>> = {
  gone: "problem gone",
  same: "no change",
  "drops now": "now drops",
  "still none": "still no drop",
  "runs on": "keeps running",
  "more after": "higher rpm afterwards",
  back: "back on line",
  "quick now": "now responds quickly",
  "alike now": "now in line",
};

/** Outcome of a further test, in lower case: "problem gone". */
export const outcomeText = (state: string): string => OUTCOME_TEXT[state] ?? state;

export type Feature = keyof typeof FEATURES;
export type StateOf<F extends Feature> = (typeof FEATURES)[F][number];

/** One observation. `side` for features of a magneto, `cylinder` for states that name one. */
export interface Observation<F extends Feature = Feature> {
  feature: F;
  state: StateOf<F>;
  side?: Side;
  cylinder?: number;
  /** In words, with the number: "On left, EGT 3 fell 180 °F while the others rose." */
  words: string;
}

/** What is known of conditions and engine besides the trace. */
export interface DiagnosisContext {
  /** 0 if cylinders cannot be told apart: no probes, or numbers entered by hand. */
  cylinders: number;
  fuelSystem: "carburettor" | "injected";
  propeller: "fixed" | "constant speed";
  suction: boolean;
  /** Unprompted and sampled coarsely: an anomaly may be a reading artefact. */
  coarse?: true;
  /** Read without the coach's prompts. */
  unprompted?: true;
  /** For a run-up above the height at which this type leans first: whether it was leaned. */
  highAndRich?: boolean;
  /** Whether carburettor ice is possible today; absent if unknown. */
  icingLikely?: boolean;
}

/** Features that belong to one magneto. */
export const MAGNETO_FEATURES: ReadonlySet<Feature> = new Set([
  "drop",
  "shown",
  "feel",
  "exhaust",
  "turned",
  "again",
]);
/** States that name a cylinder. */
export const NAMES_CYLINDER: ReadonlySet<string> = new Set([
  "one colder",
  "a little apart",
  "one apart",
  "far apart",
  "wild",
]);
