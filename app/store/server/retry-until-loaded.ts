import type { AppDispatch, RootState } from "../root-state";
import { retryWithBackoff } from "./retry-with-backoff";
import { serverApi } from "./server-api";
import { bundleOf, fleetOf, refresh } from "./server-state";

/**
 * Asks for what a page cannot stand without, and again for as long as nobody answers: a page that opened a moment before the network came, or on a device
 * that was too slow for its first question, need not be told to. A no from the server is an answer. Ends with `signal`.
 */
export function retryUntilLoaded(registration?: string, signal?: AbortSignal) {
  return (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    let asked = false;
    return retryWithBackoff(async () => {
      // Somebody else may have asked in the meantime.
      if (asked && known(getState(), registration)) return true;
      asked = true;
      await refresh(dispatch, registration);
      return known(getState(), registration) || answered(getState(), registration);
    }, signal);
  };
}

const known = (state: RootState, registration?: string) =>
  fleetOf(state) !== undefined && (!registration || bundleOf(state, registration) !== undefined);

/** Whether the server itself said no to one of the two. */
function answered(state: RootState, registration?: string): boolean {
  const said = (result: { error?: unknown }) => (result.error as { reached?: boolean } | undefined)?.reached;
  const { fleet, bundle } = serverApi.endpoints;
  return (
    said(fleet.select()(state)) === true ||
    (registration !== undefined && said(bundle.select(registration)(state)) === true)
  );
}
