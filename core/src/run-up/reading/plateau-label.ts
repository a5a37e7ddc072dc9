import type { Plateau } from "./plateaus";

/** States of the engine during a steady stretch. */
export const PLATEAU_LABELS = [
  "stopped",
  "idle",
  "ground",
  "base",
  "first",
  "second",
  "heat",
  "propeller",
  "power",
  "other",
] as const;
export type PlateauLabel = (typeof PLATEAU_LABELS)[number];

/** Labels of the stretches so far. */
export interface LabelHypothesis {
  score: number;
  labels: PlateauLabel[];
  base?: Plateau;
  /** Previous stretch, of any label. */
  last?: Plateau;
  done: ReadonlySet<PlateauLabel>;
  /** Last drop of each side, rpm. */
  dropped: { first?: number; second?: number };
  /** A side held so long that it may have been both in direct succession. */
  long?: true;
}

/** Score of a label that a stretch cannot have. */
export const NEVER = -1000;

export const isSide = (label: PlateauLabel | undefined): label is "first" | "second" =>
  label === "first" || label === "second";
