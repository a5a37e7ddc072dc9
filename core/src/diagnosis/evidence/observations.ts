import type { Side } from "../../run-up/reading/run-up-reading";

/**
 * What can be noticed in a run-up, each with its possible states. A feature that could not be seen (no such probe, step not done) is left out and
 * says nothing. Features of a side are kept by side, those that name a cylinder carry it.
 */
export const FEATURES = {
  /** Drop on one side: none to be seen, up to the limit, much more than on the other, over the limit, or the engine stops. */
  drop: ["none", "usual", "uneven", "over", "quit"],
  /** In a trace without prompts: whether this side shows at all. */
  shown: ["seen", "not seen", "one long"],
  /** How it ran on one side. */
  feel: ["smooth", "rough"],
  /** Exhaust gas on one side against both: all hotter alike, one cylinder colder, clearly hotter than on the other side, no change, all colder. */
  exhaust: ["hotter", "one colder", "much hotter", "no change", "colder"],
  /** Carburettor heat or alternate air: a drop, nothing, more rpm while it is on, more rpm after it than before. */
  heat: ["drop", "nothing", "more while on", "more after"],
  volts: ["low", "in range", "high"],
  ammeter: ["charging", "discharging"],
  suction: ["low", "in range", "high"],
  oilPressure: ["low", "in range", "high"],
  propeller: ["answers", "slow", "nothing"],
  idle: ["in range", "low", "quits", "high"],
  /** Exhaust gas at idle against the run-up: all alike, or one cylinder on its own way, a little, plainly or far. */
  idleExhaust: ["alike", "a little apart", "one apart", "far apart"],
  /** A probe that jumps or stands still. */
  probe: ["quiet", "wild"],
  /** The pilot was asked whether the key was really turned. */
  turned: ["confirmed", "not sure"],
  /** What a further test came to. */
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

export type Feature = keyof typeof FEATURES;
export type StateOf<F extends Feature> = (typeof FEATURES)[F][number];

/** One thing noticed. `side` for what belongs to one magneto, `cylinder` for what names one. */
export interface Observation<F extends Feature = Feature> {
  feature: F;
  state: StateOf<F>;
  side?: Side;
  cylinder?: number;
  /** In plain words, with the number: "On left, exhaust of cylinder 3 fell 180 °F while the others rose." */
  words: string;
}

/** What is known of the day and the engine besides the trace. */
export interface DiagnosisContext {
  /** 0 where nothing tells one cylinder from another: no probes, or numbers that were typed. */
  cylinders: number;
  fuelSystem: "carburettor" | "injected";
  propeller: "fixed" | "constant speed";
  suction: boolean;
  /** Nobody prompted, and the lines are far apart: what stands out may be the reading. */
  coarse?: true;
  /** The trace was read without the coach's prompts. */
  unprompted?: true;
  /** Where the run-up was made above the height where this type leans first: whether it was leaned. */
  highAndRich?: boolean;
  /** Whether the air can make ice in a carburettor today; absent where it is not known. */
  icingLikely?: boolean;
}

/** Whether a feature belongs to one magneto. */
export const MAGNETO_FEATURES: ReadonlySet<Feature> = new Set([
  "drop",
  "shown",
  "feel",
  "exhaust",
  "turned",
  "again",
]);
/** The states that name a cylinder. */
export const NAMES_CYLINDER: ReadonlySet<string> = new Set([
  "one colder",
  "a little apart",
  "one apart",
  "far apart",
  "wild",
]);
