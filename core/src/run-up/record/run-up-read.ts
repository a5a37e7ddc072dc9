import type { FindingGrade } from "../../judgement/judgement";

export const TRACE_SOURCES = ["monitor", "file"] as const;
export type TraceSource = (typeof TRACE_SOURCES)[number];
/** Where a run-up's numbers are from: a trace, or a hand. */
export const RUN_UP_SOURCES = [...TRACE_SOURCES, "typed"] as const;
export type RunUpSource = (typeof RUN_UP_SOURCES)[number];

/** What was made of a run-up when it was read: kept in the words of that day, whatever the fault library says later. */
export interface RunUpRead {
  /** The engine's name where there is more than one. */
  engine?: string;
  from: RunUpSource;
  densityAltitudeFt?: number;
  /** What is likeliest wrong, with its probability from 0 to 1; absent where nothing is. */
  found?: {
    fault: string;
    name: string;
    grade: FindingGrade;
    probability: number;
    sentence: string;
    action?: string;
    caution?: string;
    /** Which magneto it belongs to, and which cylinder, where it belongs to one. */
    side?: "right" | "left";
    cylinder?: number;
  };
  /** What was left out or done in another way, and what was wrong with the trace. */
  notes: string[];
  /** The rpm, thinned for a drawing: seconds from the trace's beginning, and rpm; empty where it was typed. */
  rpm: [number, number][];
  /** The steps that were found in it: what, and from when to when. */
  steps: { step: string; from: number; to: number }[];
}

/** The most points that a drawing in the record has. */
export const MAX_TRACE_POINTS = 400;
