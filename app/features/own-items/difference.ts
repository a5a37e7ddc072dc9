import { contentHash } from "@cravix/contract/content-hash";
import type { AircraftType, OwnItem } from "@cravix/core/aircraft/aircraft-type";

export interface OwnDifference {
  /** Number of items from the type. */
  typeItems: number;
  added: OwnItem[];
  changed: { before: OwnItem; after: OwnItem }[];
  retired: OwnItem[];
  broughtBack: OwnItem[];
}

/** Effect of saving, compared with the recorded aircraft and with the type. */
export function ownDifference(
  type: AircraftType,
  before: readonly OwnItem[],
  after: readonly OwnItem[],
): OwnDifference {
  const known = new Map(before.map((item) => [item.id, item]));
  // Whatever the order of the fields.
  const same = (a: OwnItem, b: OwnItem) => contentHash(a) === contentHash(b);
  return {
    typeItems: type.items.length,
    added: after.filter((item) => !known.has(item.id)),
    changed: after.flatMap((item) => {
      const was = known.get(item.id);
      return was && was.retired === item.retired && !same(was, item) ? [{ before: was, after: item }] : [];
    }),
    retired: after.filter((item) => item.retired && !known.get(item.id)?.retired),
    broughtBack: after.filter((item) => !item.retired && known.get(item.id)?.retired),
  };
}

export function isChanged({ added, changed, retired, broughtBack }: OwnDifference): boolean {
  return added.length + changed.length + retired.length + broughtBack.length > 0;
}
