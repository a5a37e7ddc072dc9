import type { TraceColumn, TraceReading } from "@cravix/contract/trace";
import { askWorker } from "./ask-worker";
import type { RunUpAnswer, RunUpQuestion } from "./run-up.worker";

let worker: Worker | undefined;

function runUpWorker(): Worker {
  worker ??= new Worker(new URL("./run-up.worker.ts", window.location.href));
  return worker;
}

/** A run-up's trace read into checks and a diagnosis, in a worker. */
export function readRunUpHere(question: RunUpQuestion): Promise<RunUpAnswer> {
  return askWorker(runUpWorker(), { kind: "read", ...question }, "run-up read");
}

/** An engine monitor's file, read in a worker whatever its size. */
export function readTraceFile(file: Blob, columns?: TraceColumn[]): Promise<TraceReading> {
  return askWorker(runUpWorker(), { kind: "file", file, ...(columns && { columns }) }, "trace file");
}
