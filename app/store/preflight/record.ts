import { idMsecs, newId } from "@cravix/contract/client";
import {
  type EventData,
  type EventType,
  type FluidAddition,
  logOutsideWalk,
  type PreflightEvent,
  type StreamKind,
} from "@cravix/core";
import type { AppDispatch, RootState } from "../root-state";
import { eventsRecorded } from "./preflight-slice";

let lastMsecs = 0;

/** An id always sorts behind those this device gave earlier: within one millisecond, and when its clock was set back in between. */
function orderedId(now: number, newest: string | undefined): string {
  lastMsecs = Math.max(now, lastMsecs + 1, newest ? idMsecs(newest) + 1 : 0);
  return newId(lastMsecs);
}

/** What happened, before it is an event. */
export type EventInput = { [T in EventType]: { type: T; data: Doing[T] } }[EventType];

/** What each kind carries before it is an event: a discrepancy has no id yet. */
type Doing = Omit<EventData, "discrepancy.opened"> & {
  "discrepancy.opened": Omit<EventData["discrepancy.opened"], "discrepancyId">;
};

/** Which stream something is recorded in, and under which id where that is fixed beforehand. */
export interface Where {
  /** What kind of stream; without it a preflight. */
  stream?: StreamKind;
  /** The id of the first event: of a walk that begins, of a stream that is one act. */
  firstId?: string;
}

/** Makes events of what was done, without keeping them. The one place where events are made. */
export function makeEvents(streamId: string, happenings: readonly EventInput[], where: Where = {}) {
  return (_dispatch: AppDispatch, getState: () => RootState): PreflightEvent[] => {
    const { session, preflight } = getState();
    const { deviceId, crewId } = session;
    if (!deviceId || !crewId)
      throw new Error("No pilot selected on this device. Choose who is flying first.");
    const now = Date.now();
    // Behind what this device itself has said; another's clock does not move this one's.
    let newest = preflight.events.reduce<string | undefined>(
      (last, event) => (event.deviceId === deviceId && (!last || event.id > last) ? event.id : last),
      undefined,
    );
    let opened: string | undefined;
    return happenings.map(({ type, data }, i) => {
      const id = i === 0 && where.firstId ? where.firstId : orderedId(now, newest);
      newest = id;
      const about = ofItself(type, data, id, opened);
      if (type === "discrepancy.opened") opened = id;
      const at = new Date(now).toISOString();
      const { stream } = where;
      return {
        id,
        type,
        ...(stream && { stream }),
        streamId,
        deviceId,
        crewId,
        at,
        data: about,
      } as PreflightEvent;
    });
  };
}

/** Stands for the discrepancy that is logged along with a photograph of it: it has no id before that. */
export const JUST_LOGGED = "";

/** A discrepancy has the id of the event that logs it. */
function ofItself(type: EventType, data: object, id: string, opened: string | undefined): object {
  if (
    type === "discrepancy.photographed" &&
    (data as { discrepancyId: string }).discrepancyId === JUST_LOGGED
  )
    return { ...data, discrepancyId: opened };
  return type === "discrepancy.opened" ? { ...data, discrepancyId: id } : data;
}

/** Makes an event of what was done and hands it to the device. */
export function record<T extends EventType>(streamId: string, type: T, data: Doing[T], where?: Where) {
  return (dispatch: AppDispatch): PreflightEvent =>
    dispatch(recordAll(streamId, [{ type, data } as EventInput], where))[0] as PreflightEvent;
}

/** The same for what belongs together: the device keeps all of it or nothing. */
export function recordAll(streamId: string, happenings: readonly EventInput[], where?: Where) {
  return (dispatch: AppDispatch): PreflightEvent[] => {
    const events = dispatch(makeEvents(streamId, happenings, where));
    if (events.length > 0) dispatch(eventsRecorded(events));
    return events;
  };
}

/** Records what was done to an aircraft outside of any walk, and what belongs to it: a stream of its own. */
export function recordOfAircraft<T extends EventType>(
  type: T,
  data: Doing[T],
  more: readonly EventInput[] = [],
) {
  return (dispatch: AppDispatch): PreflightEvent => {
    const firstId = newId(Date.now());
    const all = [{ type, data } as EventInput, ...more];
    return dispatch(recordAll(firstId, all, { stream: "aircraft", firstId }))[0] as PreflightEvent;
  };
}

/** Records what is no walk and of no aircraft: what is due of a person, the workshop's plan; a stream of its own. */
export function recordStandalone<T extends EventType>(stream: StreamKind, type: T, data: Doing[T]) {
  return (dispatch: AppDispatch): PreflightEvent => {
    const firstId = newId(Date.now());
    return dispatch(
      recordAll(firstId, [{ type, data } as EventInput], { stream, firstId }),
    )[0] as PreflightEvent;
  };
}

/** Records fuel or oil that was put in outside of a walk; what is wrong with it is logged along with it, and returned in words. */
export function recordPutIn(type: Parameters<typeof logOutsideWalk>[0], put: FluidAddition) {
  return (dispatch: AppDispatch): string[] => {
    const found = logOutsideWalk(type, put);
    dispatch(
      recordOfAircraft(
        put.type,
        put.data,
        found.map((data) => ({ type: "discrepancy.opened", data })),
      ),
    );
    return found.map(({ text }) => text);
  };
}
