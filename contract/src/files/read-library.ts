import type { PartSheet } from "@cravix/core/parts/part-sheet";
import type { StationSheet } from "@cravix/core/parts/station-sheet";
import type { Library } from "@cravix/core/parts/type-composition";
import { readFile } from "./read-file";
import type { FileFault } from "./validate-file";

/**
 * Reads the files of a library: part sheets and stations. A later sheet replaces an earlier one of the same id, so that a group's
 * own come after the shipped ones. Faults carry the index of the file. Never throws.
 */
export function readLibrary(files: readonly unknown[]): { library: Library } | { faults: FileFault[] } {
  const parts = new Map<string, PartSheet>();
  const stations = new Map<string, StationSheet>();
  const faults: FileFault[] = [];
  files.forEach((given, i) => {
    const reading = readFile(given);
    if ("faults" in reading)
      faults.push(...reading.faults.map(({ path, expected }) => ({ path: `[${i}].${path}`, expected })));
    else if (reading.file.format === "cravix.part/1") parts.set(reading.file.id, reading.file);
    else if (reading.file.format === "cravix.stations/1")
      for (const station of reading.file.stations) stations.set(station.id, station);
    else faults.push({ path: `[${i}].format`, expected: "a part sheet or a file of stations" });
  });
  if (faults.length > 0) return { faults };
  return { library: { parts: [...parts.values()], stations: [...stations.values()] } };
}
