import { clockAheadMs } from "../../device/api";
import { correctTimes } from "../../device/log/correct-times";
import { notifyTabs } from "../../device/tabs";
import { openPreflight } from "../preflight/open-preflight";
import type { AppDispatch, RootState } from "../state/root-state";
import { sendAgain } from "../state/sync-actions";

/** Corrects the times of events rejected as being in the future, and sends them with the correction recorded. */
export function correctClock() {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    for (const preflightId of await correctTimes(Date.now(), clockAheadMs())) {
      notifyTabs({ kind: "changed", preflightId });
      if (getState().preflight.id === preflightId) await dispatch(openPreflight(preflightId));
    }
    dispatch(sendAgain());
  };
}
