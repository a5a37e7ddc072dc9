import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { toDb } from "../db/moment";
import { componentMove } from "../db/schema/airworthiness";
import { rowsOfEvents } from "./rows-of-events";

function toMoveRows(groupId: string, event: PreflightEvent): (typeof componentMove.$inferInsert)[] {
  if (event.type !== "component.removed" && event.type !== "component.fitted") return [];
  const base = {
    id: event.id,
    groupId: groupId,
    registration: event.data.registration,
    at: toDb(event.at),
    totals: event.data.totals,
  };
  if (event.type === "component.removed")
    return [{ ...base, component: event.data.component, fitted: 0, position: null, as: null }];
  const { component, items, works, position } = event.data;
  return [
    {
      ...base,
      component: component.id,
      fitted: 1,
      position: position ?? null,
      as: { component, items, works },
    },
  ];
}

/** Removed and fitted components. */
export const moveProjection = rowsOfEvents("component_move", componentMove, toMoveRows);
