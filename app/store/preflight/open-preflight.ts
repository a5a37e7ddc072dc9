import { eventsOfPreflight, listOf } from "../../device/log/event-log";
import type { AppDispatch } from "../root-state";
import { fetchWalk } from "./fetch-preflight";
import { preflightOpened } from "./preflight-slice";

/**
 * Brings a preflight to the screen: from this device's disk, or from the server where it was begun on another device. Resolves to false where
 * neither has it.
 */
export function openPreflight(id: string) {
  return async (dispatch: AppDispatch): Promise<boolean> => {
    const events = await eventsOfPreflight(id);
    const started = events.find((event) => event.type === "preflight.started");
    const list = started && (await listOf(started.data.listHash));
    if (!list) return dispatch(fetchWalk(id));
    dispatch(preflightOpened({ id, list, events }));
    // What another device answered in the same walk comes as soon as there is a network.
    void dispatch(fetchWalk(id));
    return true;
  };
}
