import {
  type Aircraft,
  type AircraftType,
  type Airfield,
  CONDITIONS,
  type Condition,
  type Group,
  type Item,
  PHASES,
  type Phase,
  type RuleSet,
  type Station,
  type StationPhase,
  type StationRole,
} from "../../aircraft/aircraft-type";
import { applyVariant } from "../../aircraft/apply-variant";
import { methodTags, type Preferences, walkaroundOrder } from "../../aircraft/preferences";
import { type AirworthinessSnapshot, DAILY_INSPECTION } from "../../airworthiness/airworthiness-snapshot";
import type { EquipmentList } from "../../airworthiness/deferral/deferral-rules";
import { type DeferralToday, deferralToday } from "../../airworthiness/deferral-today";
import type { DiscrepancyDeferral } from "../../airworthiness/life/deferral";
import type { MeasureLimit } from "../../airworthiness/life/measure-trend";
import type { Photograph } from "../../airworthiness/life/photograph";
import { groupsToday } from "../../groups/groups-today";
import type { FindingGrade } from "../../judgement/judgement";
import type { LoadingProfile } from "../../mass-and-balance/loading-profile";
import type { FluidMemory } from "../../memory/fluid-memory";
import type { MinimaSet } from "../../minima/minima";
import { lightsCheckOrder } from "./lights-check-order";
import { orderByRules } from "./order-by-rules";
import { withValueChecks } from "./value-checks";

/** A discrepancy that is open on this aircraft when the list is made. */
export interface OpenDiscrepancy {
  id: string;
  stationId: string;
  text: string;
  grade: FindingGrade;
  openedAt: string;
  openedBy: string;
  /** What is behind it, where it was judged. */
  cause?: string;
  /** What was last measured or counted of it. */
  measure?: string;
  /** Lawfully put off: until when, for which flights, and by which placard it is known. */
  deferral?: DiscrepancyDeferral;
  /** What may be measured of it at most. */
  limit?: MeasureLimit;
  photographs?: Photograph[];
}

/** Today's list, with everything that its judgements need: pinned by its content hash, readable without anything else. */
export interface ComposedList {
  format: "cravix.list/2";
  registration: string;
  year: number;
  conditions: Condition[];
  type: Omit<AircraftType, "items" | "stations" | "format" | "variants" | "groups">;
  /** The model years that this one belongs to, and what that changes. */
  variant?: { name: string; what: string };
  /** How this pilot works. */
  preferences?: Preferences;
  stations: Station[];
  items: Item[];
  airfield?: Airfield;
  rules?: RuleSet;
  /** What stands on one card today, where this pilot wants it so. */
  groups?: Group[];
  /** What is read once lined up, after the aircraft was accepted: eyes outside, nobody taps on a take-off roll. */
  lineUp?: Item[];
  /** What is put away and written down after the flight; no part of the way to the verdict. */
  after?: Item[];
  /** What the confirming items must agree with. */
  facts?: Record<string, string>;
  /** What the log says of fuel, oil and hours when the list is made. */
  memory?: FluidMemory;
  /** What is due on the aircraft, and what its meters have come to. */
  papers?: AirworthinessSnapshot;
  /** What it weighs and where, and within which limits. */
  loading?: LoadingProfile;
  /** Within which limits whoever flies flies: his own and his authorisation's, as they stood when the preflight began. */
  minima?: MinimaSet[];
  /** What they are nobody had told this device when the preflight began. */
  ownUnknown?: true;
  /** What is put off on it, by the discrepancy: judged for today's flight. */
  deferrals?: Record<string, DeferralToday>;
  /** What may be measured at most of what is known to be open. */
  measureLimits?: Record<string, MeasureLimit>;
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
  /** How this pilot works on this aircraft; without it everything is as the file has it. */
  preferences?: Preferences;
  memory?: FluidMemory;
  papers?: AirworthinessSnapshot;
  loading?: LoadingProfile;
  minima?: MinimaSet[];
  /** This device does not know whether whoever flies has any. */
  ownUnknown?: boolean;
  /** The equipment of the type, for what is put off. */
  equipment?: EquipmentList;
  /** Names the walk: which items are asked by their value follows from it, unforeseeably but repeatably. Without it none is. */
  seed?: string;
}

/** A list that cannot be made, with what to do about it. */
export class ComposeError extends Error {
  override readonly name = "ComposeError";
}

/**
 * Puts today's list together: the type's items that fit this model year, these conditions and these preferences, the aircraft's own items,
 * and every open discrepancy first at its own station. A discrepancy whose station is gone from the list is met at the very first
 * station rather than lost. The order is phase, then station (the lap's in the pilot's own order), then item as in the files, moved
 * only where an ordering rule asks for it. Throws ComposeError for a type without a list and for an aircraft of another type.
 * Complexity: O(items · log items + items of a station · rules).
 */
export function composeList({
  type: wholeType,
  aircraft,
  conditions,
  openDiscrepancies,
  airfield,
  rules,
  preferences,
  memory,
  papers,
  loading,
  minima,
  ownUnknown,
  equipment,
  seed,
}: ComposeInput): ComposedList {
  if (aircraft.typeId !== wholeType.id)
    throw new ComposeError(`${aircraft.registration} is a ${aircraft.typeId}, not a ${wholeType.id}.`);
  if (wholeType.stub || wholeType.items.length === 0)
    throw new ComposeError(wholeType.stub ?? `The checklist for ${wholeType.name} has no items.`);
  for (const { condition, why } of wholeType.notOffered ?? [])
    if (conditions.includes(condition))
      throw new ComposeError(`${wholeType.name}: no checklist for “${condition}”. ${why}`);
  const turnaround = conditions.includes("turnaround");
  if (turnaround) assertTurnaround(wholeType, conditions);
  // What is read on the runway and what is put away is no shorter for a turnaround.
  const everyTime = new Set(
    wholeType.stations.filter((s) => s.phase === "after" || s.role === LINE_UP_CHECK).map((s) => s.id),
  );
  const { type, variant } = applyVariant(wholeType, aircraft.year);
  const tags = preferences && methodTags(preferences);
  const differences: ComposedList["differences"] = [];
  const onRecord = new Set(papers?.dues.map(({ item }) => item.id));
  const today = (item: Item) => {
    if (papers?.daily && item.due?.includes(DAILY_INSPECTION)) return false;
    // What the record answers is not asked; what shows the whole of it is.
    if (papers && item.due && !item.due.includes("*") && item.due.every((id) => onRecord.has(id)))
      return false;
    const { from = Number.NEGATIVE_INFINITY, to = Number.POSITIVE_INFINITY } = item.years ?? {};
    if (aircraft.year < from || aircraft.year > to) return false;
    if (item.method && !(tags ?? DEFAULT_TAGS).has(item.method)) return false;
    if (!item.when)
      return (
        !turnaround ||
        everyTime.has(item.station) ||
        item.turnaround === "always" ||
        (item.turnaround === "refuelled" && conditions.includes("refuelled"))
      );
    const reason = item.when.find((condition) => conditions.includes(condition));
    if (reason) differences.push({ itemId: item.id, why: reason });
    return reason !== undefined;
  };
  const stations = PHASES.flatMap((phase) => {
    const own = type.stations.filter((station) => station.phase === phase);
    return phase === "lap" ? walkaroundOrder(own, preferences) : own;
  });
  const fallback = stations[0];
  if (!fallback) throw new ComposeError(`The checklist for ${type.name} has no stations.`);
  const known = openDiscrepancies.map((discrepancy) => {
    const station = stations.some((s) => s.id === discrepancy.stationId)
      ? discrepancy.stationId
      : fallback.id;
    differences.push({ itemId: observeItemId(discrepancy.id), why: "open discrepancy" });
    return observeItem(discrepancy, station);
  });
  // What an owner has added for this one aircraft is asked every time.
  const own = aircraft.ownItems
    .filter((item) => !item.retired)
    .filter((item) => today({ ...item, turnaround: "always" }));
  const graded = ({ missWhen, ...item }: Item): Item =>
    missWhen && conditions.includes(missWhen.when) ? { ...item, miss: missWhen.miss } : item;
  for (const item of own) differences.push({ itemId: item.id, why: "added for this aircraft" });
  const byStation = new Map<string, Item[]>(stations.map((station) => [station.id, []]));
  for (const item of [...known, ...type.items.filter(today), ...own])
    byStation.get(item.station)?.push(graded(item));
  const ruled = (type.rules ?? []).filter((rule) => !rule.method || (tags ?? DEFAULT_TAGS).has(rule.method));
  const ordered = stations.flatMap((station) =>
    lightsCheckOrder(type, orderByRules(byStation.get(station.id) ?? [], ruled)),
  );
  const onTheRoll = new Set(stations.filter((s) => s.role === LINE_UP_CHECK).map((s) => s.id));
  const lineUp = ordered.filter((item) => onTheRoll.has(item.station) && item.kind !== "observe");
  const standing = ordered.flatMap((item) =>
    !onTheRoll.has(item.station)
      ? [item]
      : // What is known there is looked at while it still stands.
        item.kind === "observe"
        ? [{ ...item, station: lastStanding(stations, onTheRoll) ?? item.station }]
        : [],
  );
  const facts = factsOf(aircraft.facts, loading);
  const proven = withValueChecks(standing, facts, seed);
  for (const itemId of proven.asked) differences.push({ itemId, why: "value to be read out" });
  const { items } = proven;
  const present = new Set(items.map((item) => item.station));
  const after = afterFlightItems(type, items, today);
  const deferrals = openDiscrepancies.flatMap(({ id, deferral }) =>
    deferral ? [[id, deferralToday(deferral, conditions, rules?.deferral, equipment)] as const] : [],
  );
  const limits = openDiscrepancies.flatMap(({ id, limit }) => (limit ? [[id, limit] as const] : []));
  const groups = preferences?.cards === "groups" ? groupsToday(type, items) : [];
  const {
    items: _items,
    stations: _stations,
    format: _format,
    variants: _variants,
    groups: _groups,
    ...profile
  } = type;
  return {
    format: "cravix.list/2",
    registration: aircraft.registration,
    year: aircraft.year,
    conditions: [...conditions],
    type: { ...profile, ...(type.rules && { rules: ruled }) },
    stations: stations.filter((station) => present.has(station.id)),
    items: items.map((item) => withRunways(item, airfield)),
    ...(variant && { variant }),
    ...(preferences && { preferences }),
    ...(groups.length > 0 && { groups }),
    ...(lineUp.length > 0 && { lineUp }),
    ...(after.length > 0 && { after }),
    ...(facts && { facts }),
    ...(airfield && { airfield }),
    ...(rules && { rules }),
    ...(memory && { memory }),
    ...(papers && { papers }),
    ...(loading && { loading }),
    ...(minima && minima.length > 0 && { minima }),
    ...(ownUnknown && { ownUnknown: true as const }),
    ...(limits.length > 0 && { measureLimits: Object.fromEntries(limits) }),
    ...(deferrals.length > 0 && { deferrals: Object.fromEntries(deferrals) }),
    differences,
  };
}

/** With these a turnaround is none: the whole list is walked. */
export const NO_TURNAROUND: readonly Condition[] = ["first of the day", "after maintenance", "just rigged"];

/** What can be different about a day on this type: without what is not offered on it, and a turnaround only where it has one. */
export function offeredConditions(type: Pick<AircraftType, "notOffered" | "items">): Condition[] {
  return CONDITIONS.filter(
    (condition) =>
      !type.notOffered?.some((not) => not.condition === condition) &&
      (condition !== "turnaround" || type.items.some((item) => item.turnaround)),
  );
}

function assertTurnaround(type: AircraftType, conditions: readonly Condition[]): void {
  if (!type.items.some((item) => item.turnaround))
    throw new ComposeError(`${type.name} has no turnaround checklist. Do the full checklist.`);
  const against = NO_TURNAROUND.find((condition) => conditions.includes(condition));
  if (against)
    throw new ComposeError(`A turnaround is not possible with “${against}”. Do the full checklist.`);
}

/** The station whose items are read with eyes outside, after the acceptance. */
const LINE_UP_CHECK: StationRole = "line-up check";

/** The last station at which one still stands still. */
function lastStanding(stations: readonly Station[], onTheRoll: ReadonlySet<string>): string | undefined {
  return stations.filter((s) => !onTheRoll.has(s.id)).at(-1)?.id;
}

const DEFAULT_TAGS = methodTags({ surfaces: "moved", brake: "brake first" });

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
            good: "put back and checked",
            why: `Removed before the flight: ${ledger.out}.`,
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
    good: [
      discrepancy.measure ? `Last time: ${discrepancy.measure}` : "Unchanged since it was logged",
      ...(discrepancy.deferral?.placard ? [`placard in place: ${discrepancy.deferral.placard}`] : []),
      ...(discrepancy.deferral?.deactivated ? [discrepancy.deferral.deactivated] : []),
    ].join("; "),
    bad: "Worse than before: ask before you fly",
    why: `Open since ${discrepancy.openedAt.slice(0, 10)}, logged by ${discrepancy.openedBy}. It is acceptable only if it has not got worse.`,
    miss: discrepancy.grade,
    discrepancyId: discrepancy.id,
    ...(discrepancy.cause && { cause: discrepancy.cause }),
  };
}

function withRunways(item: Item, airfield: Airfield | undefined): Item {
  if (item.choicesFrom !== "runways") return item;
  const choices = (airfield?.runways ?? []).map((runway) => ({ value: runway.id, label: runway.id }));
  return { ...item, choices };
}

/** The phase an item belongs to. */
export function phaseOf(list: ComposedList, item: Item): Phase {
  const phase = placesOf(list).phases.get(item.station);
  return phase && phase !== "after" ? phase : "papers";
}

/** The items of one phase, in order. */
export function itemsOf(list: ComposedList, phase: Phase): Item[] {
  return placesOf(list).items.get(phase) ?? [];
}

interface Places {
  phases: Map<string, StationPhase>;
  items: Map<Phase, Item[]>;
  byId: Map<string, Item>;
}

/** A list never changes once it is made, and every answer asks where things are: looked up once. */
const places = new WeakMap<ComposedList, Places>();

function placesOf(list: ComposedList): Places {
  const known = places.get(list);
  if (known) return known;
  const phases = new Map(list.stations.map((station) => [station.id, station.phase]));
  const items = new Map<Phase, Item[]>();
  for (const item of list.items) {
    const phase = phases.get(item.station);
    if (!phase || phase === "after") continue;
    const row = items.get(phase);
    if (row) row.push(item);
    else items.set(phase, [item]);
  }
  const made = { phases, items, byId: new Map(list.items.map((item) => [item.id, item])) };
  places.set(list, made);
  return made;
}

/** One item of today's list by its id. */
export function itemById(list: ComposedList, id: string): Item | undefined {
  return placesOf(list).byId.get(id);
}

/** The empty mass that is asked for is the one of the last weighing report on file: what the aircraft's file says is as old as that file. */
function factsOf(
  facts: Record<string, string> | undefined,
  loading: LoadingProfile | undefined,
): Record<string, string> | undefined {
  return facts?.["empty.mass"] === undefined || !loading
    ? facts
    : { ...facts, "empty.mass": String(loading.weighing.emptyKg) };
}
