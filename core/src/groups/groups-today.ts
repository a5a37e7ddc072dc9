import type { AircraftType, Group, Item } from "../aircraft/aircraft-type";
import { neverGroupedReason } from "./never-grouped";

/**
 * Groups of a type for today: without items not asked, and without items asked by value. Only groups with at least two remaining
 * parts; a part that must never be grouped is left out even if the file says otherwise.
 */
export function groupsForConditions(type: Pick<AircraftType, "groups">, items: readonly Item[]): Group[] {
  const today = new Map(items.map((item) => [item.id, item]));
  return (type.groups ?? []).flatMap((group) => {
    const parts = group.items.filter((id) => {
      const item = today.get(id);
      return item && !neverGroupedReason(item);
    });
    return parts.length > 1 ? [{ ...group, items: parts }] : [];
  });
}
