import type { AppDispatch, RootState } from "../state/root-state";
import { serverApi } from "../state/server-api";
import { retryWithBackoff } from "./retry-with-backoff";
import { bundleOf, fleetOf, refresh } from "./server-state";

/**
 * Loads data a page depends on, and retries until the server responds: for a page opened just before the network came up, or a
 * slow device. An error response counts as a response. Ends with `signal`.
 */
export function retryUntilLoaded(registration?: string, signal?: AbortSignal) {
  return (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    let asked = false;
    return retryWithBackoff(async () => {
      // Another request may have loaded it.
      if (asked && known(getState(), registration)) return true;
      asked = true;
      await refresh(dispatch, registration);
      return known(getState(), registration) || answered(getState(), registration);
    }, signal);
  };
}

const known = (state: RootState, registration?: string) =>
  fleetOf(state) !== undefined && (!registration || bundleOf(state, registration) !== undefined);

/** True if the server responded with an error to either request. */
function answered(state: RootState, registration?: string): boolean {
  const said = (result: { error?: unknown }) => (result.error as { reached?: boolean } | undefined)?.reached;
  const { fleet, bundle } = serverApi.endpoints;
  return (
    said(fleet.select()(state)) === true ||
    (registration !== undefined && said(bundle.select(registration)(state)) === true)
  );
}
