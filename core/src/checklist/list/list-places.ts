import type { Item, Phase, StationPhase } from "../../aircraft/aircraft-type";
import type { ComposedList } from "./compose-list";

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
