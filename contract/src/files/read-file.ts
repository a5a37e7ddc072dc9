import type { Aircraft, AircraftType, Airfield } from "@cravix/core/aircraft/aircraft-type";
import { type AircraftRecord, recordFaults } from "@cravix/core/airworthiness/aircraft-record";
import {
  deferralFaults,
  type EquipmentList,
  type MinimumEntry,
} from "@cravix/core/airworthiness/deferral/deferral-rules";
import { upgradeFile } from "@cravix/core/legacy-vocabulary";
import { loadingFaults } from "@cravix/core/mass-and-balance/loading-faults";
import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import type { PartSheet } from "@cravix/core/parts/part-sheet";
import type { StationsFile } from "@cravix/core/parts/station-sheet";
import type { Library, TypeComposition } from "@cravix/core/parts/type-composition";
import type { RuleSet } from "@cravix/core/rules/rule-set";
import type { AnyObjectSchema } from "yup";
import type { CrewMember } from "../api/api-types";
import { isDeeperThan, MAX_JSON_DEPTH } from "../bounds/json-depth";
import { compositionFaults } from "./composition-faults";
import { partFaults } from "./part-faults";
import {
  aircraftSchema,
  aircraftTypeSchema,
  airfieldSchema,
  airworthinessSchema,
  compositionSchema,
  crewSchema,
  equipmentSchema,
  loadingSchema,
  partSchema,
  ruleSetSchema,
  stationsSchema,
} from "./schemas";
import { itemFaults, typeFaults } from "./type-faults";
import { atMost, type FileFault, validateFile } from "./validate-file";

export interface CrewFile {
  format: "cravix.crew/1";
  members: CrewMember[];
}

/** Equipment of a type, and the operator's approved minimum equipment list, if any. */
export type EquipmentFile = EquipmentList & {
  format: "cravix.equipment-list/1";
  id: string;
  typeId: string;
  minimum?: MinimumEntry[];
};

export type CravixFile =
  | AircraftType
  | TypeComposition
  | PartSheet
  | StationsFile
  | Aircraft
  | Airfield
  | RuleSet
  | CrewFile
  | AircraftRecord
  | EquipmentFile
  | LoadingProfile;

export type FileReading = { file: CravixFile } | { faults: FileFault[] };

/** File formats with schema and description. */
export const FILE_FORMATS: Record<string, { schema: AnyObjectSchema; what: string }> = {
  "cravix.aircraft-type/2": { schema: aircraftTypeSchema, what: "An aircraft type: stations, items, limits" },
  "cravix.aircraft-type/3": {
    schema: compositionSchema,
    what: "An aircraft type composed of parts of the library, with the limits of its handbook",
  },
  "cravix.part/1": {
    schema: partSchema,
    what: "A part of an aircraft: what is looked at, in which order, and why",
  },
  "cravix.stations/1": {
    schema: stationsSchema,
    what: "The stations of the library, with their usual order",
  },
  "cravix.aircraft/2": { schema: aircraftSchema, what: "One aircraft, with its added items" },
  "cravix.airfield/1": { schema: airfieldSchema, what: "An airfield with its runways" },
  "cravix.rule-set/1": {
    schema: ruleSetSchema,
    what: "Rules of an airfield or group: fuel reserves, tolerances, deferral",
  },
  "cravix.crew/1": { schema: crewSchema, what: "The people of a group" },
  "cravix.airworthiness/1": {
    schema: airworthinessSchema,
    what: "Airworthiness record of one aircraft: meters, components, due items, work done",
  },
  "cravix.loading/1": {
    schema: loadingSchema,
    what: "Mass and balance of one aircraft: weighing, stations, tanks, envelope, limits",
  },
  "cravix.equipment-list/1": {
    schema: equipmentSchema,
    what: "Equipment of a type, and the operator's approved minimum equipment list",
  },
};

/**
 * Reads the text of a Cravix file. Never throws: faults are returned with their path. A composition is only composed, and so
 * fully checked, if a library is given.
 */
export function readFileText(text: string, library?: Library): FileReading {
  let value: unknown;
  if (isDeeperThan(text))
    return { faults: [{ path: "", expected: `at most ${MAX_JSON_DEPTH} levels of nesting` }] };
  try {
    value = JSON.parse(text);
  } catch (error) {
    // Position where JSON parsing failed, without the content.
    const at = /position (\d+)/.exec((error as Error).message)?.[1];
    return {
      faults: [{ path: "", expected: at ? `valid JSON; the error is at character ${at}` : "valid JSON" }],
    };
  }
  return readFile(value, library);
}

/** Validates a parsed file against its format and itself, after upgrading an earlier version. */
export function readFile(given: unknown, library?: Library): FileReading {
  const value = upgradeFile(given);
  if (typeof value !== "object" || value === null || Array.isArray(value))
    return { faults: [{ path: "", expected: "a JSON object" }] };
  const format = (value as { format?: unknown }).format;
  const schema =
    typeof format === "string" && Object.hasOwn(FILE_FORMATS, format)
      ? FILE_FORMATS[format]?.schema
      : undefined;
  if (!schema)
    return { faults: [{ path: "format", expected: `one of ${Object.keys(FILE_FORMATS).join(", ")}` }] };
  const invalid = validateFile(schema, value);
  if (invalid.length > 0) return { faults: invalid };
  const faults = CHECKS[format as string]?.(value as never, library) ?? [];
  return faults.length > 0 ? { faults: atMost(faults) } : { file: value as CravixFile };
}

/** Checks beyond the schema: internal consistency of a file. */
const CHECKS: Record<string, (file: never, library?: Library) => FileFault[]> = {
  "cravix.aircraft-type/2": (type: AircraftType) => typeFaults(type),
  "cravix.aircraft-type/3": (composition: TypeComposition, library) =>
    library ? compositionFaults(composition, library) : [],
  "cravix.part/1": (sheet: PartSheet) => partFaults(sheet),
  "cravix.aircraft/2": (aircraft: Aircraft) => itemFaults(aircraft.ownItems, "ownItems"),
  "cravix.rule-set/1": ({ deferral }: RuleSet) =>
    deferral
      ? deferralFaults(deferral).map(({ path, expected }) => ({ path: `deferral.${path}`, expected }))
      : [],
  "cravix.airworthiness/1": (record: AircraftRecord) => recordFaults(record),
  "cravix.loading/1": (profile: LoadingProfile) => loadingFaults(profile),
  "cravix.equipment-list/1": (file: EquipmentFile) => equipmentFaults(file),
};

function equipmentFaults({ equipment, never, minimum = [] }: EquipmentFile): FileFault[] {
  const faults: FileFault[] = [];
  const ids = new Set<string>();
  const items = new Map<string, string>();
  equipment.forEach((one, i) => {
    if (ids.has(one.id))
      faults.push({ path: `equipment[${i}].id`, expected: `a unique id; ${one.id} is used twice` });
    ids.add(one.id);
    one.items.forEach((item, n) => {
      const other = items.get(item);
      if (other)
        faults.push({
          path: `equipment[${i}].items[${n}]`,
          expected: `an item that belongs to one piece of equipment only; ${item} also belongs to ${other}`,
        });
      else items.set(item, one.id);
    });
  });
  never.forEach((item, i) => {
    if (items.has(item))
      faults.push({
        path: `never[${i}]`,
        expected: `an item that belongs to no piece of equipment; ${item} belongs to ${items.get(item)}`,
      });
  });
  minimum.forEach((entry, i) => {
    if (!ids.has(entry.equipment))
      faults.push({
        path: `minimum[${i}].equipment`,
        expected: `a piece of equipment in this file; ${entry.equipment} does not exist`,
      });
    if (entry.required > entry.installed)
      faults.push({
        path: `minimum[${i}].required`,
        expected: "a number not greater than the number installed",
      });
  });
  return faults;
}
