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
  type Station,
  type StationPhase,
  type StationRole,
} from "../../aircraft/aircraft-type";
import { applyVariant } from "../../aircraft/apply-variant";
import { conditionText } from "../../aircraft/condition-text";
import { methodTags, type Preferences, walkaroundOrder } from "../../aircraft/preferences";
import { type AirworthinessSnapshot, DAILY_INSPECTION } from "../../airworthiness/airworthiness-snapshot";
import type { EquipmentList } from "../../airworthiness/deferral/deferral-rules";
import { type DeferralForFlight, deferralForFlight } from "../../airworthiness/deferral-today";
import type { DiscrepancyDeferral } from "../../airworthiness/life/deferral";
import type { MeasureLimit } from "../../airworthiness/life/measure-trend";
import type { Photograph } from "../../airworthiness/life/photograph";
import type { PilotInDate } from "../../airworthiness/people/pilot-in-date";
import { groupsForConditions } from "../../groups/groups-today";
import type { FindingGrade } from "../../judgement/judgement";
import type { LoadingProfile } from "../../mass-and-balance/loading-profile";
import type { FluidMemory } from "../../memory/fluid-memory";
import type { MinimaSet } from "../../minima/minima";
import type { RuleSet } from "../../rules/rule-set";
import { withIntersections } from "../../runways/with-intersections";
import { lightsCheckOrder } from "./lights-check-order";
import { orderByRules } from "./order-by-rules";
import { withValueChecks } from "./value-checks";

/** A discrepancy open on this aircraft when the checklist is composed. */
export interface OpenDiscrepancy {
  id: string;
  stationId: string;
  text: string;
  grade: FindingGrade;
  openedAt: string;
  openedBy: string;
  /** Its cause, if it was judged. */
  cause?: string;
  /** Its last measure or count. */
  measure?: string;
  /** Deferral: expiry, kinds of flight, placard. */
  deferral?: DiscrepancyDeferral;
  /** Limit for its measure. */
  limit?: MeasureLimit;
  photographs?: Photograph[];
}

/** Today's checklist with everything its judgements need: pinned by its content hash, readable on its own. */
export interface ComposedList {
  format: "cravix.list/2";
  registration: string;
  year: number;
  conditions: Condition[];
  type: Omit<AircraftType, "items" | "stations" | "format" | "variants" | "groups">;
  /** Variant for this model year, and what it changes. */
  variant?: { name: string; what: string };
  /** How this pilot works. */
  preferences?: Preferences;
  stations: Station[];
  items: Item[];
  airfield?: Airfield;
  rules?: RuleSet;
  /** Groups of items on one card, if this pilot uses cards. */
  groups?: Group[];
  /** Line-up items, read after the aircraft was accepted: eyes outside, no taps during the take-off roll. */
  lineUp?: Item[];
  /** After-flight items; not needed for the verdict. */
  after?: Item[];
  /** Values for the confirm items. */
  facts?: Record<string, string>;
  /** Fuel, oil and hours from the log when the checklist was composed. */
  memory?: FluidMemory;
  /** Due items and meter totals. */
  papers?: AirworthinessSnapshot;
  /** Mass and balance data and limits. */
  loading?: LoadingProfile;
  /** Limits of the pilot, from personal minimums and authorisation, when the preflight started. */
  minima?: MinimaSet[];
  /** Set if this device did not know the pilot's limits when the preflight started. */
  ownUnknown?: true;
  /** Whether the pilot was in date for this flight when the preflight started; absent if nobody knew. */
  pilotInDate?: PilotInDate;
  /** Deferrals by discrepancy, judged for today's flight. */
  deferrals?: Record<string, DeferralForFlight>;
  /** Measure limits of known open discrepancies. */
  measureLimits?: Record<string, MeasureLimit>;
  /** What differs from the standard checklist today, and why. */
  differences: { itemId: string; why: string }[];
}

export interface ComposeInput {
  type: AircraftType;
  aircraft: Aircraft;
  conditions: Condition[];
  openDiscrepancies: OpenDiscrepancy[];
  airfield?: Airfield;
  rules?: RuleSet;
  /** How this pilot works on this aircraft; absent: as in the file. */
  preferences?: Preferences;
  memory?: FluidMemory;
  papers?: AirworthinessSnapshot;
  loading?: LoadingProfile;
  minima?: MinimaSet[];
  /** True if this device does not know whether the pilot has limits. */
  ownUnknown?: boolean;
  pilotInDate?: PilotInDate;
  /** Equipment of the type, for deferrals. */
  equipment?: EquipmentList;
  /**
   * Seed naming the preflight, which selects the items confirmed by value: unpredictable but repeatable. Without it there are
   * none.
   */
  seed?: string;
}

/** A checklist that cannot be composed, and what to do about it. */
export class ComposeError extends Error {
  override readonly name = "ComposeError";
}

/**
 * Composes today's checklist: the type's items for this model year, conditions and preferences, the aircraft's added items, and
 * every open discrepancy first at its station. A discrepancy whose station no longer exists moves to the first station. Order:
 * phase, station (walkaround in the pilot's own order), item as in the files, changed only where an ordering rule requires it.
 * Throws ComposeError for a type without a checklist and for an aircraft of another type.
 * Complexity: O(items · log items + items of a station · rules).
 */
export function composeList({
  type: wholeType,
  aircraft,
  conditions,
  openDiscrepancies,
  airfield: field,
  rules,
  preferences,
  memory,
  papers,
  loading,
  minima,
  ownUnknown,
  pilotInDate,
  equipment,
  seed,
}: ComposeInput): ComposedList {
  const airfield = field && withIntersections(field);
  if (aircraft.typeId !== wholeType.id)
    throw new ComposeError(`${aircraft.registration} is a ${aircraft.typeId}, not a ${wholeType.id}.`);
  if (wholeType.stub || wholeType.items.length === 0)
    throw new ComposeError(wholeType.stub ?? `The checklist for ${wholeType.name} has no items.`);
  for (const { condition, why } of wholeType.notOffered ?? [])
    if (conditions.includes(condition))
      throw new ComposeError(`${wholeType.name}: no checklist for “${conditionText(condition)}”. ${why}`);
  const turnaround = conditions.includes("turnaround");
  if (turnaround) assertTurnaround(wholeType, conditions);
  // A turnaround does not shorten the line-up check or the after-flight checks.
  const everyTime = new Set(
    wholeType.stations.filter((s) => s.phase === "after" || s.role === LINE_UP_CHECK).map((s) => s.id),
  );
  const { type, variant } = applyVariant(wholeType, aircraft.year);
  const tags = preferences && methodTags(preferences);
  const differences: ComposedList["differences"] = [];
  const onRecord = new Set(papers?.dues.map(({ item }) => item.id));
  const today = (item: Item) => {
    if (papers?.daily && item.due?.includes(DAILY_INSPECTION)) return false;
    // Skip what the record answers; keep the item that shows the whole record.
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
    if (reason) differences.push({ itemId: item.id, why: conditionText(reason) });
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
  // Items added to this aircraft are asked every time.
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
      : // Check known discrepancies there while the aircraft is stationary.
        item.kind === "observe"
        ? [{ ...item, station: lastStatus(stations, onTheRoll) ?? item.station }]
        : [],
  );
  const facts = factsOf(aircraft.facts, loading);
  const proven = withValueChecks(standing, facts, seed);
  for (const itemId of proven.asked) differences.push({ itemId, why: "value to be read out" });
  const { items } = proven;
  const present = new Set(items.map((item) => item.station));
  const after = afterFlightItems(type, items, today);
  const deferrals = openDiscrepancies.flatMap(({ id, deferral }) =>
    deferral
      ? [
          [
            id,
            deferralForFlight(deferral, conditions, {
              rules: rules?.deferral,
              list: equipment,
              built: String(aircraft.year),
            }),
          ] as const,
        ]
      : [],
  );
  const limits = openDiscrepancies.flatMap(({ id, limit }) => (limit ? [[id, limit] as const] : []));
  const groups = preferences?.cards === "groups" ? groupsForConditions(type, items) : [];
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
    ...(pilotInDate && { pilotInDate }),
    ...(limits.length > 0 && { measureLimits: Object.fromEntries(limits) }),
    ...(deferrals.length > 0 && { deferrals: Object.fromEntries(deferrals) }),
    differences,
  };
}

/** Conditions that rule out a turnaround. */
export const NO_TURNAROUND: readonly Condition[] = ["first of the day", "after maintenance", "just rigged"];

/** Conditions available for this type: without those marked as not offered, and turnaround only if the type supports it. */
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

/** Station whose items are read with eyes outside, after acceptance. */
const LINE_UP_CHECK: StationRole = "line-up check";

/** Last station before the aircraft moves. */
function lastStatus(stations: readonly Station[], onTheRoll: ReadonlySet<string>): string | undefined {
  return stations.filter((s) => !onTheRoll.has(s.id)).at(-1)?.id;
}

const DEFAULT_TAGS = methodTags({ surfaces: "moved", brake: "brake first" });

/** The type's after-flight items, plus one for each thing removed today that goes back on. */
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

/** Id of the item that puts back what another item took off. */
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

/** Phase of an item. */
export function phaseOf(list: ComposedList, item: Item): Phase {
  const phase = placesOf(list).phases.get(item.station);
  return phase && phase !== "after" ? phase : "papers";
}

/** Items of one phase, in order. */
export function itemsOf(list: ComposedList, phase: Phase): Item[] {
  return placesOf(list).items.get(phase) ?? [];
}

interface Places {
  phases: Map<string, StationPhase>;
  items: Map<Phase, Item[]>;
  byId: Map<string, Item>;
}

/** Checklists are immutable, so the lookup is built once. */
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

/** Item of today's checklist by id. */
export function itemById(list: ComposedList, id: string): Item | undefined {
  return placesOf(list).byId.get(id);
}

/** The empty mass comes from the last weighing report; the aircraft file may be older. */
function factsOf(
  facts: Record<string, string> | undefined,
  loading: LoadingProfile | undefined,
): Record<string, string> | undefined {
  return facts?.["empty.mass"] === undefined || !loading
    ? facts
    : { ...facts, "empty.mass": String(loading.weighing.emptyKg) };
}
