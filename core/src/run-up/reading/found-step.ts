/** The steps of a run-up as they are found in a trace. */
export const RUN_UP_STEPS = [
  "warm up",
  "run-up",
  "right",
  "left",
  "both",
  "heat",
  "cold",
  "propeller",
  "load",
  "lean",
  "set lean",
  "peak",
  "enrich",
  "clear",
  "idle",
  "ground",
  "stop",
] as const;
export type RunUpStep = (typeof RUN_UP_STEPS)[number];

/** A prompt that was given while the trace ran: the coach said so at that moment; the hand moved a little later, or not at all. */
export interface Mark {
  step: RunUpStep;
  t: number;
}

export interface FoundStep {
  step: RunUpStep;
  /** When the engine began to answer, seconds; without an answer the moment of the prompt. */
  at: number;
  /** When the next step began. */
  until: number;
  /** Between which times begin and end may lie, as far as the trace says. */
  atRange?: [number, number];
  untilRange?: [number, number];
  /** Whether a change of rpm was seen at all. */
  seen: boolean;
  /** How fast the rpm settled, seconds. */
  settle: number;
  /** Where the rpm was going, as far as a curve through it says. */
  level?: number;
  /** One side, or both straight after each other: which the trace cannot tell. */
  perhapsBoth?: true;
  /** The coach had not called it, or for something else. */
  uncalled?: true;
  /** It was called, and what came of it may be a drop or where the engine happened to stand. */
  hardly?: true;
  /** The engine cut and was caught before it stopped: on this side there is no spark. */
  cut?: true;
}
