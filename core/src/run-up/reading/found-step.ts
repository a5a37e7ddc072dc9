/** Steps of a run-up found in a trace. */
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

/** A prompt given while the trace was recorded; the hand moved a little later, or not at all. */
export interface Mark {
  step: RunUpStep;
  t: number;
}

export interface FoundStep {
  step: RunUpStep;
  /** Start of the engine's response, seconds; without a response the time of the prompt. */
  at: number;
  /** Start of the next step. */
  until: number;
  /** Possible range of start and end times. */
  atRange?: [number, number];
  untilRange?: [number, number];
  /** Whether a change of rpm was seen. */
  seen: boolean;
  /** Settling time of rpm, seconds. */
  settle: number;
  /** Final rpm by extrapolation, if available. */
  level?: number;
  /** One side, or both in direct succession: the trace cannot tell. */
  perhapsBoth?: true;
  /** Not prompted by the coach, or prompted as something else. */
  uncalled?: true;
  /** Prompted, but the change may be a drop or ordinary variation. */
  hardly?: true;
  /** The engine cut and was caught before it stopped: this side is dead. */
  cut?: true;
}
