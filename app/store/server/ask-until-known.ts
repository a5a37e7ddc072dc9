import type { AppDispatch, RootState } from "../root-state";
import { serverApi } from "./server-api";
import { bundleOf, fleetOf, refresh } from "./server-state";

const FIRST_MS = 1000;
const LAST_MS = 20_000;
/** Every device waits a while of its own: a group that comes back into the network does not come all at once. */
const jitter = (ms: number) => ms * (0.75 + Math.random() / 2);

/**
 * Asks for what a page cannot stand without, and again for as long as nobody answers: a page that opened a moment before the network came, or on a device
 * that was too slow for its first question, need not be told to. A no from the server is an answer. Ends with `signal`.
 */
export function askUntilKnown(registration?: string, signal?: AbortSignal) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    for (let wait = FIRST_MS; ; wait = Math.min(2 * wait, LAST_MS)) {
      await refresh(dispatch, registration);
      if (signal?.aborted || known(getState(), registration) || answered(getState(), registration)) return;
      await whileOrOnline(jitter(wait), signal);
      if (signal?.aborted || known(getState(), registration)) return;
    }
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

/** Resolves after so long, sooner when the device says that it is in a network again, and at once with `signal`. */
function whileOrOnline(ms: number, signal?: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    const done = () => {
      clearTimeout(timer);
      globalThis.removeEventListener?.("online", done);
      signal?.removeEventListener("abort", done);
      resolve();
    };
    const timer = setTimeout(done, ms);
    globalThis.addEventListener?.("online", done);
    signal?.addEventListener("abort", done);
  });
}
