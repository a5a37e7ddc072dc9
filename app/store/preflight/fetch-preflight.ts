import { eventsOfPreflight, listOf } from "../../device/log/event-log";
import { saveSent } from "../../device/log/store-sent";
import { eventsSeen, preflightOpened } from "../state/preflight-slice";
import type { AppDispatch, RootState } from "../state/root-state";
import { serverApi } from "../state/server-api";

const ANEW = { forceRefetch: true, subscribe: false } as const;

/** Downloads a preflight from the server, stores what is missing here, and continues it. */
export function fetchPreflight(id: string) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<boolean> => {
    const { preflight, list: listByHash } = serverApi.endpoints;
    try {
      const { events, listHash, summary } = await dispatch(preflight.initiate(id, ANEW)).unwrap();
      if (!listHash || !summary.registration) return false;
      const here = await listOf(listHash);
      const list = here ?? (await dispatch(listByHash.initiate(listHash, ANEW)).unwrap());
      await saveSent(events, { hash: listHash, list, sent: 1 });
      if (getState().preflight.id === id) dispatch(eventsSeen(events));
      else if (!here) dispatch(preflightOpened({ id, list, events: await eventsOfPreflight(id) }));
      return true;
    } catch {
      return false;
    }
  };
}
