import { createListenerMiddleware, isAnyOf, type TypedStartListening } from "@reduxjs/toolkit";
import { api, ProblemError } from "../device/api";
import { countToSend, keepEvents, refusedEvents } from "../device/event-log";
import { writeNote } from "../device/notes";
import { sendAll } from "../device/sync";
import { bundleKnown, fleetKnown } from "./fleet-slice";
import { planned, planUsed, schoolSet } from "./planned-slice";
import { eventsKept, eventsRecorded, keepFailed, openPreflightsKnown } from "./preflight-slice";
import type { AppDispatch, RootState } from "./root-state";
import { crewPicked, nightSet, sessionRestored } from "./session-slice";
import { sendAgain } from "./sync-actions";
import { queueKnown, serverReached } from "./sync-slice";

export const listeners = createListenerMiddleware();
const listen = listeners.startListening as TypedStartListening<RootState, AppDispatch>;

const FIRST_RETRY_MS = 1000;
const LAST_RETRY_MS = 15_000;
const SEND_AFTER_MS = 400;

let sending = false;
let retryMs = FIRST_RETRY_MS;
let timer: ReturnType<typeof setTimeout> | undefined;

/** Device first: the event goes to the device's disk, and only then is it called kept and sent on. */
listen({
  actionCreator: eventsRecorded,
  effect: async ({ payload }, { dispatch, getState }) => {
    const { unkept, events } = getState().preflight;
    // An earlier one that could not be kept (storage full) tries again along with this one.
    const behind = events.filter((e) => unkept.includes(e.id) && !payload.some((p) => p.id === e.id));
    const all = [...behind, ...payload];
    try {
      await keepEvents(all);
      dispatch(eventsKept(all.map((e) => e.id)));
      // Sending waits for a breath between two answers: it must never cost a tap.
      clearTimeout(timer);
      timer = setTimeout(() => dispatch(sendAgain()), SEND_AFTER_MS);
    } catch (error) {
      const full = (error as Error).name === "QuotaExceededError";
      dispatch(
        keepFailed(
          full
            ? "This device is full: the last answer is not kept yet. Free some space."
            : "The last answer is not kept yet: this browser does not let it be stored.",
        ),
      );
    }
  },
});

async function knowQueue(dispatch: AppDispatch): Promise<void> {
  const refused = await refusedEvents();
  dispatch(
    queueKnown({
      toSend: await countToSend(),
      refused: refused.map(({ event, reason }) => ({
        id: event.id,
        type: event.type,
        at: event.at,
        reason: reason ?? "",
      })),
    }),
  );
}

/** Sends what waits, one run at a time; without a network it tries again, a little later each time. */
listen({
  actionCreator: sendAgain,
  effect: async (_action, { dispatch }) => {
    if (sending) return;
    sending = true;
    clearTimeout(timer);
    let reached = true;
    try {
      await knowQueue(dispatch);
      const { sent, refused } = await sendAll();
      retryMs = FIRST_RETRY_MS;
      if (sent + refused > 0) dispatch(serverReached(true));
    } catch {
      reached = false;
      dispatch(serverReached(false));
      timer = setTimeout(() => dispatch(sendAgain()), retryMs);
      retryMs = Math.min(retryMs * 2, LAST_RETRY_MS);
    }
    sending = false;
    await knowQueue(dispatch);
    // What was answered while the last batch was on its way.
    if (reached && (await countToSend()) > 0) dispatch(sendAgain());
  },
});

listen({
  matcher: isAnyOf(crewPicked, nightSet, sessionRestored),
  effect: async (_action, { getState }) => {
    const { crewId, night } = getState().session;
    if (typeof document !== "undefined") document.documentElement.classList.toggle("night", night);
    await writeNote("session", { crewId, night });
  },
});

listen({ actionCreator: fleetKnown, effect: ({ payload }) => writeNote("fleet", payload) });
listen({
  actionCreator: bundleKnown,
  effect: ({ payload }) => writeNote(`bundle:${payload.aircraft.registration}`, payload),
});
listen({
  matcher: isAnyOf(planned, planUsed, schoolSet),
  effect: (_action, { getState }) => writeNote("planned", getState().planned),
});
listen({
  actionCreator: openPreflightsKnown,
  effect: ({ payload }) => writeNote("open preflights", payload),
});

/** Asks the server for the fleet and one aircraft, and says whether it was reached. */
export async function refresh(dispatch: AppDispatch, registration?: string): Promise<void> {
  try {
    dispatch(fleetKnown(await api.fleet()));
    if (registration) dispatch(bundleKnown(await api.bundle(registration)));
    dispatch(serverReached(true));
  } catch (error) {
    // A no from the server is an answer: the network is there.
    dispatch(serverReached(error instanceof ProblemError && error.problem.status < 500));
  }
}
