import { api } from "../../device/api";
import { eventsOfPreflight, listOf } from "../../device/log/event-log";
import { saveSent } from "../../device/log/store-sent";
import { eventsSeen, preflightOpened } from "../state/preflight-slice";
import type { AppDispatch, RootState } from "../state/root-state";

/** Downloads a preflight from the server, stores what is missing here, and continues it. */
export function fetchPreflight(id: string) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<boolean> => {
    try {
      const { events, listHash, summary } = await api.preflight(id);
      if (!listHash || !summary.registration) return false;
      const here = await listOf(listHash);
      const list = here ?? (await api.list(listHash));
      await saveSent(events, { hash: listHash, list, sent: 1 });
      if (getState().preflight.id === id) dispatch(eventsSeen(events));
      else if (!here) dispatch(preflightOpened({ id, list, events: await eventsOfPreflight(id) }));
      return true;
    } catch {
      return false;
    }
  };
}
