import type {
  Aircraft,
  AircraftType,
  Airfield,
  Item,
  ReadingSpec,
} from "@cravix/core/aircraft/aircraft-type";
import { type AircraftRecord, recordFaults } from "@cravix/core/airworthiness/aircraft-record";
import {
  deferralFaults,
  type EquipmentList,
  type MinimumEntry,
} from "@cravix/core/airworthiness/deferral/deferral-rules";
import { assertScale } from "@cravix/core/fuel/tanks/tank";
import { assertCalibration } from "@cravix/core/fuel/tanks/volume-from-dip";
import { groupFaults, turnaroundFaults } from "@cravix/core/groups/group-faults";
import { upgradeFile } from "@cravix/core/legacy-vocabulary";
import { loadingFaults } from "@cravix/core/mass-and-balance/loading-faults";
import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { performanceFaults } from "@cravix/core/performance/performance-profile";
import { readingDefinition, readingName } from "@cravix/core/readings/reading-keys";
import { isInside } from "@cravix/core/route/walking-distance";
import type { RuleSet } from "@cravix/core/rules/rule-set";
import { isConvertible, QuantityError } from "@cravix/core/units/convert";
import type { AnyObjectSchema } from "yup";
import type { CrewMember } from "../api/api-types";
import { isDeeperThan, MAX_JSON_DEPTH } from "../bounds/json-depth";
import { circularRule } from "./circular-rules";
import {
  aircraftSchema,
  aircraftTypeSchema,
  airfieldSchema,
  airworthinessSchema,
  crewSchema,
  equipmentSchema,
  loadingSchema,
  ruleSetSchema,
} from "./schemas";
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

/** Reads the text of a Cravix file. Never throws: faults are returned with their path. */
export function readFileText(text: string): FileReading {
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
  return readFile(value);
}

/** Validates a parsed file against its format and itself, after upgrading an earlier version. */
export function readFile(given: unknown): FileReading {
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
  const faults = CHECKS[format as string]?.(value as never) ?? [];
  return faults.length > 0 ? { faults: atMost(faults) } : { file: value as CravixFile };
}

/** Checks beyond the schema: internal consistency of a file. */
const CHECKS: Record<string, (file: never) => FileFault[]> = {
  "cravix.aircraft-type/2": (type: AircraftType) => typeFaults(type),
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

function typeFaults(type: AircraftType): FileFault[] {
  const faults = itemFaults(type.items, "items");
  if (type.performance)
    for (const { path, expected } of performanceFaults(type.performance))
      faults.push({ path: `performance.${path}`, expected });
  const stations = new Set<string>();
  type.stations.forEach((station, i) => {
    if (stations.has(station.id))
      faults.push({ path: `stations[${i}].id`, expected: `a unique id; ${station.id} is used twice` });
    stations.add(station.id);
  });
  type.items.forEach((item, i) => {
    if (!stations.has(item.station))
      faults.push({
        path: `items[${i}].station`,
        expected: `a station in this file; ${item.station} does not exist`,
      });
  });
  if (!type.stub && type.items.length === 0)
    faults.push({ path: "items", expected: 'at least one item, or a "stub" text that says what is missing' });
  const ids = new Set(type.items.map((item) => item.id));
  type.rules?.forEach((rule, i) => {
    const missing = (path: string, item: string) =>
      faults.push({ path: `rules[${i}].${path}`, expected: `an item in this file; ${item} does not exist` });
    if (!ids.has(rule.first)) missing("first", rule.first);
    rule.waits.items?.forEach((item, k) => {
      if (!ids.has(item)) missing(`waits.items[${k}]`, item);
    });
    if (!rule.waits.items?.length && !rule.waits.touches)
      faults.push({ path: `rules[${i}].waits`, expected: '"items" or "touches"' });
  });
  const circular = circularRule(type);
  if (circular)
    faults.push({
      path: `rules[${circular.rule}].waits`,
      expected: `items that do not wait for each other; now ${circular.circle.join(" and ")} do`,
    });
  faults.push(...profileFaults(type, ""));
  type.variants?.forEach((variant, i) => {
    faults.push(...profileFaults(variant, `variants[${i}].`));
  });
  faults.push(...placeFaults(type), ...loadFaults(type), ...subjectFaults(type));
  faults.push(...groupFaults(type), ...turnaroundFaults(type));
  return faults;
}

function profileFaults({ fuel }: Pick<AircraftType, "fuel">, at: string): FileFault[] {
  return (fuel?.tanks ?? []).flatMap((tank, i) => {
    const check = (part: "calibration" | "gauge" | "sight", assert: () => void): FileFault[] => {
      try {
        assert();
        return [];
      } catch (error) {
        if (!(error instanceof QuantityError)) throw error;
        return [{ path: `${at}fuel.tanks[${i}].${part}.points`, expected: error.message }];
      }
    };
    const { calibration, gauge, sight } = tank;
    return [
      ...(calibration ? check("calibration", () => assertCalibration(calibration)) : []),
      ...(gauge ? check("gauge", () => assertScale(gauge)) : []),
      ...(sight ? check("sight", () => assertScale(sight)) : []),
    ];
  });
}

/** Stations must not be inside walls, and outside checks must name existing stations. */
function placeFaults({ plan, stations, items }: AircraftType): FileFault[] {
  const faults: FileFault[] = [];
  const walls = (plan?.walls ?? []).map((wall) => wall.map(([x, y]) => ({ x, y })));
  stations.forEach(({ phase, x, y }, i) => {
    if (
      phase === "lap" &&
      x !== undefined &&
      y !== undefined &&
      walls.some((wall) => isInside({ x, y }, wall))
    )
      faults.push({ path: `stations[${i}]`, expected: "a position outside the walls of the plan" });
  });
  items.forEach(({ spot }, i) => {
    if (spot && !stations.some((s) => s.id === spot && s.x !== undefined))
      faults.push({
        path: `items[${i}].spot`,
        expected: "a station in this file that has a position on the plan",
      });
  });
  return faults;
}

function loadFaults({ items, electrical, variants }: AircraftType): FileFault[] {
  const known = new Set(
    [electrical, ...(variants ?? []).map((v) => v.electrical)]
      .flatMap((e) => e?.loads ?? [])
      .map((l) => l.id),
  );
  return items.flatMap(({ loads }, i) => [
    ...(loads?.on ?? [])
      .filter((id) => !known.has(id))
      .map((id) => ({
        path: `items[${i}].loads.on`,
        expected: `a load from the electrical profile; ${id} does not exist`,
      })),
    ...(loads?.off ?? [])
      .filter((id) => id !== "all" && !known.has(id))
      .map((id) => ({
        path: `items[${i}].loads.off`,
        expected: `a load from the electrical profile, or "all"; ${id} does not exist`,
      })),
  ]);
}

/** A key with a dot must be known, with a compatible unit; any other is the aircraft's own. */
function readingFaults({ key, unit }: ReadingSpec, path: string): FileFault[] {
  const name = readingName(key);
  if (!name)
    return key.includes(".") && !key.startsWith(OWN)
      ? [
          {
            path: `${path}.key`,
            expected: `a known reading such as oil.level or fuel.dip.left, or your own, starting with ${OWN}`,
          },
        ]
      : [];
  const wanted = readingDefinition(name.kind).unit;
  return !wanted || isConvertible(unit, wanted)
    ? []
    : [{ path: `${path}.unit`, expected: `a unit that converts to ${wanted}` }];
}

const OWN = "own.";

/** Readings must refer to existing engines and tanks. */
function subjectFaults({ items, engines, fuel, variants }: AircraftType): FileFault[] {
  const tanks = new Set(
    [fuel, ...(variants ?? []).map((v) => v.fuel)].flatMap((f) => f?.tanks ?? []).map((t) => t.id),
  );
  return items.flatMap(({ reading }, i) => {
    const name = reading && readingName(reading.key);
    if (!name) return [];
    const { of } = readingDefinition(name.kind);
    const path = `items[${i}].reading.key`;
    const { subject } = name;
    if (of === "tank" && subject !== undefined && !tanks.has(subject))
      return [{ path, expected: `a tank of this type; ${subject} does not exist` }];
    if (of === "engine" && subject !== undefined && !engines?.includes(subject))
      return [{ path, expected: `an engine of this type; ${subject} does not exist` }];
    return [];
  });
}

/** Fields each kind of item requires. */
function itemFaults(items: readonly Item[], path: string): FileFault[] {
  const faults: FileFault[] = [];
  const seen = new Set<string>();
  const thingsOut = new Set(
    items.flatMap((item) => (item.ledger && "out" in item.ledger ? [item.ledger.out] : [])),
  );
  items.forEach((item, i) => {
    const fault = (field: string, expected: string) =>
      faults.push({ path: `${path}[${i}].${field}`, expected });
    if (seen.has(item.id)) fault("id", `a unique id; ${item.id} is used twice`);
    seen.add(item.id);
    if ((item.kind === "count" || item.kind === "pull") && item.expected === undefined)
      fault("expected", "the number expected");
    if (item.kind === "measure" && !item.reading) fault("reading", "a reading with its unit");
    if (item.kind === "choice" && !item.choices?.length && !item.choicesFrom)
      fault("choices", "a list of choices");
    if (item.kind === "time" && item.seconds === undefined) fault("seconds", "a time in seconds");
    if (item.kind === "confirm" && !item.confirm)
      fault("confirm", "the question, and the fact that answers it");
    if (item.limit && item.reading && !isConvertible(item.limit.unit, item.reading.unit))
      fault("limit.unit", `a unit that converts to ${item.reading.unit}`);
    if (item.reading) faults.push(...readingFaults(item.reading, `${path}[${i}].reading`));
    if (item.ledger && "back" in item.ledger && !thingsOut.has(item.ledger.back))
      fault(
        "ledger.back",
        `a thing that another item removes, opens or switches on; ${item.ledger.back} does not exist`,
      );
  });
  return faults;
}
