import { contentHash } from "@cravix/contract";
import { readLibrary } from "@cravix/contract/files";
import type { Library } from "@cravix/core/parts/type-composition";
import stations from "../stations.json";
import { SHEETS } from "./sheets";

/** The library with its content hash, which says whether a type was composed with it. */
export interface ShippedLibrary extends Library {
  hash: string;
}

/** Every part sheet and station that comes with Cravix, read and checked once. Throws an error that names the file. */
export function shippedLibrary(): ShippedLibrary {
  known ??= read();
  return known;
}

let known: ShippedLibrary | undefined;

function read(): ShippedLibrary {
  const files: unknown[] = [stations, ...Object.values(SHEETS)];
  const reading = readLibrary(files);
  if ("library" in reading) return { ...reading.library, hash: contentHash(files) };
  const [first] = reading.faults;
  const at = Number(/^\[(\d+)\]/.exec(first?.path ?? "")?.[1] ?? 0);
  const name = ["stations", ...Object.keys(SHEETS)][at];
  throw new Error(`library, ${name}: ${first?.path.replace(/^\[\d+\]\.?/, "")}: expected ${first?.expected}`);
}
