import type { AircraftType, Item, ReadingSpec } from "@cravix/core/aircraft/aircraft-type";
import { assertScale } from "@cravix/core/fuel/tanks/tank";
import { assertCalibration } from "@cravix/core/fuel/tanks/volume-from-dip";
import { groupFaults, turnaroundFaults } from "@cravix/core/groups/group-faults";
import { performanceFaults } from "@cravix/core/performance/performance-profile";
import { readingDefinition, readingName } from "@cravix/core/readings/reading-keys";
import { isInside } from "@cravix/core/route/walking-distance";
import { isConvertible, QuantityError } from "@cravix/core/units/convert";
import { circularRule } from "./circular-rules";
import type { FileFault } from "./validate-file";

/** What an aircraft type contradicts in itself, beyond its schema. */
export function typeFaults(type: AircraftType): FileFault[] {
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

/** What each kind of item requires besides its common fields. */
const REQUIRED: {
  kinds: Item["kind"][];
  missing: (item: Item) => boolean;
  field: string;
  expected: string;
}[] = [
  {
    kinds: ["count", "pull"],
    missing: ({ expected }) => expected === undefined,
    field: "expected",
    expected: "the number expected",
  },
  {
    kinds: ["measure"],
    missing: ({ reading }) => !reading,
    field: "reading",
    expected: "a reading with its unit",
  },
  {
    kinds: ["choice"],
    missing: ({ choices, choicesFrom }) => !choices?.length && !choicesFrom,
    field: "choices",
    expected: "a list of choices",
  },
  {
    kinds: ["time"],
    missing: ({ seconds }) => seconds === undefined,
    field: "seconds",
    expected: "a time in seconds",
  },
  {
    kinds: ["confirm"],
    missing: ({ confirm }) => !confirm,
    field: "confirm",
    expected: "the question, and the fact that answers it",
  },
];

/** Faults of items: their ids, the fields that each kind requires, readings, limits and ledger. */
export function itemFaults(items: readonly Item[], path: string): FileFault[] {
  const seen = new Set<string>();
  const thingsOut = new Set(
    items.flatMap((item) => (item.ledger && "out" in item.ledger ? [item.ledger.out] : [])),
  );
  return items.flatMap((item, i) => {
    const at = `${path}[${i}]`;
    const twice = seen.has(item.id);
    seen.add(item.id);
    return [
      ...(twice ? [{ path: `${at}.id`, expected: `a unique id; ${item.id} is used twice` }] : []),
      ...REQUIRED.filter(({ kinds, missing }) => kinds.includes(item.kind) && missing(item)).map(
        ({ field, expected }) => ({ path: `${at}.${field}`, expected }),
      ),
      ...(item.limit && item.reading && !isConvertible(item.limit.unit, item.reading.unit)
        ? [{ path: `${at}.limit.unit`, expected: `a unit that converts to ${item.reading.unit}` }]
        : []),
      ...(item.reading ? readingFaults(item.reading, `${at}.reading`) : []),
      ...(item.ledger && "back" in item.ledger && !thingsOut.has(item.ledger.back)
        ? [
            {
              path: `${at}.ledger.back`,
              expected: `a thing that another item removes, opens or switches on; ${item.ledger.back} does not exist`,
            },
          ]
        : []),
    ];
  });
}
