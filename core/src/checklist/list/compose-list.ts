import {
  type Aircraft,
  type AircraftType,
  type Airfield,
  type Condition,
  type Group,
  type Item,
  PHASES,
  type Station,
  type StationRole,
} from "../../aircraft/aircraft-type";
import { applyVariant } from "../../aircraft/apply-variant";
import { conditionText } from "../../aircraft/condition-text";
import { methodTags, type Preferences, walkaroundOrder } from "../../aircraft/preferences";
import { type AirworthinessSnapshot, DAILY_INSPECTION } from "../../airworthiness/airworthiness-snapshot";
import type { EquipmentList } from "../../airworthiness/deferral/deferral-rules";
import { type DeferralForFlight, deferralForFlight } from "../../airworthiness/deferral-today";
import type { MeasureLimit } from "../../airworthiness/life/measure-trend";
import type { PilotInDate } from "../../airworthiness/people/pilot-in-date";
import { groupsForConditions } from "../../groups/groups-today";
import type { LoadingProfile } from "../../mass-and-balance/loading-profile";
import type { FluidMemory } from "../../memory/fluid-memory";
import type { MinimaSet } from "../../minima/minima";
import type { RuleSet } from "../../rules/rule-set";
import { withIntersections } from "../../runways/with-intersections";
import { afterFlightItems, observeItem, observeItemId } from "./added-items";
import { ComposeError } from "./compose-error";
import { lightsCheckOrder } from "./lights-check-order";
import type { OpenDiscrepancy } from "./open-discrepancy";
import { orderByRules } from "./order-by-rules";
import { assertTurnaround } from "./turnaround-list";
import { withValueChecks } from "./value-checks";

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

/**
 * Composes today's checklist: the type's items for this model year, conditions and preferences, the aircraft's added items, and
 * every open discrepancy first at its station. A discrepancy whose station no longer exists moves to the first station. Order:
 * phase, station (walkaround in the pilot's own order), item as in the files, changed only where an ordering rule requires it.
 * Throws ComposeError for a type without a checklist and for an aircraft of another type.
 * Complexity: O(items · log items + items of a station · rules).
 */
export function composeList(input: ComposeInput): ComposedList {
  const { aircraft, conditions, openDiscrepancies, rules, preferences, papers, loading, seed } = input;
  assertComposable(input);
  const airfield = input.airfield && withIntersections(input.airfield);
  const { type, variant } = applyVariant(input.type, aircraft.year);
  const tags = preferences ? methodTags(preferences) : DEFAULT_TAGS;
  const ruled = (type.rules ?? []).filter((rule) => !rule.method || tags.has(rule.method));
  const differences: ComposedList["differences"] = [];
  const today = askedToday(input, tags, differences);
  const stations = stationsInOrder(type, preferences);
  const { lineUp, standing } = itemsInOrder(input, { type, ruled, stations, today, differences });
  const facts = factsOf(aircraft.facts, loading);
  const proven = withValueChecks(standing, facts, seed);
  for (const itemId of proven.asked) differences.push({ itemId, why: "value to be read out" });
  const { items } = proven;
  const present = new Set(items.map((item) => item.station));
  const after = afterFlightItems(type, items, today);
  const deferrals = deferralsForFlight(input);
  const limits = openDiscrepancies.flatMap(({ id, limit }) => (limit ? [[id, limit] as const] : []));
  const groups = preferences?.cards === "groups" ? groupsForConditions(type, items) : [];
  return {
    format: "cravix.list/2",
    registration: aircraft.registration,
    year: aircraft.year,
    conditions: [...conditions],
    type: profileOf(type, ruled),
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
    ...(input.memory && { memory: input.memory }),
    ...(papers && { papers }),
    ...(loading && { loading }),
    ...ofPilot(input),
    ...(limits.length > 0 && { measureLimits: Object.fromEntries(limits) }),
    ...(deferrals.length > 0 && { deferrals: Object.fromEntries(deferrals) }),
    differences,
  };
}

function ofPilot({
  minima,
  ownUnknown,
  pilotInDate,
}: ComposeInput): Pick<ComposedList, "minima" | "ownUnknown" | "pilotInDate"> {
  return {
    ...(minima && minima.length > 0 && { minima }),
    ...(ownUnknown && { ownUnknown: true as const }),
    ...(pilotInDate && { pilotInDate }),
  };
}

function assertComposable({ type, aircraft, conditions }: ComposeInput): void {
  if (aircraft.typeId !== type.id)
    throw new ComposeError(`${aircraft.registration} is a ${aircraft.typeId}, not a ${type.id}.`);
  if (type.stub || type.items.length === 0)
    throw new ComposeError(type.stub ?? `The checklist for ${type.name} has no items.`);
  for (const { condition, why } of type.notOffered ?? [])
    if (conditions.includes(condition))
      throw new ComposeError(`${type.name}: no checklist for “${conditionText(condition)}”. ${why}`);
  if (conditions.includes("turnaround")) assertTurnaround(type, conditions);
}

/** Whether an item is asked today; why an item is added is noted in `differences`. */
function askedToday(
  { type, aircraft, conditions, papers }: ComposeInput,
  tags: ReadonlySet<string>,
  differences: ComposedList["differences"],
): (item: Item) => boolean {
  const turnaround = conditions.includes("turnaround");
  // A turnaround does not shorten the line-up check or the after-flight checks.
  const everyTime = new Set(
    type.stations.filter((s) => s.phase === "after" || s.role === LINE_UP_CHECK).map((s) => s.id),
  );
  const onRecord = new Set(papers?.dues.map(({ item }) => item.id));
  const inTurnaround = (item: Item) =>
    everyTime.has(item.station) ||
    item.turnaround === "always" ||
    (item.turnaround === "refuelled" && conditions.includes("refuelled"));
  return (item) => {
    if (papers && isAnsweredByRecord(item, papers, onRecord)) return false;
    const { from = Number.NEGATIVE_INFINITY, to = Number.POSITIVE_INFINITY } = item.years ?? {};
    if (aircraft.year < from || aircraft.year > to) return false;
    if (item.method && !tags.has(item.method)) return false;
    if (!item.when) return !turnaround || inTurnaround(item);
    const reason = item.when.find((condition) => conditions.includes(condition));
    if (reason) differences.push({ itemId: item.id, why: conditionText(reason) });
    return reason !== undefined;
  };
}

/** Skips what the record answers; the item that shows the whole record stays. */
function isAnsweredByRecord(
  { due }: Item,
  { daily }: AirworthinessSnapshot,
  onRecord: ReadonlySet<string>,
): boolean {
  if (!due) return false;
  if (daily && due.includes(DAILY_INSPECTION)) return true;
  return !due.includes("*") && due.every((id) => onRecord.has(id));
}

function stationsInOrder(type: AircraftType, preferences: Preferences | undefined): Station[] {
  const stations = PHASES.flatMap((phase) => {
    const own = type.stations.filter((station) => station.phase === phase);
    return phase === "lap" ? walkaroundOrder(own, preferences) : own;
  });
  if (stations.length === 0) throw new ComposeError(`The checklist for ${type.name} has no stations.`);
  return stations;
}

/** Items asked while the aircraft stands, and those read at line-up. */
function itemsInOrder(
  { aircraft, conditions, openDiscrepancies }: ComposeInput,
  {
    type,
    ruled,
    stations,
    today,
    differences,
  }: {
    type: AircraftType;
    ruled: NonNullable<AircraftType["rules"]>;
    stations: readonly Station[];
    today: (item: Item) => boolean;
    differences: ComposedList["differences"];
  },
): { lineUp: Item[]; standing: Item[] } {
  const known = openDiscrepancies.map((discrepancy) => {
    const station = stations.find((s) => s.id === discrepancy.stationId) ?? (stations[0] as Station);
    differences.push({ itemId: observeItemId(discrepancy.id), why: "open discrepancy" });
    return observeItem(discrepancy, station.id);
  });
  // Items added to this aircraft are asked every time.
  const own = aircraft.ownItems
    .filter((item) => !item.retired)
    .filter((item) => today({ ...item, turnaround: "always" }));
  for (const item of own) differences.push({ itemId: item.id, why: "added for this aircraft" });
  const byStation = new Map<string, Item[]>(stations.map((station) => [station.id, []]));
  for (const item of [...known, ...type.items.filter(today), ...own])
    byStation.get(item.station)?.push(graded(item, conditions));
  const ordered = stations.flatMap((station) =>
    lightsCheckOrder(type, orderByRules(byStation.get(station.id) ?? [], ruled)),
  );
  const onTheRoll = new Set(stations.filter((s) => s.role === LINE_UP_CHECK).map((s) => s.id));
  // Known discrepancies there are checked while the aircraft is stationary.
  const beforeRolling = lastStatus(stations, onTheRoll);
  return {
    lineUp: ordered.filter((item) => onTheRoll.has(item.station) && item.kind !== "observe"),
    standing: ordered.flatMap((item) => {
      if (!onTheRoll.has(item.station)) return [item];
      return item.kind === "observe" ? [{ ...item, station: beforeRolling ?? item.station }] : [];
    }),
  };
}

const graded = ({ missWhen, ...item }: Item, conditions: readonly Condition[]): Item =>
  missWhen && conditions.includes(missWhen.when) ? { ...item, miss: missWhen.miss } : item;

function deferralsForFlight({ openDiscrepancies, conditions, rules, equipment, aircraft }: ComposeInput) {
  const data = { rules: rules?.deferral, list: equipment, built: String(aircraft.year) };
  return openDiscrepancies.flatMap(({ id, deferral }) =>
    deferral ? [[id, deferralForFlight(deferral, conditions, data)] as const] : [],
  );
}

/** The type without what the list replaces. */
function profileOf(type: AircraftType, ruled: NonNullable<AircraftType["rules"]>): ComposedList["type"] {
  const { items: _i, stations: _s, format: _f, variants: _v, groups: _g, ...profile } = type;
  return { ...profile, ...(type.rules && { rules: ruled }) };
}

/** Station whose items are read with eyes outside, after acceptance. */
const LINE_UP_CHECK: StationRole = "line-up check";

/** Last station before the aircraft moves. */
function lastStatus(stations: readonly Station[], onTheRoll: ReadonlySet<string>): string | undefined {
  return stations.filter((s) => !onTheRoll.has(s.id)).at(-1)?.id;
}

const DEFAULT_TAGS = methodTags({ surfaces: "moved", brake: "brake first" });

function withRunways(item: Item, airfield: Airfield | undefined): Item {
  if (item.choicesFrom !== "runways") return item;
  const choices = (airfield?.runways ?? []).map((runway) => ({ value: runway.id, label: runway.id }));
  return { ...item, choices };
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
