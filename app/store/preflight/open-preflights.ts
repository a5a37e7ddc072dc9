import { changeNote } from "../../device/log/notes";
import { notifyTabs } from "../../device/tabs";
import { type OpenPreflight, openPreflightsKnown } from "../state/preflight-slice";
import type { AppDispatch, RootState } from "../state/root-state";

/** Key of the note listing open preflights. */
export const OPEN_PREFLIGHTS = "open preflights";

type Change = (open: OpenPreflight[]) => OpenPreflight[];

/** Changes the list of open preflights, based on the stored list, so that changes of other windows are kept. */
export function changeOpenPreflights(change: Change) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    try {
      dispatch(
        openPreflightsKnown(
          await changeNote<OpenPreflight[]>(OPEN_PREFLIGHTS, (before) => change(before ?? [])),
        ),
      );
      notifyTabs({ kind: "open walks" });
    } catch {
      // Storage is full: update the screen; it is written with the next successful change.
      dispatch(openPreflightsKnown(change(getState().preflight.open)));
    }
  };
}

/** A new preflight replaces an open one of the same aircraft. */
export const begun =
  (preflightId: string, registration: string): Change =>
  (open) => [...open.filter((p) => p.registration !== registration), { preflightId, registration }];
