import type { EventData } from "./events";
import type { PreflightState } from "./preflight-state";

type TakenBack =
  | { type: "item.undone"; data: EventData["item.undone"] }
  | { type: "discrepancy.withdrawn"; data: EventData["discrepancy.withdrawn"] };

/**
 * Undo events for the last action, newest first; several if one answer covered several parts of a card. Empty if this person has
 * nothing to undo.
 */
export function takeBackAll(
  state: Pick<PreflightState, "undoable" | "crewId">,
  crewId: string | null,
): TakenBack[] {
  const { undoable } = state;
  const card = undoable.at(-1)?.card;
  const all: TakenBack[] = [];
  for (let end = undoable.length; end > 0; end--) {
    if (all.length > 0 && (card === undefined || undoable[end - 1]?.card !== card)) break;
    const back = undoEvent({ ...state, undoable: undoable.slice(0, end) }, crewId);
    if (!back) break;
    all.push(back);
  }
  return all;
}

/**
 * Undo event for the last action of a preflight, or the withdrawal of a discrepancy. Undefined if this person cannot undo
 * anything: an action is undone by its author or the pilot of the preflight, a discrepancy withdrawn by its author.
 */
export function undoEvent(
  { undoable, crewId: pilot }: Pick<PreflightState, "undoable" | "crewId">,
  crewId: string | null,
): TakenBack | undefined {
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
