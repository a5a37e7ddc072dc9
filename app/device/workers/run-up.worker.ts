// Subpath imports keep the rest of core out of this worker.

import { readTraceBlob, type TraceColumn } from "@cravix/contract/trace";
import {
  afterRemedy,
  type DiagnosisContext,
  diagnoseInterpretations,
  diagnosisReport,
  type Observation,
  type OpenQuestion,
  observeInterpretations,
  openQuestions,
  rankQuestions,
  type SeenWay,
} from "@cravix/core/diagnosis";
import {
  type MagnetoSideOrder,
  type Mark,
  orderByAnswer,
  type ReadWay,
  type RunUpProfile,
  readWays,
  type Trace,
} from "@cravix/core/run-up";

/** A trace to read, with what is known of engine and conditions. */
export interface RunUpQuestion {
  trace: Trace;
  profile: RunUpProfile;
  marks?: Mark[];
  limits: { maxDropRpm?: number; maxDifferenceRpm?: number; resolutionRpm: number };
  context: DiagnosisContext;
  /** Observations before a remedy, for the check after it. */
  before?: { observations: readonly Observation[]; remedy: "cleared" | "leaned" };
  /** The pilot's answers. */
  told?: Observation[];
  /** The pilot's answer about the sides, without prompts. */
  sides?: MagnetoSideOrder;
  /** Questions already asked. */
  asked?: readonly OpenQuestion["id"][];
}

export type RunUpAnswer = ReturnType<typeof work>;

type Question = { id: number } & (
  | ({ kind: "read" } & RunUpQuestion)
  | { kind: "file"; file: Blob; columns?: TraceColumn[] }
);

function work({
  trace,
  profile,
  marks,
  limits,
  context,
  before,
  told = [],
  sides,
  asked = [],
}: RunUpQuestion) {
  const ways = readWays(trace, profile, marks, sides);
  const { reading } = ways[0] as ReadWay;
  const named = orderByAnswer(profile, reading.prompted, sides);
  const [first, ...others] = observeInterpretations(ways, named, limits, context, told).map((way) => {
    const after = before && afterRemedy(before, way.observations, told);
    return { ...way, observations: after?.observations ?? way.observations, after };
  }) as [SeenWay & { after: ReturnType<typeof afterRemedy> | undefined }, ...SeenWay[]];
  const { after, observations, weight } = first;
  const open = openQuestions(reading, profile, new Set(asked));
  const { ranked } = diagnoseInterpretations([first, ...others]);
  return {
    /** Open questions, most decisive first. */
    questions: rankQuestions(open, ranked, first.context).map(({ question }) => question),
    reading,
    observations,
    report: diagnosisReport(observations, first.context, named.sideWords, { weight, others }),
    ...(after && { remedied: after.remedied }),
  };
}

/** Reads and diagnoses a trace, or reads a monitor file, off the main thread. */
self.onmessage = async ({ data }: MessageEvent<Question>) => {
  try {
    const result = data.kind === "read" ? work(data) : await readTraceBlob(data.file, data.columns);
    self.postMessage({ id: data.id, result });
  } catch (error) {
    self.postMessage({ id: data.id, error: (error as Error).message });
  }
};
