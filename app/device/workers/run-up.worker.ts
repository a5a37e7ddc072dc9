// By their own doors: this worker carries the run-up, not the whole core.

import { readTraceBlob, type TraceColumn } from "@cravix/contract/trace";
import {
  afterRemedy,
  asFarAsProbed,
  type DiagnosisContext,
  diagnosisReport,
  nameOnlySide,
  type Observation,
  observe,
} from "@cravix/core/diagnosis";
import {
  type Mark,
  type ReadWay,
  type RunUpProfile,
  type RunUpReading,
  readWays,
  type Trace,
} from "@cravix/core/run-up";

/** What is to be read: a trace with what is known of the engine and the day. */
export interface RunUpQuestion {
  trace: Trace;
  profile: RunUpProfile;
  marks?: Mark[];
  limits: { maxDropRpm?: number; maxDifferenceRpm?: number; resolutionRpm: number };
  context: DiagnosisContext;
  /** What was noticed before, where this is the check after a remedy: which one it was. */
  before?: { observations: Observation[]; remedy: "cleared" | "leaned" };
  /** What the pilot answered when asked. */
  told?: Observation[];
  /** Which side the only drop of the trace was on, as the pilot said. */
  onlySide?: "right" | "left";
}

export type RunUpAnswer = ReturnType<typeof work>;

type Question = { id: number } & (
  | ({ kind: "read" } & RunUpQuestion)
  | { kind: "file"; file: Blob; columns?: TraceColumn[] }
);

function work({ trace, profile, marks, limits, context, before, told = [], onlySide }: RunUpQuestion) {
  const ways = readWays(trace, profile, marks).map(({ weight, reading }) => ({
    weight,
    reading: onlySide ? nameOnlySide(reading, onlySide) : reading,
  }));
  const { reading, weight } = ways[0] as ReadWay;
  // What the pilot said of a side takes the place of what the trace left open.
  const said = (side: string | undefined) =>
    told.some(({ feature, side: of }) => feature === "turned" && of === side);
  const seen = (way: RunUpReading) => {
    const now = [
      ...observe(way, profile, limits).filter(({ feature, side }) => feature !== "shown" || !said(side)),
      ...told,
    ];
    const after = before && afterRemedy(before, now, told);
    return { after, observations: after?.observations ?? now, context: asFarAsProbed(context, way) };
  };
  const first = seen(reading);
  const { after, observations } = first;
  const others = ways.slice(1).map((way) => ({ weight: way.weight, ...seen(way.reading) }));
  return {
    reading,
    observations,
    report: diagnosisReport(observations, first.context, profile.sideWords, { weight, others }),
    ...(after && { remedied: after.remedied }),
  };
}

/** Reads a run-up's trace and says what is likeliest, or reads a monitor's file, away from the interface. */
self.onmessage = async ({ data }: MessageEvent<Question>) => {
  try {
    const result = data.kind === "read" ? work(data) : await readTraceBlob(data.file, data.columns);
    self.postMessage({ id: data.id, result });
  } catch (error) {
    self.postMessage({ id: data.id, error: (error as Error).message });
  }
};
