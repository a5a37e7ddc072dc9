import type { TraceColumn, TraceReading } from "@cravix/contract/trace";
import { runInWorker } from "./ask-worker";
import type { RunUpAnswer, RunUpQuestion } from "./run-up.worker";

let worker: Worker | undefined;

function runUpWorker(): Worker {
  worker ??= new Worker(new URL("./run-up.worker.ts", window.location.href));
  return worker;
}

/** Reads and diagnoses a run-up trace in a worker. */
export function readRunUpOnDevice(question: RunUpQuestion): Promise<RunUpAnswer> {
  return runInWorker(runUpWorker(), { kind: "read", ...question }, "run-up read");
}

/** Reads an engine monitor file of any size in a worker. */
export function readTraceFile(file: Blob, columns?: TraceColumn[]): Promise<TraceReading> {
  return runInWorker(runUpWorker(), { kind: "file", file, ...(columns && { columns }) }, "trace file");
}
