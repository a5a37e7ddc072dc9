import { ConflictError, eventsOfPreflight, saveAtomically } from "../../device/log/event-log";
import { notifyTabs } from "../../device/tabs";
import { eventsRecorded, eventsSeen } from "../state/preflight-slice";
import type { AppDispatch, RootState } from "../state/root-state";
import { sendAgain } from "../state/sync-actions";
import { changeOpenPreflights } from "./open-preflights";
import { type EventInput, makeEvents } from "./record";

/**
 * Signs: stores the signature and its discrepancies in one transaction, based on what is stored. Resolves to false if another
 * window answered meanwhile; its answers are then shown, and nothing is signed.
 */
export function signPreflight(id: string, happenings: readonly EventInput[]) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<boolean> => {
    const { preflight } = getState();
    const events = dispatch(makeEvents(id, happenings));
    const known = new Set(preflight.events.map((event) => event.id));
    try {
      await saveAtomically({ events, ifUnchanged: { streamId: id, known } });
    } catch (error) {
      if (error instanceof ConflictError) {
        dispatch(eventsSeen(await eventsOfPreflight(id)));
        return false;
      }
      // Storage is full: kept in memory, reported, and retried like any answer.
      dispatch(eventsRecorded(events));
      return true;
    }
    dispatch(eventsSeen(events));
    notifyTabs({ kind: "events", events });
    dispatch(sendAgain());
    return true;
  };
}

/** Signed to fly: the after-flight checks remain. */
export function flyPreflight(id: string) {
  return changeOpenPreflights((open) => open.map((p) => (p.preflightId === id ? { ...p, flying: true } : p)));
}

/** Removes a signed preflight from the unfinished ones. */
export function closePreflight(id: string) {
  return changeOpenPreflights((open) => open.filter((p) => p.preflightId !== id));
}
