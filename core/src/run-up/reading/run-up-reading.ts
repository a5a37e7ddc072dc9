import type { Side } from "../../engine/side";
import type { TraceProblem } from "../../trace/clean-trace";
import type { FoundStep } from "./found-step";

export type { Side } from "../../engine/side";

/** What one magneto alone did, read out of the trace. Rpm unless said otherwise; times are the trace's own seconds. */
export interface MagnetoReading {
  side: Side;
  from: number;
  to: number;
  base: number;
  level: number;
  drop: number;
  /** How sure the drop is, one standard deviation: the scatter of both levels, and what the tachometer's steps hide. */
  dropSigma: number;
  /** Whether a change was seen at all; without one the drop is what scatter made of it. */
  seen: boolean;
  /** Seconds on this one side. */
  held: number;
  /** Rpm back on both, and how sure; absent when nobody came back to both. */
  back?: number;
  backSigma?: number;
  /** Seconds until it was back, and how sure. */
  backAfter?: number;
  backAfterSigma?: number;
  /** Scatter of the rpm on this side against that on both: 1 is as smooth. */
  roughness: number;
  feel: "smooth" | "rough" | "quit";
  /** Change of exhaust gas by cylinder, °F, from before to the end of the step. */
  egtChange: Record<number, number>;
  /** How sure each change is, one standard deviation, °F: the probe's scatter by its lines. What a slow probe had not shown yet is not in it. */
  egtSigma: Record<number, number>;
  /** The same after as many seconds as the shorter of the two sides was held: to be laid beside the other side. */
  egtBeside: Record<number, number>;
  /** Exhaust gas on both, before, by cylinder. */
  egtBefore: Record<number, number>;
  /** Too short to settle, or with a hole in it. */
  doubt?: string;
}

export interface HeatReading {
  from: number;
  to: number;
  /** On hot air, seconds. */
  held: number;
  base: number;
  /** Least rpm with heat on. */
  hot: number;
  drop: number;
  /** How sure the drop is, one standard deviation, rpm. */
  dropSigma: number;
  seen: boolean;
  /** How far it rose again while the heat was still on: ice on its way out. */
  roseWhileHot: number;
  /** Rpm after, cold again, against the base before: above it there was ice. */
  coldAgain?: number;
  gain?: number;
  gainSigma?: number;
  egtChange?: number;
  /** Why this number is no measure of the heat. */
  doubt?: string;
}

export interface PropellerReading {
  from: number;
  to: number;
  base: number;
  least: number;
  drop: number;
  /** How sure the drop is, one standard deviation, rpm: with lines far apart the lowest lies between two of them. */
  dropSigma: number;
  /** Seconds from the first answer until half of the fall has come, and how sure: both lie between two lines. */
  answeredIn: number;
  answeredInSigma: number;
  back?: number;
  mapRise?: number;
}

export interface IdleReading {
  from: number;
  to: number;
  floor: number;
  /** How sure it is, one standard deviation, rpm. */
  floorSigma: number;
  held: number;
  quit: boolean;
}

/** Needles read while the run-up rpm stood. */
export interface GaugeReading {
  value: number;
  from: number;
  to: number;
}

export interface RunUpNote {
  kind:
    | "second never tried"
    | "none tried"
    | "not back to both"
    | "wrong order"
    | "too short"
    | "repeated"
    | "no change seen"
    | "heat in doubt"
    | "unsteady"
    | "beside the figure"
    | "read otherwise";
  side?: Side;
  sentence: string;
}

/** All that a run-up's trace has to say, before anybody judges it. */
export interface RunUpReading {
  /** Whether the coach called the steps: then what does not show was called and did not answer. */
  prompted: boolean;
  /** Nobody said which side is which: `right` and `left` stand for the one that was tried first and the other, as the type's order has them. */
  unnamed?: true;
  /** Seconds from line to line. */
  interval: number;
  problems: TraceProblem[];
  steps: FoundStep[];
  /** The run-up rpm, on both, before the first magneto. */
  base?: GaugeReading & { sigma: number };
  /** Every time a side was tried, in order; the last one of each side counts. */
  tries: MagnetoReading[];
  right?: MagnetoReading;
  left?: MagnetoReading;
  heat?: HeatReading;
  propeller?: PropellerReading;
  idle?: IdleReading;
  oilPressure?: GaugeReading;
  oilTemperature?: GaugeReading;
  volts?: GaugeReading;
  amps?: GaugeReading;
  voltsUnderLoad?: GaugeReading;
  suction?: GaugeReading;
  map?: GaugeReading;
  fuelFlow?: GaugeReading;
  /** Hottest head and which cylinder, and the coolest one. */
  head?: GaugeReading & { cylinder: number; coolest: number };
  /** Exhaust gas by cylinder at the base, at idle, and on the ground before the run-up, °F. */
  egt: Record<"base" | "idle" | "ground" | "scatter", Record<number, number>> & {
    /** Probes that jump all the while; absent where none is told apart. */
    jumping?: number[];
  };
  /** What was left out or done in another way. */
  notes: RunUpNote[];
}
