import { readFileSync, writeFileSync } from "node:fs";
import type { AircraftType, Condition, Item } from "@cravix/core/aircraft/aircraft-type";
import { CARDS, defaultPreferences, type Preferences, SURFACE_WAYS } from "@cravix/core/aircraft/preferences";
import { type ComposedList, composeList } from "@cravix/core/checklist/list/compose-list";
import { offeredConditions } from "@cravix/core/checklist/list/turnaround-list";
import { group } from "@cravix/demo";
import { runTask, SetupError } from "./fail";

/** Everything a checklist asks, in order: by type and by the day it is for. */
interface Snapshot {
  items: Record<string, Record<string, Item>>;
  lists: Record<string, Record<string, string[]>>;
}

/** Years at which a type's items or limits change, with one before and one after. */
function yearsOf(type: AircraftType, own: number): number[] {
  const edges = [...type.items, ...(type.variants ?? [])].flatMap(({ years }) =>
    [years?.from, years?.to && years.to + 1].filter((year) => year !== undefined),
  );
  return [...new Set([own, 1965, ...edges, 2024])].sort();
}

function daysOf(type: AircraftType): Condition[][] {
  return [
    [],
    ...offeredConditions(type).map((one) => [one]),
    ["turnaround", "refuelled"],
    ["night", "frost", "instrument"],
  ];
}

const waysOf = (type: AircraftType): Preferences[] =>
  SURFACE_WAYS.flatMap((surfaces) =>
    CARDS.map((cards) => ({ ...defaultPreferences(type.recommended), surfaces, cards })),
  );

function* allLists(): Generator<{ type: string; day: string; list: ComposedList }> {
  for (const { aircraft, type } of group)
    for (const year of yearsOf(type, aircraft.year))
      for (const conditions of daysOf(type))
        for (const preferences of waysOf(type)) {
          const day = [year, ...conditions, preferences.surfaces, preferences.cards].join(", ");
          let list: ComposedList;
          try {
            list = composeList({
              type,
              aircraft: { ...aircraft, year },
              conditions,
              openDiscrepancies: [],
              preferences,
            });
          } catch {
            continue;
          }
          yield { type: type.id, day, list };
        }
}

function snapshot(): Snapshot {
  const taken: Snapshot = { items: {}, lists: {} };
  for (const { type, day, list } of allLists()) {
    const items = [...list.items, ...(list.lineUp ?? []), ...(list.after ?? [])];
    taken.items[type] ??= {};
    for (const item of items) Object.assign(taken.items[type] as object, { [item.id]: item });
    taken.lists[type] ??= {};
    Object.assign(taken.lists[type] as object, {
      [day]: [
        ...items.map(({ id, station, miss }) => `${id} at ${station}, ${miss}`),
        // The order of the cards in a file shows nowhere.
        ...(list.groups ?? [])
          .map((card) => `card ${card.id}: ${card.title}: ${card.items.join(" ")} ${card.done}`)
          .sort(),
        ...(list.type.rules ?? []).map(({ id }) => `rule ${id}`).sort(),
      ],
    });
  }
  return taken;
}

function compare(before: Snapshot, now: Snapshot): void {
  for (const type of Object.keys({ ...before.items, ...now.items })) {
    const [was, is] = [before.items[type] ?? {}, now.items[type] ?? {}];
    for (const id of Object.keys({ ...was, ...is })) {
      if (!was[id]) console.log(`${type}: + ${id}: ${is[id]?.title}`);
      else if (!is[id]) console.log(`${type}: - ${id}: ${was[id]?.title}`);
      else for (const line of changedFields(was[id], is[id])) console.log(`${type}: ${id} ${line}`);
    }
    const days = Object.keys({ ...before.lists[type], ...now.lists[type] });
    const differing = days.filter(
      (day) => JSON.stringify(before.lists[type]?.[day]) !== JSON.stringify(now.lists[type]?.[day]),
    );
    console.log(
      `${type}: ${differing.length} of ${days.length} lists differ in what they ask, its order, grade or card`,
    );
    if (differing[0]) console.log(`  for instance ${differing[0]}`);
  }
}

function changedFields(was: Item, is: Item): string[] {
  return Object.keys({ ...was, ...is }).flatMap((field) => {
    const [a, b] = [was, is].map((item) =>
      JSON.stringify((item as unknown as Record<string, unknown>)[field]),
    );
    return a === b ? [] : [`${field}\n    was ${a}\n    is  ${b}`];
  });
}

/**
 * npm run lists -- save <file>, then npm run lists -- compare <file>: what a change of the library or a type changes in all composed
 * lists, for every type, model year, condition and method.
 */
await runTask(async () => {
  const [what, file] = process.argv.slice(3);
  if (!file || !["save", "compare"].includes(what ?? ""))
    throw new SetupError("usage: npm run lists -- save <file> | compare <file>");
  const now = snapshot();
  if (what === "save") writeFileSync(file, JSON.stringify(now));
  else compare(JSON.parse(readFileSync(file, "utf8")) as Snapshot, now);
});
