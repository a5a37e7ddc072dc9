import { contentHash } from "@cravix/contract";
import { type FileFault, type FileReading, readFileText, readList } from "@cravix/contract/files";
import { type CsvReading, type KnownAircraft, readFluidCsv } from "@cravix/contract/logs";
import type { ComposedList, FluidRow } from "@cravix/core";
import { listPdf } from "../paper/list-pdf";

/** What is read or made away from the requests of others: each of these may take a while. */
export type Job =
  | { kind: "file"; text: string }
  | { kind: "list"; text: string }
  | { kind: "list pdf"; text: string }
  | {
      kind: "fluid log";
      fluid: FluidRow["fluid"];
      text: string;
      known: [registration: string, type: ReturnType<KnownAircraft>][];
      now: number;
    };

export type ListReading =
  | { list: ComposedList; hash: string }
  /** `json` is false where it is not even that. */
  | { faults: FileFault[]; json: boolean };

export interface Results {
  file: FileReading;
  list: ListReading;
  "list pdf": { pdf: Uint8Array; registration: string } | { faults: FileFault[]; json: boolean };
  "fluid log": CsvReading;
}

function listOf(text: string): ListReading {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { faults: [{ path: "", expected: "a list as JSON" }], json: false };
  }
  const reading = readList(value);
  return "faults" in reading
    ? { ...reading, json: true }
    : { list: reading.list, hash: contentHash(reading.list) };
}

/** Does one job. Runs in a worker, which calls it by its name. */
export async function work(job: Job): Promise<Results[Job["kind"]]> {
  switch (job.kind) {
    case "file":
      return readFileText(job.text);
    case "list":
      return listOf(job.text);
    case "list pdf": {
      const reading = listOf(job.text);
      if ("faults" in reading) return reading;
      return { pdf: new Uint8Array(await listPdf(reading.list)), registration: reading.list.registration };
    }
    case "fluid log": {
      const known = new Map(job.known);
      return readFluidCsv(job.fluid, job.text, (registration) => known.get(registration), new Date(job.now));
    }
  }
}
