import type { FindingGrade } from "../verdict/judgement";
import {
  type Aircraft,
  type AircraftType,
  type Airfield,
  type Condition,
  type Item,
  PHASES,
  type Phase,
  type RuleSet,
  type Station,
} from "./aircraft-type";

/** A discrepancy that is open on this aircraft when the list is made. */
export interface OpenDiscrepancy {
  id: string;
  stationId: string;
  text: string;
  grade: FindingGrade;
  openedAt: string;
  openedBy: string;
  /** What was last measured or counted of it. */
  measure?: string;
}

/** Today's list, with everything that its judgements need: pinned by its content hash, readable without anything else. */
export interface ComposedList {
  format: "cravix.list/1";
  registration: string;
  year: number;
  conditions: Condition[];
  type: Omit<AircraftType, "items" | "stations" | "format">;
  stations: Station[];
  items: Item[];
  airfield?: Airfield;
  rules?: RuleSet;
  /** What is put away and written down after the flight; no part of the way to the verdict. */
  after?: Item[];
  /** What the confirming items must agree with. */
  facts?: Record<string, string>;
  /** What is different today, and why. */
  differences: { itemId: string; why: string }[];
}

export interface ComposeInput {
  type: AircraftType;
  aircraft: Aircraft;
  conditions: Condition[];
  openDiscrepancies: OpenDiscrepancy[];
  airfield?: Airfield;
  rules?: RuleSet;
}

/** A list that cannot be made, with what to do about it. */
export class ComposeError extends Error {
  override readonly name = "ComposeError";
}

/**
 * Puts today's list together: the type's items that fit this model year and these conditions, the aircraft's own items, and
 * every open discrepancy first at its own station. A discrepancy whose station is gone from the list is met at the very first
 * station rather than lost. The order is phase, then station, then item as in the files.
 * Throws ComposeError for a type without a list and for an aircraft of another type.
 */
export function composeList({
  type,
  aircraft,
  conditions,
  openDiscrepancies,
  airfield,
  rules,
}: ComposeInput): ComposedList {
  if (aircraft.typeId !== type.id)
    throw new ComposeError(`${aircraft.registration} is a ${aircraft.typeId}, not a ${type.id}.`);
  if (type.stub || type.items.length === 0)
    throw new ComposeError(type.stub ?? `The list for ${type.name} has no items.`);
  const differences: ComposedList["differences"] = [];
  const today = (item: Item) => {
    const { from = Number.NEGATIVE_INFINITY, to = Number.POSITIVE_INFINITY } = item.years ?? {};
    if (aircraft.year < from || aircraft.year > to) return false;
    if (!item.when) return true;
    const reason = item.when.find((condition) => conditions.includes(condition));
    if (reason) differences.push({ itemId: item.id, why: reason });
    return reason !== undefined;
  };
  const stations = PHASES.flatMap((phase) => type.stations.filter((station) => station.phase === phase));
  const fallback = stations[0];
  if (!fallback) throw new ComposeError(`The list for ${type.name} has no stations.`);
  const known = openDiscrepancies.map((discrepancy) => {
    const station = stations.some((s) => s.id === discrepancy.stationId)
      ? discrepancy.stationId
      : fallback.id;
    differences.push({ itemId: observeItemId(discrepancy.id), why: "open discrepancy" });
    return observeItem(discrepancy, station);
  });
  const own = aircraft.ownItems.filter(today);
  for (const item of own) differences.push({ itemId: item.id, why: "this aircraft's own" });
  const pool = [...known, ...type.items.filter(today), ...own];
  const items = stations.flatMap((station) => pool.filter((item) => item.station === station.id));
  const after = afterFlightItems(type, items, today);
  const { items: _items, stations: _stations, format: _format, ...profile } = type;
  return {
    format: "cravix.list/1",
    registration: aircraft.registration,
    year: aircraft.year,
    conditions: [...conditions],
    type: profile,
    stations: stations.filter((station) => items.some((item) => item.station === station.id)),
    items: items.map((item) => withRunways(item, airfield)),
    ...(after.length > 0 && { after }),
    ...(aircraft.facts && { facts: aircraft.facts }),
    ...(airfield && { airfield }),
    ...(rules && { rules }),
    differences,
  };
}

/** The type's own items for afterwards, and one for each thing that is taken off today and goes back on. */
function afterFlightItems(
  type: AircraftType,
  items: readonly Item[],
  today: (item: Item) => boolean,
): Item[] {
  const stations = type.stations.filter((station) => station.phase === "after");
  const putBack = items.flatMap(({ id, station, ledger }): Item[] =>
    ledger && "out" in ledger && ledger.after
      ? [
          {
            id: afterItemId(id),
            station,
            kind: "set",
            title: ledger.after,
            good: "back in its place, seen",
            why: `It was taken off before the flight: ${ledger.out}.`,
            miss: "note",
          },
        ]
      : [],
  );
  const own = stations.flatMap((station) => type.items.filter((item) => item.station === station.id));
  return [...own.filter(today), ...putBack];
}

/** The item that puts back what another one took off. */
export function afterItemId(itemId: string): string {
  return `after:${itemId}`;
}

export function observeItemId(discrepancyId: string): string {
  return `known:${discrepancyId}`;
}

function observeItem(discrepancy: OpenDiscrepancy, station: string): Item {
  return {
    id: observeItemId(discrepancy.id),
    station,
    kind: "observe",
    title: discrepancy.text,
    good: discrepancy.measure ? `Last time: ${discrepancy.measure}` : "The same as it was written up",
    bad: "Grown: ask before you fly",
    why: `Open since ${discrepancy.openedAt.slice(0, 10)}, written up by ${discrepancy.openedBy}. What was there before is only normal if it has not grown.`,
    miss: discrepancy.grade,
    discrepancyId: discrepancy.id,
  };
}

function withRunways(item: Item, airfield: Airfield | undefined): Item {
  if (item.choicesFrom !== "runways") return item;
  const choices = (airfield?.runways ?? []).map((runway) => ({ value: runway.id, label: runway.id }));
  return { ...item, choices };
}

/** The phase an item belongs to. */
export function phaseOf(list: ComposedList, item: Item): Phase {
  const phase = list.stations.find((station) => station.id === item.station)?.phase;
  return phase && phase !== "after" ? phase : "papers";
}

/** The items of one phase, in order. */
export function itemsOf(list: ComposedList, phase: Phase): Item[] {
  const stations = new Set(list.stations.filter((s) => s.phase === phase).map((s) => s.id));
  return list.items.filter((item) => stations.has(item.station));
}
