import { createListenerMiddleware, isAnyOf, type TypedStartListening } from "@reduxjs/toolkit";
import { tellHolder } from "../device/api";
import { DeviceError } from "../device/log/database";
import { countEventsToSend, countToSend, refusedEvents, saveEvents } from "../device/log/event-log";
import { saveNoteChange } from "../device/log/notes";
import type { KeptSession } from "../device/log/startup-data";
import { requestPersistence } from "../device/storage";
import { sendAll } from "../device/sync/sync";
import { notifyTabs } from "../device/tabs";
import { ownDue } from "./preflight/own-due";
import { FIRST_WAIT_MS, jitter, LAST_WAIT_MS, nextWait } from "./server/retry-with-backoff";
import { type PlannedState, planned, planUsed, preferencesSet, withPlan } from "./state/planned-slice";
import { eventsKept, eventsRecorded, keepFailed } from "./state/preflight-slice";
import type { AppDispatch, RootState } from "./state/root-state";
import { SENT_TAGS, serverApi } from "./state/server-api";
import { crewPicked, nightSet, sessionRestored } from "./state/session-slice";
import { saveAgain, sendAgain } from "./state/sync-actions";
import { draftsWait, queueKnown, serverMet } from "./state/sync-slice";

export const listeners = createListenerMiddleware();
const listen = listeners.startListening as TypedStartListening<RootState, AppDispatch>;

/** Retry interval after the server refused the sender. */
const TURNED_AWAY_MS = 300_000;
const SEND_AFTER_MS = 400;
const KEEP_AGAIN_MS = 4000;
const NOBODY_YET: KeptSession = { crewId: null, night: false };

let sending = false;
/** A request to send arrived during a run and may have been too late for it. */
let askedMeanwhile = false;
let retryMs = FIRST_WAIT_MS;
let timer: ReturnType<typeof setTimeout> | undefined;
let saveTimer: ReturnType<typeof setTimeout> | undefined;

/** Stores each event on the device first; only then is it saved and sent. Failed writes are retried. */
listen({
  matcher: isAnyOf(eventsRecorded, saveAgain),
  effect: async (_action, { dispatch, getState }) => {
    // Retry all events not stored yet, of any preflight.
    const { unkept } = getState().preflight;
    clearTimeout(saveTimer);
    warnBeforeLeaving(getState());
    if (unkept.length === 0) return;
    try {
      await saveEvents(unkept);
      dispatch(eventsKept(unkept.map((e) => e.id)));
      notifyTabs({ kind: "events", events: [...unkept] });
      warnBeforeLeaving(getState());
      // Debounced: sending must never delay a tap.
      clearTimeout(timer);
      timer = setTimeout(() => dispatch(sendAgain()), SEND_AFTER_MS);
    } catch (error) {
      dispatch(keepFailed(wordsFor(error)));
      saveTimer = setTimeout(() => dispatch(saveAgain()), KEEP_AGAIN_MS);
    }
  },
});

listen({ actionCreator: draftsWait, effect: (_action, { getState }) => warnBeforeLeaving(getState()) });

/** Why storing failed, worded for the user. */
export function wordsFor(error: unknown): string {
  if (error instanceof DeviceError) return `The last answer is not saved yet. ${error.message}`;
  return (error as Error).name === "QuotaExceededError"
    ? "This device is full: the last answer is not saved yet. Free some space, and leave this page open."
    : "The last answer is not saved yet: the browser refused to store it. Leave this page open and free some space.";
}

const stay = (event: BeforeUnloadEvent) => event.preventDefault();
function warnBeforeLeaving({ preflight, sync }: RootState): void {
  if (typeof window === "undefined" || !window.addEventListener) return;
  window.removeEventListener("beforeunload", stay);
  if (preflight.unkept.length > 0 || sync.draftsWaiting > 0) window.addEventListener("beforeunload", stay);
}

async function knowQueue(dispatch: AppDispatch): Promise<void> {
  const refused = await refusedEvents();
  dispatch(
    queueKnown({
      toSend: await countToSend(),
      refused: refused.map(({ event, reason, field }) => ({
        id: event.id,
        type: event.type,
        at: event.at,
        reason: reason ?? "",
        ...(field && { field }),
      })),
    }),
  );
}

/** Sends pending data, one run at a time, with increasing delays while it cannot. */
listen({
  actionCreator: sendAgain,
  effect: async (_action, { dispatch, getState }) => {
    if (sending) {
      askedMeanwhile = true;
      return;
    }
    sending = true;
    askedMeanwhile = false;
    clearTimeout(timer);
    let goesOn = false;
    try {
      await knowQueue(dispatch);
      const { sent, refused, stopped } = await sendAll();
      if (stopped) {
        dispatch(serverMet(stopped.why));
        const turnedAway = stopped.why === "sign in" || stopped.why === "not allowed";
        const wait = turnedAway ? TURNED_AWAY_MS : Math.max(stopped.waitMs ?? 0, retryMs);
        timer = setTimeout(() => dispatch(sendAgain()), jitter(wait));
        retryMs = nextWait(retryMs);
      } else {
        retryMs = FIRST_WAIT_MS;
        goesOn = true;
        if (sent + refused > 0) dispatch(serverMet("reached"));
        // Pages that show this data reload it.
        if (sent > 0) dispatch(serverApi.util.invalidateTags([...SENT_TAGS]));
      }
      await knowQueue(dispatch);
      // Answered while the last batch was being sent.
      goesOn &&= (await countEventsToSend()) > 0;
    } catch (error) {
      // Device storage failed: events sent but not marked as sent are sent again, harmlessly.
      if (getState().preflight.unkept.length > 0) dispatch(keepFailed(wordsFor(error)));
      timer = setTimeout(() => dispatch(sendAgain()), jitter(LAST_WAIT_MS));
      goesOn = false;
    }
    sending = false;
    if (goesOn || askedMeanwhile) dispatch(sendAgain());
  },
});

let asked = false;
listen({
  matcher: isAnyOf(crewPicked, nightSet, sessionRestored),
  effect: async (action, { getState, dispatch }) => {
    const { crewId, night } = getState().session;
    if (typeof document !== "undefined") document.documentElement.classList.toggle("night", night);
    tellHolder(crewId);
    // Load the pilot's limits before they are needed offline.
    if (crewId) void ownDue(dispatch, crewId);
    // Restored values are not written back: another window may have changed the crew member.
    if (!sessionRestored.match(action)) {
      const set = crewPicked.match(action) ? { crewId } : { night };
      await saveNoteChange<KeptSession>("session", (before) => ({ ...NOBODY_YET, ...before, ...set }));
    }
    // Ask for persistent storage once someone uses this device.
    if (crewId && !asked) {
      asked = true;
      void requestPersistence();
    }
  },
});

const setsPlan = isAnyOf(planned, planUsed, preferencesSet);
listen({
  matcher: setsPlan,
  effect: (action, { getState }) => {
    if (!setsPlan(action)) return;
    const now = getState().planned;
    return saveNoteChange<PlannedState>("planned", (before) => withPlan(before, now, action));
  },
});
