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

/** Makes an event of what was done and hands it to the device. The one place where events are made. */
export function record<T extends EventType>(preflightId: string, type: T, data: EventData[T]) {
  return (dispatch: AppDispatch, getState: () => RootState): PreflightEvent => {
    const { session, preflight } = getState();
    if (!session.deviceId || !session.crewId) throw new Error("Nobody holds this device yet.");
    const now = Date.now();
    const event = {
      id: orderedId(now, preflight.events.at(-1)?.id),
      type,
      preflightId,
      deviceId: session.deviceId,
      crewId: session.crewId,
      at: new Date(now).toISOString(),
      data,
    } as PreflightEvent;
    dispatch(eventsRecorded([event]));
    return event;
  };
}
