import { createHash } from "node:crypto";
import { type CsvFault, contentHash, flattened, isDeeperThan, MAX_JSON_DEPTH, newId } from "@cravix/contract";
import { type FileFault, type FileReading, readFileText, readList } from "@cravix/contract/files";
import {
  type CsvReading,
  type KnownAircraft,
  type PlanRow,
  readFlightCsv,
  readFluidCsv,
} from "@cravix/contract/logs";
import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import type { WorkRelease } from "@cravix/core/airworthiness/life/release";
import type { WorkshopPlan } from "@cravix/core/airworthiness/plan/workshop-plan";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import type { AirworthinessOnFile } from "@cravix/core/logs/apply-airworthiness-events";
import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import type { PartSheet } from "@cravix/core/parts/part-sheet";
import { libraryWith } from "../fleet/group-library";

/** Work done in worker threads, because it may take a while. */
export type Job =
  /** `sheets`: the group's own part sheets. */
  | { kind: "file"; text: string; sheets: PartSheet[] }
  | { kind: "flatten"; text: string }
  | { kind: "list"; text: string }
  | { kind: "list pdf"; text: string }
  | { kind: "flight log"; registration: string; meters: RecordMeter[]; text: string; now: number }
  | {
      kind: "flights pdf";
      registration: string;
      lines: (TechnicalLogEntry & { corrections?: number })[];
      meters: RecordMeter[];
      names: Record<string, string>;
    }
  | {
      kind: "release pdf";
      release: WorkRelease & { at: string; crewId: string };
      closes: string[];
      items: string[];
      meters: RecordMeter[];
      names: Record<string, string>;
    }
  | { kind: "plan rows"; papers: AirworthinessOnFile[]; plan: WorkshopPlan | null; at: string }
  | {
      kind: "fluid log";
      fluid: FluidRow["fluid"];
      text: string;
      known: [registration: string, type: ReturnType<KnownAircraft>][];
      now: number;
    };

const ROWS_A_PART = 500;

export type ListReading =
  | { list: ComposedList; hash: string; text: string }
  /** `json` is false if it is not JSON. */
  | { faults: FileFault[]; json: boolean };

export interface Results {
  file: FileReading;
  /** JSON cut to the maximum depth; undefined if it is not JSON. */
  flatten: string | undefined;
  /** Text ready to be stored; the checklist itself stays in the worker. */
  list: { text: string; hash: string } | Extract<ListReading, { faults: unknown }>;
  "list pdf": { pdf: Uint8Array; registration: string } | { faults: FileFault[]; json: boolean };
  /** Entries as JSON, each with an id derived from its content. */
  "flight log": { text: string; faults: CsvFault[] };
  "flights pdf": Uint8Array;
  "release pdf": Uint8Array;
  "plan rows": PlanRow[];
  /** Rows in parts, each as JSON, to be read one at a time. */
  "fluid log": { parts: string[]; faults: CsvReading["faults"] };
}

function listOf(text: string): ListReading {
  if (isDeeperThan(text))
    return { faults: [{ path: "", expected: `at most ${MAX_JSON_DEPTH} levels of nesting` }], json: true };
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { faults: [{ path: "", expected: "a checklist as JSON" }], json: false };
  }
  const reading = readList(value);
  return "faults" in reading
    ? { ...reading, json: true }
    : // Hash and text are those of the input; older versions are upgraded when read.
      { list: reading.list, hash: contentHash(value), text: JSON.stringify(value) };
}

/** The same entry gives the same event, whoever imports it and however often. */
function idOfLine(line: Omit<TechnicalLogEntry, "id">): string {
  const digest = createHash("sha256").update(JSON.stringify(line)).digest();
  return newId(Date.parse(line.on), new Uint8Array(digest.subarray(0, 16)));
}

/** Runs one job in a worker, called by name. */
export async function work(job: Job): Promise<Results[Job["kind"]]> {
  switch (job.kind) {
    case "file":
      return readFileText(job.text, libraryWith(job.sheets));
    case "flatten":
      try {
        return JSON.stringify(flattened(JSON.parse(job.text), MAX_JSON_DEPTH));
      } catch {
        return undefined;
      }
    case "list": {
      const reading = listOf(job.text);
      return "faults" in reading ? reading : { text: reading.text, hash: reading.hash };
    }
    case "list pdf": {
      const reading = listOf(job.text);
      if ("faults" in reading) return reading;
      // As large as everything else in a worker: loaded for the first PDF.
      const { listPdf } = await import("../paper/list-pdf");
      return { pdf: new Uint8Array(await listPdf(reading.list)), registration: reading.list.registration };
    }
    case "flight log": {
      const { registration, meters } = job;
      const { lines, faults } = readFlightCsv(job.text, { registration, meters, now: new Date(job.now) });
      return {
        text: JSON.stringify(lines.map((line) => ({ id: idOfLine(line), line }))),
        faults,
      };
    }
    case "flights pdf": {
      const { flightsPdf } = await import("../paper/flights-pdf");
      const { registration, lines, meters, names } = job;
      return new Uint8Array(await flightsPdf(registration, lines, meters, { name: (id) => names[id] ?? id }));
    }
    case "release pdf": {
      const { releasePdf } = await import("../paper/flights-pdf");
      const { release, names, ...more } = job;
      return new Uint8Array(await releasePdf(release, { name: (id) => names[id] ?? id, ...more }));
    }
    case "plan rows": {
      const { planRows } = await import("../airworthiness/plan-rows");
      return planRows(job.papers, job.plan, job.at);
    }
    case "fluid log": {
      const known = new Map(job.known);
      const { rows, faults } = readFluidCsv(
        job.fluid,
        job.text,
        (registration) => known.get(registration),
        new Date(job.now),
      );
      const parts: string[] = [];
      for (let i = 0; i < rows.length; i += ROWS_A_PART)
        parts.push(JSON.stringify(rows.slice(i, i + ROWS_A_PART)));
      return { parts, faults };
    }
  }
}
