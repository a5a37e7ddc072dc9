import { idMsecs, newId } from "@cravix/contract/client";
import type { EventData, EventType, PreflightEvent, StreamKind } from "@cravix/core/checklist/stream/events";
import { type FluidAddition, logOutsidePreflight } from "@cravix/core/verdict/fluid-addition";
import { eventsRecorded } from "../state/preflight-slice";
import type { AppDispatch, RootState } from "../state/root-state";

let lastMsecs = 0;

/** Id that sorts after all earlier ones of this device, within one millisecond and after a clock set back. */
function orderedId(now: number, newest: string | undefined): string {
  lastMsecs = Math.max(now, lastMsecs + 1, newest ? idMsecs(newest) + 1 : 0);
  return newId(lastMsecs);
}

/** Input for an event. */
export type EventInput = { [T in EventType]: { type: T; data: Doing[T] } }[EventType];

/** Data by kind before the event exists: a discrepancy has no id yet. */
type Doing = Omit<EventData, "discrepancy.opened"> & {
  "discrepancy.opened": Omit<EventData["discrepancy.opened"], "discrepancyId">;
};

/** Target stream, and a predetermined id if any. */
export interface Where {
  /** Kind of stream; default preflight. */
  stream?: StreamKind;
  /** Id of the first event, for a new preflight or a single-event stream. */
  firstId?: string;
}

/** Creates events without storing them. The only place where events are created. */
export function makeEvents(streamId: string, happenings: readonly EventInput[], where: Where = {}) {
  return (_dispatch: AppDispatch, getState: () => RootState): PreflightEvent[] => {
    const { session, preflight } = getState();
    const { deviceId, crewId } = session;
    if (!deviceId || !crewId)
      throw new Error("No pilot selected on this device. Choose who is flying first.");
    const now = Date.now();
    // After this device's own events; another device's clock does not shift this one.
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

/** Placeholder for the id of a discrepancy logged together with its photo. */
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

/** Creates and records an event. */
export function record<T extends EventType>(streamId: string, type: T, data: Doing[T], where?: Where) {
  return (dispatch: AppDispatch): PreflightEvent =>
    dispatch(recordAll(streamId, [{ type, data } as EventInput], where))[0] as PreflightEvent;
}

/** Records related events in one transaction. */
export function recordAll(streamId: string, happenings: readonly EventInput[], where?: Where) {
  return (dispatch: AppDispatch): PreflightEvent[] => {
    const events = dispatch(makeEvents(streamId, happenings, where));
    if (events.length > 0) dispatch(eventsRecorded(events));
    return events;
  };
}

/** Records an action on an aircraft outside any preflight, with related events, in its own stream. */
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

/** Records an action without preflight or aircraft (due items of people, workshop plan) in its own stream. */
export function recordStandalone<T extends EventType>(stream: StreamKind, type: T, data: Doing[T]) {
  return (dispatch: AppDispatch): PreflightEvent => {
    const firstId = newId(Date.now());
    return dispatch(
      recordAll(firstId, [{ type, data } as EventInput], { stream, firstId }),
    )[0] as PreflightEvent;
  };
}

/** Records fuel or oil added outside a preflight, with any discrepancy, which is returned as text. */
export function recordPutIn(type: Parameters<typeof logOutsidePreflight>[0], put: FluidAddition) {
  return (dispatch: AppDispatch): string[] => {
    const found = logOutsidePreflight(type, put);
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
