import { idMsecs, newId } from "@cravix/contract";
import type { EventData, EventType, PreflightEvent } from "@cravix/core";
import { eventsRecorded } from "./preflight-slice";
import type { AppDispatch, RootState } from "./root-state";

let lastMsecs = 0;

/** An id always sorts behind those this device gave earlier: within one millisecond, and when its clock was set back in between. */
function orderedId(now: number, newest: string | undefined): string {
  lastMsecs = Math.max(now, lastMsecs + 1, newest ? idMsecs(newest) + 1 : 0);
  return newId(lastMsecs);
}

/** What happened, before it is an event. */
export type Happening = { [T in EventType]: { type: T; data: EventData[T] } }[EventType];

/** Makes an event of what was done and hands it to the device. */
export function record<T extends EventType>(preflightId: string, type: T, data: EventData[T]) {
  return (dispatch: AppDispatch): PreflightEvent =>
    dispatch(recordAll(preflightId, [{ type, data } as Happening]))[0] as PreflightEvent;
}

/** The same for what belongs together: the device keeps all of it or nothing. The one place where events are made. */
export function recordAll(preflightId: string, happenings: readonly Happening[]) {
  return (dispatch: AppDispatch, getState: () => RootState): PreflightEvent[] => {
    const { session, preflight } = getState();
    const { deviceId, crewId } = session;
    if (!deviceId || !crewId) throw new Error("Nobody holds this device yet.");
    const now = Date.now();
    let newest = preflight.events.at(-1)?.id;
    const events = happenings.map(({ type, data }) => {
      newest = orderedId(now, newest);
      const at = new Date(now).toISOString();
      return { id: newest, type, preflightId, deviceId, crewId, at, data } as PreflightEvent;
    });
    if (events.length > 0) dispatch(eventsRecorded(events));
    return events;
  };
}
