import type { FindingGrade } from "../../judgement/judgement";

export const TRACE_SOURCES = ["monitor", "file"] as const;
export type TraceSource = (typeof TRACE_SOURCES)[number];
/** Source of a run-up's numbers: a trace, or entered by hand. */
export const RUN_UP_SOURCES = [...TRACE_SOURCES, "typed"] as const;
export type RunUpSource = (typeof RUN_UP_SOURCES)[number];

/** Result of a run-up as recorded, in the words of that day, unaffected by later changes of the fault library. */
export interface RunUpRead {
  /** Engine name if there is more than one. */
  engine?: string;
  from: RunUpSource;
  densityAltitudeFt?: number;
  /** Most likely fault, with its probability from 0 to 1; absent if none. */
  found?: {
    fault: string;
    name: string;
    grade: FindingGrade;
    probability: number;
    sentence: string;
    action?: string;
    caution?: string;
    /** Magneto and cylinder, if the fault belongs to one. */
    side?: "right" | "left";
    cylinder?: number;
  };
  /** What was left out or done differently, and problems of the trace. */
  notes: string[];
  /** Rpm thinned for plotting: seconds from the start of the trace, and rpm; empty if entered by hand. */
  rpm: [number, number][];
  /** Steps found, with start and end. */
  steps: { step: string; from: number; to: number }[];
}

/** Maximum points of a plot in the record. */
export const MAX_TRACE_POINTS = 400;
