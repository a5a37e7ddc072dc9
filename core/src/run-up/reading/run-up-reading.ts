import type { Side } from "../../engine/side";
import type { TraceProblem } from "../../trace/clean-trace";
import type { FoundStep } from "./found-step";

export type { Side } from "../../engine/side";

/** Result of one magneto in a trace. Rpm unless noted; times in the trace's seconds. */
export interface MagnetoReading {
  side: Side;
  from: number;
  to: number;
  base: number;
  level: number;
  drop: number;
  /** Standard deviation of the drop, from the scatter of both levels and the tachometer's steps. */
  dropSigma: number;
  /** Whether a change was seen; without one the drop is only scatter. */
  seen: boolean;
  /** Seconds on this side. */
  held: number;
  /** Rpm back on both, with uncertainty; absent without a return. */
  back?: number;
  backSigma?: number;
  /** Seconds until recovered, with uncertainty. */
  backAfter?: number;
  backAfterSigma?: number;
  /** Scatter of rpm relative to both: 1 is equally smooth. */
  roughness: number;
  feel: "smooth" | "rough" | "quit";
  /** Change of EGT by cylinder, °F, from before to the end of the step. */
  egtChange: Record<number, number>;
  /** Standard deviation of each change, °F, from the probe's scatter, without the lag of slow probes. */
  egtSigma: Record<number, number>;
  /** The same after the duration of the shorter side, for comparing sides. */
  egtBeside: Record<number, number>;
  /** EGT on both before it, by cylinder. */
  egtBefore: Record<number, number>;
  /** Reason it is unreliable: too short, or data missing. */
  doubt?: string;
}

export interface HeatReading {
  from: number;
  to: number;
  /** Seconds with heat on. */
  held: number;
  base: number;
  /** Lowest rpm with heat on. */
  hot: number;
  drop: number;
  /** Standard deviation of the drop, rpm. */
  dropSigma: number;
  seen: boolean;
  /** Rise while heat was still on: melting ice. */
  roseWhileHot: number;
  /** Rpm after heat is off, relative to the base: higher means there was ice. */
  coldAgain?: number;
  gain?: number;
  gainSigma?: number;
  egtChange?: number;
  /** Reason it is unreliable. */
  doubt?: string;
}

export interface PropellerReading {
  from: number;
  to: number;
  base: number;
  least: number;
  drop: number;
  /** Standard deviation of the drop, rpm: in a coarse trace the lowest point is between samples. */
  dropSigma: number;
  /** Seconds from the first response to half of the fall, with uncertainty from sampling. */
  answeredIn: number;
  answeredInSigma: number;
  back?: number;
  mapRise?: number;
}

export interface IdleReading {
  from: number;
  to: number;
  floor: number;
  /** Standard deviation, rpm. */
  floorSigma: number;
  held: number;
  quit: boolean;
}

/** Gauges at run-up rpm. */
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

/** Everything read from a run-up trace, before judging. */
export interface RunUpReading {
  /** Whether the coach prompted the steps: then a missing response is significant. */
  prompted: boolean;
  /** Sides not identified: `right` and `left` stand for first and second in the type's order. */
  unnamed?: true;
  /** Sampling interval, seconds. */
  interval: number;
  problems: TraceProblem[];
  steps: FoundStep[];
  /** Run-up rpm on both, before the first magneto. */
  base?: GaugeReading & { sigma: number };
  /** Every check of a side, in order; the last one of each side counts. */
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
  /** Highest CHT with its cylinder, and the lowest. */
  head?: GaugeReading & { cylinder: number; coolest: number };
  /** EGT by cylinder at base, at idle, and on the ground before the run-up, °F. */
  egt: Record<"base" | "idle" | "ground" | "scatter", Record<number, number>> & {
    /** Noisy probes; absent if none. */
    jumping?: number[];
  };
  /** What was left out or done differently. */
  notes: RunUpNote[];
}
