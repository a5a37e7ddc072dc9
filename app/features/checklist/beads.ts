import type { Phase } from "@cravix/core/aircraft/aircraft-type";
import { itemsOf } from "@cravix/core/checklist/list/list-places";
import type { Bead } from "../../ui/aircraft/plan-view";
import type { LoadedPreflight } from "../open-preflight";

/** Stations on the plan view: those of this phase, or of the walkaround ahead during the documents. */
export function beadsFor({ list, state, item, phase }: LoadedPreflight): Bead[] {
  const shown: Phase = phase === "fluids" ? "fluids" : "lap";
  const items = itemsOf(list, shown);
  return list.stations.flatMap((station): Bead[] => {
    if (station.phase !== shown || station.x === undefined || station.y === undefined) return [];
    const own = items.filter((i) => i.station === station.id);
    const done = own.filter((i) => state.answers[i.id]).length;
    const here = item?.station === station.id;
    const flagged = own.some((i) => i.kind === "observe" || state.answers[i.id]?.outcome === "found");
    return [
      {
        stationId: station.id,
        name: station.name,
        x: station.x,
        y: station.y,
        state: here ? "here" : done === own.length ? "done" : "ahead",
        flagged,
        left: own.length - done,
        detail: `${done} of ${own.length}${flagged ? ", discrepancy here" : ""}`,
      },
    ];
  });
}
