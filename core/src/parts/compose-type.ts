import type { AircraftType, Group, Item, OrderRule, Station } from "../aircraft/aircraft-type";
import { partOfTitle } from "../aircraft/part-of";
import { bindParameters } from "./bind-parameters";
import { type Binding, fillId, fillTemplate, parametersIn } from "./fill-template";
import { moveItems, orderStation } from "./order-items";
import type { PartSheet } from "./part-sheet";
import { type StationOnFile, stationSheets } from "./station-sheets";
import type { CompositionFault, ItemChange, Library, PartUse, TypeComposition } from "./type-composition";

/** An item of a composition, with where it comes from and how its sheet calls it. */
type ComposedItem = Omit<Item, "expected" | "seconds"> & {
  expected?: number;
  seconds?: number;
  card?: string;
  follows?: string;
};

interface Gathered {
  items: ComposedItem[];
  rules: OrderRule[];
  /** Id in the sheet to the ids on this type. */
  named: Map<string, string[]>;
  /** Where each item is written in the composition, by id. */
  writtenAt: Map<string, string>;
  faults: CompositionFault[];
}

export type ComposedType =
  | { type: AircraftType; writtenAt: ReadonlyMap<string, string> }
  | { faults: CompositionFault[] };

/**
 * Composes an aircraft type from parts of the library: the items of its parts and its own, in the order of the stations, with
 * cards and ordering rules. Never throws; returns what is wrong with its path in the composition. `writtenAt` says for each item
 * where in the composition it comes from. Complexity: O(items · log items + parts of one station²).
 */
export function composeType(composition: TypeComposition, library: Library): ComposedType {
  const { stations, faults: unknown } = stationsOf(composition, library);
  const gathered = gather(composition, library);
  const faults = [...unknown, ...gathered.faults, ...itemFaults(gathered, stations)];
  if (faults.length > 0) return { faults };
  const byStation = new Map<string, ComposedItem[]>(stations.map(({ id }) => [id, []]));
  for (const item of gathered.items) byStation.get(item.station)?.push(item);
  const usual = stations.flatMap(({ id, order }) =>
    orderStation(
      byStation.get(id) ?? [],
      order.flatMap((item) => gathered.named.get(item) ?? [item]),
    ),
  );
  const moved = moveItems(usual, composition.order ?? []);
  if (moved.faults.length > 0) return { faults: moved.faults };
  return {
    type: typeOf(composition, stations, moved.items, gathered),
    writtenAt: gathered.writtenAt,
  };
}

function typeOf(
  { parts: _parts, order: _order, ...composition }: TypeComposition,
  stations: readonly StationOnFile[],
  items: readonly ComposedItem[],
  gathered: Gathered,
): AircraftType {
  const rules = rulesOf(composition.rules ?? [], gathered, items);
  const groups = stations.flatMap((station) => cardsOf(station, items));
  return {
    ...composition,
    format: "cravix.aircraft-type/2",
    stations: stations.map(({ order: _o, cards: _c, ...station }): Station => station),
    items: items.map(({ card: _c, follows: _f, ...item }) => withPart(item)),
    ...(rules.length > 0 && { rules }),
    ...(groups.length > 0 && { groups }),
  };
}

/** The aircraft part an item concerns is the beginning of its title, unless it says otherwise. */
function withPart(item: Item): Item {
  const part = item.part ?? partOfTitle(item.title);
  return part === undefined ? item : { ...item, part };
}

function stationsOf(composition: TypeComposition, library: Library) {
  const sheets = stationSheets(library.stations);
  const faults: CompositionFault[] = [];
  const stations = composition.stations.flatMap((use, i): StationOnFile[] => {
    const sheet = sheets.get(use.id);
    const name = use.name ?? sheet?.name;
    const phase = use.phase ?? sheet?.phase;
    if (name === undefined || phase === undefined) {
      faults.push({
        path: `stations[${i}]`,
        expected: `a station of the library, or a name and a phase; ${use.id} is in no library`,
      });
      return [];
    }
    const role = use.role ?? sheet?.role;
    return [
      {
        id: use.id,
        name,
        phase,
        ...(role && { role }),
        ...(use.x !== undefined && { x: use.x }),
        ...(use.y !== undefined && { y: use.y }),
        order: sheet?.order ?? [],
        cards: [...(use.cards ?? []), ...(sheet?.cards ?? [])],
      },
    ];
  });
  return { stations, faults };
}

function gather(composition: TypeComposition, library: Library): Gathered {
  const sheets = new Map(library.parts.map((sheet) => [sheet.id, sheet]));
  const all: Gathered = {
    items: [],
    rules: [],
    named: new Map(),
    writtenAt: new Map(),
    faults: [],
  };
  const places = new Map<string, string>();
  composition.parts.forEach((use, i) => {
    const path = `parts[${i}]`;
    const sheet = sheets.get(use.part);
    if (sheet) addPart(all, sheet, use, path, places);
    else
      all.faults.push({
        path: `${path}.part`,
        expected: `a part of the library; ${use.part} does not exist`,
      });
  });
  composition.items?.forEach((item, i) => {
    addItem(all, item, `items[${i}]`);
  });
  return all;
}

function addPart(
  all: Gathered,
  sheet: PartSheet,
  use: PartUse,
  path: string,
  places: Map<string, string>,
): void {
  const { bindings, faults } = bindParameters(sheet, use, path);
  all.faults.push(...faults, ...slotFaults(sheet, use, path));
  const used = new Set<string>();
  for (const binding of bindings) {
    const place = sheet.place === undefined ? undefined : String(fillTemplate(sheet.place, binding));
    const taken = place === undefined ? undefined : places.get(place);
    if (taken !== undefined)
      all.faults.push({ path, expected: `a free place; ${taken} is already at the place “${place}”` });
    if (place !== undefined) places.set(place, path);
    addItems(all, sheet, use, { binding, path, used });
    for (const rule of fillTemplate(sheet.rules ?? [], binding))
      if (!isNamed(use.without, rule.id, rule.id, used)) all.rules.push(rule);
  }
  if (bindings.length > 0) all.faults.push(...unusedFaults(use, used, path));
}

/** Parts of one use: its parameters, its path, and which of its names were found. */
interface Used {
  binding: Binding;
  path: string;
  used: Set<string>;
}

function addItems(all: Gathered, sheet: PartSheet, use: PartUse, { binding, path, used }: Used): void {
  for (const item of sheet.items) {
    if (item.if !== undefined && !use.has?.includes(item.if)) continue;
    const id = fillId(item.id, binding);
    if (isNamed(use.without, item.id, id, used)) continue;
    const { if: _if, ...asked } = fillTemplate(item, binding);
    const changed = withLimit(withChange(asked, changesOf(use, [item.id, id], binding, used)), use);
    all.named.set(id, [...(all.named.get(id) ?? []), changed.id]);
    all.faults.push(...unboundFaults(sheet, changed, path));
    addItem(all, changed as ComposedItem, path);
  }
}

/** Parameters that a text still names: without a value, or unknown to the part. */
function unboundFaults({ parameters = {}, id }: PartSheet, asked: object, path: string): CompositionFault[] {
  return [...parametersIn(asked)].map((name) =>
    Object.hasOwn(parameters, name)
      ? { path: `${path}.with.${name}`, expected: `a value: ${parameters[name]?.what}` }
      : { path: `${path}.changes`, expected: `only parameters of the part "${id}"; {${name}} is none` },
  );
}

function addItem(all: Gathered, item: ComposedItem, path: string): void {
  const other = all.writtenAt.get(item.id);
  if (other !== undefined)
    all.faults.push({ path, expected: `items of its own; ${item.id} also comes from ${other}` });
  all.writtenAt.set(item.id, path);
  all.items.push(item);
}

function isNamed(names: string[] | undefined, written: string, id: string, used: Set<string>): boolean {
  const found = names?.filter((name) => name === written || name === id) ?? [];
  for (const name of found) used.add(`without.${name}`);
  return found.length > 0;
}

/** Changes of an item, by its id in the sheet and its id here. */
function changesOf(
  { changes = {} }: PartUse,
  names: readonly string[],
  binding: Binding,
  used: Set<string>,
): ItemChange[] {
  return [...new Set(names)].flatMap((name) => {
    const change = changes[name];
    if (!change) return [];
    used.add(`changes.${name}`);
    return [fillTemplate(change, binding)];
  });
}

/** The limit that the handbook gives; an item without one is asked all the same, and its reading is not judged. */
function withLimit<T extends { limitFrom?: string }>({ limitFrom, ...item }: T, { limits }: PartUse) {
  const limit = limitFrom === undefined ? undefined : limits?.[limitFrom];
  return { ...item, ...(limit && { limit }) };
}

function withChange<T extends object>(item: T, changes: readonly ItemChange[]): T {
  const merged = { ...item };
  for (const change of changes) Object.assign(merged, change);
  return Object.fromEntries(Object.entries(merged).filter(([, value]) => value !== null)) as T;
}

function slotFaults(
  { limits = {}, options = {}, id }: PartSheet,
  use: PartUse,
  path: string,
): CompositionFault[] {
  return [
    ...Object.keys(use.limits ?? {})
      .filter((slot) => !Object.hasOwn(limits, slot))
      .map((slot) => ({ path: `${path}.limits.${slot}`, expected: `a limit of the part "${id}"` })),
    ...(use.has ?? []).flatMap((option, i) =>
      Object.hasOwn(options, option)
        ? []
        : [{ path: `${path}.has[${i}]`, expected: `an option of the part "${id}"` }],
    ),
  ];
}

/** A change of an item, or one left out, that the part does not have. */
function unusedFaults(use: PartUse, used: ReadonlySet<string>, path: string): CompositionFault[] {
  const expected = `an item or rule of the part "${use.part}"`;
  return [
    ...(use.without ?? []).flatMap((name, i) =>
      used.has(`without.${name}`) ? [] : [{ path: `${path}.without[${i}]`, expected }],
    ),
    ...Object.keys(use.changes ?? {}).flatMap((name) =>
      used.has(`changes.${name}`) ? [] : [{ path: `${path}.changes.${name}`, expected }],
    ),
  ];
}

function itemFaults({ items, writtenAt }: Gathered, stations: readonly StationOnFile[]): CompositionFault[] {
  const known = new Set(stations.map(({ id }) => id));
  return items.flatMap(({ id, station }) =>
    known.has(station)
      ? []
      : [
          {
            path: writtenAt.get(id) ?? "",
            expected: `the station ${station} among this type's stations; ${id} is asked there`,
          },
        ],
  );
}

/** A composition's own rule replaces a sheet's of the same id. Rules about items that this type does not have are left out. */
function rulesOf(
  own: readonly OrderRule[],
  { rules, named }: Gathered,
  items: readonly ComposedItem[],
): OrderRule[] {
  const present = new Set(items.map(({ id }) => id));
  const replaced = new Set(own.map(({ id }) => id));
  const shared = rules.flatMap((rule): OrderRule[] => {
    const [first = rule.first] = named.get(rule.first) ?? [];
    const waiting = rule.waits.items?.flatMap((id) => named.get(id) ?? [id]).filter((id) => present.has(id));
    if (replaced.has(rule.id) || !present.has(first)) return [];
    replaced.add(rule.id);
    if (waiting && waiting.length === 0 && !rule.waits.touches) return [];
    return [{ ...rule, first, waits: { ...rule.waits, ...(waiting && { items: waiting }) } }];
  });
  return [...shared, ...own];
}

/** Cards of a station: its items by card, in order; a single item needs no card. */
function cardsOf({ id, name, cards }: StationOnFile, items: readonly ComposedItem[]): Group[] {
  const byCard = new Map<string, string[]>();
  for (const { station, card, id: item } of items)
    if (station === id && card !== undefined) byCard.set(card, [...(byCard.get(card) ?? []), item]);
  return [...byCard]
    .filter(([, parts]) => parts.length > 1)
    .map(([card, parts]) => {
      const known = cards.find((one) => one.id === card);
      return {
        id: `${id}.${card}`,
        title: known?.title ?? name,
        items: parts,
        ...(known?.done !== undefined && { done: known.done }),
      };
    });
}
