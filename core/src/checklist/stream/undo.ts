import type { EventData } from "./events";
import type { PreflightState } from "./preflight-state";

type TakenBack =
  | { type: "item.undone"; data: EventData["item.undone"] }
  | { type: "discrepancy.withdrawn"; data: EventData["discrepancy.withdrawn"] };

/** The last act of a walk and, where it was one answer to several parts of a card, all of them: the newest first. Empty where nothing is this person's. */
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
 * How the last act of a walk is taken back by this person: an undo, or, where something was found, its withdrawal. Undefined where there is
 * nothing that this person may take back: an act is taken back by who did it or by the walk's pilot, a finding by who logged it.
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
