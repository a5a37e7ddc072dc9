import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { eq } from "drizzle-orm";
import { dbMoment, toDb } from "../db/moment";
import { componentMove } from "../db/schema/airworthiness";
import type { Row } from "./projection";
import { rowsOfEvents } from "./rows-of-events";

function toMoveRows(groupId: string, event: PreflightEvent): Row[] {
  if (event.type !== "component.removed" && event.type !== "component.fitted") return [];
  const base = {
    id: event.id,
    group_id: groupId,
    registration: event.data.registration,
    at: toDb(event.at),
    totals: JSON.stringify(event.data.totals),
  };
  if (event.type === "component.removed")
    return [{ ...base, component: event.data.component, fitted: 0, position: null, as_it_is: null }];
  const { component, items, works, position } = event.data;
  return [
    {
      ...base,
      component: component.id,
      fitted: 1,
      position: position ?? null,
      as_it_is: JSON.stringify({ component, items, works }),
    },
  ];
}

/** Removed and fitted components. */
export const moveProjection = rowsOfEvents("component_move", toMoveRows, {
  version: 1,
  stored: async (db, groupId) =>
    (await db.select().from(componentMove).where(eq(componentMove.groupId, groupId))).map((one) => ({
      id: one.id,
      group_id: one.groupId,
      registration: one.registration,
      at: dbMoment(one.at),
      totals: JSON.stringify(one.totals),
      component: one.component,
      fitted: one.fitted,
      position: one.position,
      as_it_is: one.as === null ? null : JSON.stringify(one.as),
    })),
  clear: async (tx, groupId) => {
    await tx.delete(componentMove).where(eq(componentMove.groupId, groupId));
  },
});
