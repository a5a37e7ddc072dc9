import type { EventData } from "./events";
import type { PreflightState } from "./preflight-state";

/**
 * How the last act of a walk is taken back by this person: an undo, or, where something was found, its withdrawal. Undefined where there is
 * nothing that this person may take back: an act is taken back by who did it or by the walk's pilot, a finding by who logged it.
 */
export function takeBack(
  { undoable, crewId: pilot }: Pick<PreflightState, "undoable" | "crewId">,
  crewId: string | null,
):
  | { type: "item.undone"; data: EventData["item.undone"] }
  | { type: "discrepancy.withdrawn"; data: EventData["discrepancy.withdrawn"] }
  | undefined {
  const last = undoable.at(-1);
  if (!last || crewId === null) return undefined;
  if (last.discrepancyId !== undefined)
    return last.crewIds[0] === crewId
      ? { type: "discrepancy.withdrawn", data: { discrepancyId: last.discrepancyId } }
      : undefined;
  return crewId === pilot || last.crewIds.includes(crewId)
    ? { type: "item.undone", data: { eventId: last.eventId } }
    : undefined;
}
