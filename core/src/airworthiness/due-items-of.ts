import type { AircraftRecord } from "./aircraft-record";
import type { DueItem, WorkDone } from "./due/due-item";
import type { MeterKinds } from "./due/judge-due";
import { type NextDue, nextDue } from "./due/next-due";
import { calculated } from "./due/problem-of";

/** A due item with its next due point. */
export interface DueOn {
  item: DueItem;
  due: NextDue;
}

/**
 * Due items of an aircraft, from its record and later releases. An item that cannot be calculated has a `problem`; the others are
 * not affected. Never throws. Complexity: O(works log works + items).
 */
export function dueItemsOf(
  record: Pick<AircraftRecord, "items" | "works">,
  released: readonly WorkDone[] = [],
): DueOn[] {
  const works = new Map<string, WorkDone[]>();
  for (const work of [...record.works, ...released]) {
    const known = works.get(work.item);
    if (known) known.push(work);
    else works.set(work.item, [work]);
  }
  return record.items.map((item) => ({ item, due: dueOf(item, works.get(item.id) ?? []) }));
}

function dueOf(item: DueItem, works: readonly WorkDone[]): NextDue {
  const due = calculated(() => nextDue(item, works));
  return "value" in due ? due.value : { item: item.id, points: [], unknown: true, problem: due.problem };
}

/** Names and kinds of an aircraft's meters. */
export function meterKinds(record: Pick<AircraftRecord, "meters">): MeterKinds {
  return Object.fromEntries(record.meters.map(({ id, kind, name }) => [id, { kind, name }]));
}
