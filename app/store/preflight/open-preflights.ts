import { changeNote } from "../../device/log/notes";
import { tellTabs } from "../../device/tabs";
import type { AppDispatch, RootState } from "../root-state";
import { type OpenPreflight, openPreflightsKnown } from "./preflight-slice";

/** The name of the note that says which walks are open on this device. */
export const OPEN_WALKS = "open preflights";

type Change = (open: OpenPreflight[]) => OpenPreflight[];

/** Changes which walks are open, from what is on the disk now: what another window began or ended stays begun or ended. */
export function changeOpenWalks(change: Change) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    try {
      dispatch(
        openPreflightsKnown(await changeNote<OpenPreflight[]>(OPEN_WALKS, (before) => change(before ?? []))),
      );
      tellTabs({ kind: "open walks" });
    } catch {
      // A full disk: true on the screen at least, and written with the next change that it takes.
      dispatch(openPreflightsKnown(change(getState().preflight.open)));
    }
  };
}

/** A walk of an aircraft that begins takes the place of what was open of it. */
export const begun =
  (preflightId: string, registration: string): Change =>
  (open) => [...open.filter((p) => p.registration !== registration), { preflightId, registration }];
