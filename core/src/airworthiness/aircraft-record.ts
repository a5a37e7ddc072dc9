import type { Source } from "../judgement/judgement";
import { isLocalDate, isTimeZone } from "./calendar/local-date";
import type { DueItem, DueLimit, WorkDone } from "./due/due-item";
import { type Component, type Fitting, fittingFaults, type Totals } from "./meters/component";
import { isCounted, type Meter, totalsWithSums } from "./meters/meter";

/** A meter of an aircraft, and the preflight reading that updates it. */
export type RecordMeter = Meter & { reading?: string };

/** Airworthiness record of one aircraft as data: meters, components, due items, and work done before this record begins. */
export interface AircraftRecord {
  format: "cravix.airworthiness/1";
  registration: string;
  /** Time zone in which its days end; UTC if absent. */
  timeZone?: string;
  meters: RecordMeter[];
  /** Totals at the start of the record. */
  start: { at: string; totals: Totals };
  components: Component[];
  fittings: Fitting[];
  items: DueItem[];
  works: WorkDone[];
  source?: Source;
}

/** Contradictions in a record; paths as in the file. */
export function recordFaults(record: AircraftRecord): { path: string; expected: string }[] {
  const faults: { path: string; expected: string }[] = [];
  const say = (path: string, expected: string) => faults.push({ path, expected });
  twice(record.meters, "meters", say);
  twice(record.items, "items", say);
  twice(record.components, "components", say);
  sameSerial(record.components, say);
  if (record.timeZone !== undefined && !isTimeZone(record.timeZone))
    say("timeZone", "an IANA time zone, such as Europe/Lisbon");
  const meters = new Set(record.meters.map(({ id }) => id));
  const components = new Set(record.components.map(({ id }) => id));
  record.meters.forEach((meter, i) => {
    if (isCounted(meter.kind) && meter.decimals !== 0)
      say(`meters[${i}].decimals`, "0, because this meter counts whole numbers");
    if (meter.sumOf) ofSum(meter, `meters[${i}]`, record.meters, say);
    else if (record.start.totals[meter.id] === undefined)
      say("start.totals", `the total of ${meter.id} at the start of the record`);
    const changes = meter.changes ?? [];
    changes.forEach(({ at }, n) => {
      const before = changes[n - 1];
      if (before && Date.parse(before.at) >= Date.parse(at))
        say(`meters[${i}].changes[${n}].at`, "a time after the previous change");
    });
  });
  const kinds = new Map(record.items.map((item) => [item.id, item]));
  record.items.forEach((item, i) => {
    if (item.of !== undefined && !components.has(item.of))
      say(`items[${i}].of`, `an existing component; "${item.of}" does not exist`);
    ofRelations(item, `items[${i}]`, kinds, say);
    ofComponentsMeters(item, `items[${i}]`, record.components, say);
    item.limits.forEach((limit, n) => {
      ofLimit(limit, `items[${i}].limits[${n}]`, meters, say);
    });
  });
  record.fittings.forEach(({ component }, i) => {
    if (!components.has(component)) say(`fittings[${i}].component`, "an existing component");
  });
  for (const words of fittingFaults(record.fittings)) say("fittings", `one position at a time. ${words}`);
  record.works.forEach((work, i) => {
    const item = kinds.get(work.item);
    if (!item) say(`works[${i}].item`, `an existing due item; "${work.item}" does not exist`);
    if (!isLocalDate(work.date)) say(`works[${i}].date`, "a date, such as 2026-03-31");
    const totals = totalsWithSums(work.totals, record.meters);
    for (const limit of item?.limits ?? [])
      if (
        limit.by === "meter" &&
        totals[limit.meter] === undefined &&
        work.sets?.readings?.[limit.meter] === undefined
      )
        say(`works[${i}].totals`, `the total of ${limit.meter} when the work was done`);
  });
  return faults;
}

type Say = (path: string, expected: string) => void;

function ofSum(meter: RecordMeter, path: string, meters: readonly RecordMeter[], say: Say): void {
  for (const part of meter.sumOf ?? []) {
    const other = meters.find(({ id }) => id === part);
    if (!other) say(`${path}.sumOf`, `existing meters; "${part}" does not exist`);
    else if (other.sumOf)
      say(`${path}.sumOf`, `meters with readings of their own; "${part}" is a sum itself`);
    else if (isCounted(other.kind) !== isCounted(meter.kind))
      say(`${path}.sumOf`, `either hours or counts; "${part}" is of another kind`);
  }
  if (meter.reading !== undefined || (meter.changes ?? []).length > 0)
    say(path, "no reading and no replacements, because it adds up other meters");
}

function ofRelations(item: DueItem, path: string, items: ReadonlyMap<string, DueItem>, say: Say): void {
  for (const id of item.does ?? []) {
    const other = items.get(id);
    if (!other || id === item.id) say(`${path}.does`, `other existing items; not "${id}"`);
    else if (other.of !== item.of)
      say(`${path}.does`, `items of the same component or aircraft; "${id}" belongs to another`);
  }
  for (const id of item.endedBy ?? [])
    if (!items.has(id) || id === item.id) say(`${path}.endedBy`, `other existing items; not "${id}"`);
}

/** A component's item can only count what the component counts. */
function ofComponentsMeters(item: DueItem, path: string, components: readonly Component[], say: Say): void {
  const component = components.find(({ id }) => id === item.of);
  if (!component) return;
  item.limits.forEach((limit, n) => {
    if ((limit.by === "meter" || limit.by === "reading") && !Object.hasOwn(component.sinceNew, limit.meter))
      say(`${path}.limits[${n}].meter`, `a meter that ${component.name} counts; not "${limit.meter}"`);
  });
}

function ofLimit(
  limit: DueLimit,
  path: string,
  meters: ReadonlySet<string>,
  say: (path: string, expected: string) => void,
): void {
  if ((limit.by === "meter" || limit.by === "reading") && !meters.has(limit.meter))
    say(`${path}.meter`, `an existing meter; "${limit.meter}" does not exist`);
  if (limit.by === "date" && !isLocalDate(limit.date)) say(`${path}.date`, "a date, such as 2026-03-31");
  if ((limit.by === "months" || limit.by === "days") && !Number.isInteger(limit.first ?? 0))
    say(`${path}.first`, `a whole number of ${limit.by}`);
  const purposes = (limit.tolerances ?? []).map((tolerance) => tolerance.for);
  (limit.tolerances ?? []).forEach(({ unit }, i) => {
    if (unit === "months" && (limit.by === "meter" || limit.by === "reading"))
      say(`${path}.tolerances[${i}].unit`, "months only for a calendar limit");
  });
  purposes.forEach((purpose, i) => {
    if (purposes.indexOf(purpose) !== i)
      say(`${path}.tolerances[${i}]`, `one tolerance per purpose; "${purpose}" has two`);
  });
}

/** One serial number is one component. */
function sameSerial(components: readonly Component[], say: Say): void {
  const seen = new Set<string>();
  components.forEach(({ kind, serial }, i) => {
    if (!serial) return;
    const name = `${kind} ${serial}`;
    if (seen.has(name)) say(`components[${i}].serial`, `another serial number; there is a ${name} already`);
    seen.add(name);
  });
}

function twice(
  rows: readonly { id: string }[],
  name: string,
  say: (path: string, expected: string) => void,
): void {
  const seen = new Set<string>();
  rows.forEach(({ id }, i) => {
    if (seen.has(id)) say(`${name}[${i}].id`, "a unique id");
    seen.add(id);
  });
}
