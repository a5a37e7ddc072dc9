import { eventsOfPreflight, listOf } from "../../device/log/event-log";
import { preflightOpened } from "../state/preflight-slice";
import type { AppDispatch } from "../state/root-state";
import { fetchPreflight } from "./fetch-preflight";

/** Opens a preflight from this device, or from the server if it was started elsewhere. Resolves to false if neither has it. */
export function openPreflight(id: string) {
  return async (dispatch: AppDispatch): Promise<boolean> => {
    const events = await eventsOfPreflight(id);
    const started = events.find((event) => event.type === "preflight.started");
    const list = started && (await listOf(started.data.listHash));
    if (!list) return dispatch(fetchPreflight(id));
    dispatch(preflightOpened({ id, list, events }));
    // Answers of other devices are fetched when online.
    void dispatch(fetchPreflight(id));
    return true;
  };
}
