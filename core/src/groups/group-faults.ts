import type { AircraftType, Item } from "../aircraft/aircraft-type";
import { neverGroupedReason } from "./never-grouped";

/** A fault in a type's groups or turnaround: path and expectation. */
export interface ListFault {
  path: string;
  expected: string;
}

/**
 * Never grouped, identified by name, for imported checklists that do not set the flag (common practice). If a checklist sets the
 * flag anywhere, only its flags apply.
 */
const BY_NAME =
  /\b(ignition|magnetos?|pitot|brakes?|caps?|dipstick|latch(es)?|selectors?|seats?|trim|control locks?|gear (lever|lights)|three greens?)\b/i;

function ungroupableReason(item: Item, items: readonly Item[]): string | undefined {
  const why = neverGroupedReason(item);
  if (why || items.some(({ alone }) => alone)) return why;
  return BY_NAME.test(item.part ?? item.title)
    ? "an item with this name is always asked separately"
    : undefined;
}

/**
 * Faults in a type's groups: a part that does not exist, is in two groups, at another station, of another answer kind, or must
 * never be grouped. Paths as in the file. Complexity: O(parts).
 */
export function groupFaults({ groups, items }: Pick<AircraftType, "groups" | "items">): ListFault[] {
  const byId = new Map(items.map((item) => [item.id, item]));
  const taken = new Set<string>();
  return (groups ?? []).flatMap((group, g) => {
    const first = byId.get(group.items[0] ?? "");
    return group.items.flatMap((id, i): ListFault[] => {
      const item = byId.get(id);
      const alone = item && ungroupableReason(item, items);
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
 * Subjects that have caused fatal accidents when skipped and can change within two hours on the ground: no turnaround may omit
 * them. Cowl latches, rigging pins and the oil cap stay as they are unless someone opens them (common practice).
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

/** True if a turnaround must always include this item. */
export function isRequiredAtTurnaround(item: Pick<Item, "alone" | "miss" | "when">): boolean {
  return KILLS.includes(item.alone) && item.miss === "stop" && item.when === undefined;
}

/** Faults in a type's turnaround: a critical item it omits. A type without a turnaround has none. */
export function turnaroundFaults({ items, stations }: Pick<AircraftType, "items" | "stations">): ListFault[] {
  if (!items.some((item) => item.turnaround)) return [];
  // The line-up check and after-flight checks are always included.
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
