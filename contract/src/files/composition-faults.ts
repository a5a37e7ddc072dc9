import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import { composeType } from "@cravix/core/parts/compose-type";
import type { Library, TypeComposition } from "@cravix/core/parts/type-composition";
import { aircraftTypeSchema } from "./schemas";
import { typeFaults } from "./type-faults";
import { type FileFault, validateFile } from "./validate-file";

/** Faults of a composition: in itself, and those of the type that it makes, at the place in the composition they come from. */
export function compositionFaults(composition: TypeComposition, library: Library): FileFault[] {
  const composed = composeType(composition, library);
  if ("faults" in composed) return composed.faults;
  const { type, writtenAt } = composed;
  const invalid = validateFile(aircraftTypeSchema, type);
  const faults = invalid.length > 0 ? invalid : typeFaults(type);
  return faults.map(({ path, expected }) => ({ path: pathInComposition(path, type, writtenAt), expected }));
}

const ITEM = /^items\[(\d+)\]\.?/;

/** "items[12].limit" becomes "parts[3].left-aileron.hinges.limit". */
function pathInComposition(path: string, type: AircraftType, writtenAt: ReadonlyMap<string, string>): string {
  const found = ITEM.exec(path);
  const id = type.items[Number(found?.[1])]?.id;
  const at = id === undefined ? undefined : writtenAt.get(id);
  if (!found || at === undefined) return path;
  const field = path.slice(found[0].length);
  return at.startsWith("items[") ? `${at}.${field}` : `${at}.${id}.${field}`;
}
