import type { AircraftType, Group, Item } from "../aircraft/aircraft-type";
import { neverGroupedReason } from "./never-grouped";

/**
 * The groups of a type as they are today: without what is not asked, and without what became a question of its own (a part that is asked by its
 * value). What is left of a group has at least two parts; a part that must never be grouped is left out even if a file says otherwise.
 */
export function groupsToday(type: Pick<AircraftType, "groups">, items: readonly Item[]): Group[] {
  const today = new Map(items.map((item) => [item.id, item]));
  return (type.groups ?? []).flatMap((group) => {
    const parts = group.items.filter((id) => {
      const item = today.get(id);
      return item && !neverGroupedReason(item);
    });
    return parts.length > 1 ? [{ ...group, items: parts }] : [];
  });
}
