import type { AircraftType, Item } from "../../aircraft/aircraft-type";
import type { OpenDiscrepancy } from "./open-discrepancy";

/** The type's after-flight items, plus one for each thing removed today that goes back on. */
export function afterFlightItems(
  type: AircraftType,
  items: readonly Item[],
  today: (item: Item) => boolean,
): Item[] {
  const stations = type.stations.filter((station) => station.phase === "after");
  const putBack = items.flatMap(({ id, station, ledger }): Item[] =>
    ledger && "out" in ledger && ledger.after
      ? [
          {
            id: afterItemId(id),
            station,
            kind: "set",
            title: ledger.after,
            good: "put back and checked",
            why: `Removed before the flight: ${ledger.out}.`,
            miss: "note",
          },
        ]
      : [],
  );
  const own = stations.flatMap((station) => type.items.filter((item) => item.station === station.id));
  return [...own.filter(today), ...putBack];
}

/** Id of the item that puts back what another item took off. */
export function afterItemId(itemId: string): string {
  return `after:${itemId}`;
}

export function observeItemId(discrepancyId: string): string {
  return `known:${discrepancyId}`;
}

export function observeItem(discrepancy: OpenDiscrepancy, station: string): Item {
  return {
    id: observeItemId(discrepancy.id),
    station,
    kind: "observe",
    title: discrepancy.text,
    good: [
      discrepancy.measure ? `Last time: ${discrepancy.measure}` : "Unchanged since it was logged",
      ...(discrepancy.deferral?.placard ? [`placard in place: ${discrepancy.deferral.placard}`] : []),
      ...(discrepancy.deferral?.deactivated ? [discrepancy.deferral.deactivated] : []),
    ].join("; "),
    bad: "Worse than before: ask before you fly",
    why: `Open since ${discrepancy.openedAt.slice(0, 10)}, logged by ${discrepancy.openedBy}. It is acceptable only if it has not got worse.`,
    miss: discrepancy.grade,
    discrepancyId: discrepancy.id,
    ...(discrepancy.cause && { cause: discrepancy.cause }),
  };
}
