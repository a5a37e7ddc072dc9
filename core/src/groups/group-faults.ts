import type { AircraftType, Item } from "../aircraft/aircraft-type";
import { neverGroupedReason } from "./never-grouped";

/** A fault of a type's groups or of its turnaround: where, and what was expected there. */
export interface ListFault {
  path: string;
  expected: string;
}

/**
 * What is always asked by itself, by its name: for lists of others, which may group things and not know the flag (common practice). Where a list has
 * the flag anywhere, its own flags count.
 */
const BY_NAME =
  /\b(ignition|magnetos?|pitot|brakes?|caps?|dipstick|latch(es)?|selectors?|seats?|trim|control locks?|gear (lever|lights)|three greens?)\b/i;

function whyNotHere(item: Item, items: readonly Item[]): string | undefined {
  const why = neverGroupedReason(item);
  if (why || items.some(({ alone }) => alone)) return why;
  return BY_NAME.test(item.part ?? item.title)
    ? "an item with this name is always asked separately"
    : undefined;
}

/**
 * What is wrong with the groups of a type: a part that does not exist, stands in two groups, at another station or beside another kind of answer,
 * or must never be grouped. Paths as in the file. Complexity: O(parts).
 */
export function groupFaults({ groups, items }: Pick<AircraftType, "groups" | "items">): ListFault[] {
  const byId = new Map(items.map((item) => [item.id, item]));
  const taken = new Set<string>();
  return (groups ?? []).flatMap((group, g) => {
    const first = byId.get(group.items[0] ?? "");
    return group.items.flatMap((id, i): ListFault[] => {
      const item = byId.get(id);
      const alone = item && whyNotHere(item, items);
      const expected = !item
        ? "an item of this type"
        : taken.has(id)
          ? "an item that is in no other group"
          : item.station !== first?.station
            ? "an item of the same station as the group's first"
            : (item.kind === "sample") !== (first.kind === "sample")
              ? "fuel samples only, with no other items"
              : alone && `an item that may be grouped: ${alone}`;
      taken.add(id);
      return expected ? [{ path: `groups[${g}].items[${i}]`, expected }] : [];
    });
  });
}

/**
 * What has killed when it was skipped once, and can have changed within two hours on the ground: no turnaround leaves it out. Cowl latches, rigging
 * pins and the oil's cap stand as they stood where nobody opened anything (common practice).
 */
const KILLS: readonly Item["alone"][] = [
  "lock",
  "ignition",
  "pitot",
  "brakes",
  "cap",
  "dip",
  "selector",
  "seat",
  "controls",
  "magnetos",
  "landing gear",
  "fold flag",
  "launch",
];

/** Whether a turnaround must ask this again, whatever else it leaves out. */
export function isRequiredAtTurnaround(item: Pick<Item, "alone" | "miss" | "when">): boolean {
  return KILLS.includes(item.alone) && item.miss === "stop" && item.when === undefined;
}

/** What is wrong with the turnaround of a type: an item that kills and is left out of it. A type without a turnaround has none. */
export function turnaroundFaults({ items, stations }: Pick<AircraftType, "items" | "stations">): ListFault[] {
  if (!items.some((item) => item.turnaround)) return [];
  // What is read on the runway and what is put away is there every time.
  const everyTime = new Set(
    stations.filter((s) => s.phase === "after" || s.role === "line-up check").map((s) => s.id),
  );
  return items.flatMap((item, i) =>
    isRequiredAtTurnaround(item) && !everyTime.has(item.station) && item.turnaround !== "always"
      ? [
          {
            path: `items[${i}].turnaround`,
            expected: `"always": a missed ${item.alone} item has caused fatal accidents`,
          },
        ]
      : [],
  );
}
