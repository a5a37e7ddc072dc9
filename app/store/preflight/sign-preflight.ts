import { ConflictError, eventsOfPreflight, keepTogether } from "../../device/log/event-log";
import { tellTabs } from "../../device/tabs";
import type { AppDispatch, RootState } from "../root-state";
import { sendAgain } from "../sync/sync-actions";
import { changeOpenWalks } from "./open-preflights";
import { eventsRecorded, eventsSeen } from "./preflight-slice";
import { type EventInput, makeEvents } from "./record";

/**
 * Signs: what is logged with it and the signature, all of it or nothing, and only on what is really on the disk. Resolves to false where another
 * window of this device has answered something since; then that is on the screen now, and nothing was signed.
 */
export function signPreflight(id: string, happenings: readonly EventInput[]) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<boolean> => {
    const { preflight } = getState();
    const events = dispatch(makeEvents(id, happenings));
    const known = new Set(preflight.events.map((event) => event.id));
    try {
      await keepTogether({ events, ifUnchanged: { streamId: id, known } });
    } catch (error) {
      if (error instanceof ConflictError) {
        dispatch(eventsSeen(await eventsOfPreflight(id)));
        return false;
      }
      // A full disk: held here, said, and tried again, like any answer.
      dispatch(eventsRecorded(events));
      return true;
    }
    dispatch(eventsSeen(events));
    tellTabs({ kind: "events", events });
    dispatch(sendAgain());
    return true;
  };
}

/** Signed and flying: what is left of it is to put the aircraft away. */
export function flyPreflight(id: string) {
  return changeOpenWalks((open) => open.map((p) => (p.preflightId === id ? { ...p, flying: true } : p)));
}

/** A signed preflight is no longer offered for going on. */
export function closePreflight(id: string) {
  return changeOpenWalks((open) => open.filter((p) => p.preflightId !== id));
}
