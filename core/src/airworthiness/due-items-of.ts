import type { AircraftRecord } from "./aircraft-record";
import { localDate } from "./calendar/local-date";
import type { DueItem, WorkDone } from "./due/due-item";
import type { MeterKinds } from "./due/judge-due";
import { type DueOrigin, type NextDue, nextDue } from "./due/next-due";
import { calculated } from "./due/problem-of";
import { type Meter, totalsWithSums } from "./meters/meter";

/** A due item with its next due point. */
export interface DueOn {
  item: DueItem;
  due: NextDue;
}

/**
 * Due items of an aircraft, from its record and later releases. Work on one item counts for those it includes, also for items of
 * items; an item ended by another's completion is done for good. An item that cannot be calculated has a `problem`; the others are
 * not affected. Never throws. Complexity: O(works log works + items).
 */
export function dueItemsOf(record: RecordOfWorks, released: readonly WorkDone[] = []): DueOn[] {
  const includes = includedItems(record.items);
  const works = new Map<string, WorkDone[]>();
  const add = (work: WorkDone) => {
    const known = works.get(work.item);
    if (known) known.push(work);
    else works.set(work.item, [work]);
  };
  for (const entered of [...record.works, ...released]) {
    const work = withSums(entered, record.meters ?? []);
    add(work);
    for (const item of includes(work.item)) {
      // A printed date or reading belongs to the item it was entered for.
      const { sets: _, ...rest } = work;
      add({ ...rest, item, through: work.item });
    }
  }
  return record.items.map((item) => {
    const relevant = [item.id, ...(item.endedBy ?? [])].flatMap((id) => works.get(id) ?? []);
    return { item, due: dueOf(item, relevant, originOf(record, item)) };
  });
}

type RecordOfWorks = Pick<AircraftRecord, "items" | "works"> &
  Partial<Pick<AircraftRecord, "meters" | "fittings" | "start" | "timeZone">>;

/** Items that work on an item completes as well, also indirectly. */
function includedItems(items: readonly DueItem[]): (id: string) => readonly string[] {
  const does = new Map(items.map(({ id, does: own = [] }) => [id, own]));
  const known = new Map<string, string[]>();
  return (id) => {
    const before = known.get(id);
    if (before) return before;
    const found = new Set<string>();
    const open = [...(does.get(id) ?? [])];
    for (let next = open.pop(); next !== undefined; next = open.pop()) {
      if (next === id || found.has(next)) continue;
      found.add(next);
      open.push(...(does.get(next) ?? []));
    }
    const all = [...found];
    known.set(id, all);
    return all;
  };
}

function withSums(work: WorkDone, meters: readonly Meter[]): WorkDone {
  const totals = totalsWithSums(work.totals, meters);
  return totals === work.totals ? work : { ...work, totals };
}

/** When an item's component was fitted; the start of the record if that is not on file, or for the aircraft itself. */
function originOf({ fittings = [], start, timeZone }: RecordOfWorks, { of }: DueItem): DueOrigin | undefined {
  const first = fittings
    .filter(({ component }) => component === of)
    .map(({ on }) => on.at)
    .sort()[0];
  const at = first ?? start?.at;
  return at === undefined ? undefined : { date: localDate(at, timeZone), assumed: first === undefined };
}

function dueOf(item: DueItem, works: readonly WorkDone[], origin: DueOrigin | undefined): NextDue {
  const due = calculated(() => nextDue(item, works, origin));
  return "value" in due ? due.value : { item: item.id, points: [], unknown: true, problem: due.problem };
}

/** Names and kinds of an aircraft's meters. */
export function meterKinds(record: Pick<AircraftRecord, "meters">): MeterKinds {
  return Object.fromEntries(record.meters.map(({ id, kind, name }) => [id, { kind, name }]));
}
