import type { AircraftRecord } from "./aircraft-record";
import type { DueItem, WorkDone } from "./due/due-item";
import {
  DUE_STATES,
  type DueNow,
  type DueVerdict,
  judgeDue,
  type MeterKinds,
  type PlannedFlight,
} from "./due/judge-due";
import { type NextDue, nextDue } from "./due/next-due";
import { componentTotals, type Totals } from "./meters/component";

/** A due item with its next due point. */
export interface DueOn {
  item: DueItem;
  due: NextDue;
}

/** Due items of an aircraft, from its record and later releases. Complexity: O(works log works + items). */
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
  return record.items.map((item) => ({ item, due: nextDue(item, works.get(item.id) ?? []) }));
}

/** Names and kinds of an aircraft's meters. */
export function meterKinds(record: Pick<AircraftRecord, "meters">): MeterKinds {
  return Object.fromEntries(record.meters.map(({ id, kind, name }) => [id, { kind, name }]));
}

/**
 * Judges all due items for one flight, worst first, then by least remaining. Totals come from a cache, so the log is not read.
 * Complexity: O(items · limits) plus one sum per component.
 */
export function judgeDues(
  dues: readonly DueOn[],
  record: Pick<AircraftRecord, "components" | "fittings" | "meters">,
  now: DueNow,
  flight: PlannedFlight,
): (DueOn & { verdict: DueVerdict })[] {
  const meters = meterKinds(record);
  const own = new Map<string, Totals>();
  const totalsOf = (of: string | undefined): Totals => {
    if (of === undefined) return now.totals;
    let totals = own.get(of);
    if (!totals) {
      const component = record.components.find(({ id }) => id === of);
      totals = component ? componentTotals(component, record.fittings, now.totals) : now.totals;
      own.set(of, totals);
    }
    return totals;
  };
  return dues
    .map(({ item, due }) => ({
      item,
      due,
      verdict: judgeDue(item, due, { date: now.date, totals: totalsOf(item.of) }, flight, meters),
    }))
    .sort(
      (a, b) =>
        DUE_STATES.indexOf(b.verdict.state) - DUE_STATES.indexOf(a.verdict.state) ||
        leastLeft(a) - leastLeft(b),
    );
}

/** Remaining days, counting hours at one hour a day. Used for sorting only. */
const leastLeft = ({ verdict }: { verdict: DueVerdict }) =>
  verdict.first?.leftAfter ?? Number.POSITIVE_INFINITY;
