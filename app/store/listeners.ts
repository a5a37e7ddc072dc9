import { createListenerMiddleware, isAnyOf, type TypedStartListening } from "@reduxjs/toolkit";
import { tellHolder } from "../device/api";
import { DeviceError } from "../device/log/database";
import { countEventsToSend, countToSend, keepEvents, refusedEvents } from "../device/log/event-log";
import { keepChange } from "../device/log/notes";
import type { KeptSession } from "../device/log/startup-data";
import { askToPersist } from "../device/storage";
import { sendAll } from "../device/sync";
import { tellTabs } from "../device/tabs";
import { ownDue } from "./preflight/own-due";
import { type PlannedState, planned, planUsed, preferencesSet, withPlan } from "./preflight/planned-slice";
import { eventsKept, eventsRecorded, keepFailed } from "./preflight/preflight-slice";
import type { AppDispatch, RootState } from "./root-state";
import { crewPicked, nightSet, sessionRestored } from "./session-slice";
import { keepAgain, sendAgain } from "./sync/sync-actions";
import { draftsWait, queueKnown, serverMet } from "./sync/sync-slice";

export const listeners = createListenerMiddleware();
const listen = listeners.startListening as TypedStartListening<RootState, AppDispatch>;

const FIRST_RETRY_MS = 1000;
const LAST_RETRY_MS = 30_000;
/** Where the server turns the sender away, nothing changes by asking often. */
const TURNED_AWAY_MS = 300_000;
const SEND_AFTER_MS = 400;
const KEEP_AGAIN_MS = 4000;
const NOBODY_YET: KeptSession = { crewId: null, night: false };

let sending = false;
/** Somebody asked to send while a run was on its way: it may have come too late for that run. */
let askedMeanwhile = false;
let retryMs = FIRST_RETRY_MS;
let timer: ReturnType<typeof setTimeout> | undefined;
let keepTimer: ReturnType<typeof setTimeout> | undefined;

/** Every device waits a while of its own: a group that comes back into the network does not come all at once. */
const jitter = (ms: number) => ms * (0.5 + Math.random());

/** Device first: the event goes to the device's disk, and only then is it called kept and sent on. What the disk does not take is tried again. */
listen({
  matcher: isAnyOf(eventsRecorded, keepAgain),
  effect: async (_action, { dispatch, getState }) => {
    // Whatever waits goes along: of this walk, of another, of none.
    const { unkept } = getState().preflight;
    clearTimeout(keepTimer);
    warnBeforeLeaving(getState());
    if (unkept.length === 0) return;
    try {
      await keepEvents(unkept);
      dispatch(eventsKept(unkept.map((e) => e.id)));
      tellTabs({ kind: "events", events: [...unkept] });
      warnBeforeLeaving(getState());
      // Sending waits for a breath between two answers: it must never cost a tap.
      clearTimeout(timer);
      timer = setTimeout(() => dispatch(sendAgain()), SEND_AFTER_MS);
    } catch (error) {
      dispatch(keepFailed(wordsFor(error)));
      keepTimer = setTimeout(() => dispatch(keepAgain()), KEEP_AGAIN_MS);
    }
  },
});

listen({ actionCreator: draftsWait, effect: (_action, { getState }) => warnBeforeLeaving(getState()) });

/** Why the disk did not take it, for the person who holds the device. */
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

/** Sends what waits, one run at a time; where it stands still it tries again, a little later each time. */
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
        retryMs = Math.min(retryMs * 2, LAST_RETRY_MS);
      } else {
        retryMs = FIRST_RETRY_MS;
        goesOn = true;
        if (sent + refused > 0) dispatch(serverMet("reached"));
      }
      await knowQueue(dispatch);
      // What was answered while the last batch was on its way.
      goesOn &&= (await countEventsToSend()) > 0;
    } catch (error) {
      // The device's own disk, not the server: what was sent cannot be written down as sent, and goes again, harmlessly.
      if (getState().preflight.unkept.length > 0) dispatch(keepFailed(wordsFor(error)));
      timer = setTimeout(() => dispatch(sendAgain()), jitter(LAST_RETRY_MS));
      goesOn = false;
    }
    sending = false;
    if (goesOn || askedMeanwhile) dispatch(sendAgain());
  },
});

let asked = false;
listen({
  matcher: isAnyOf(crewPicked, nightSet, sessionRestored),
  effect: async (action, { getState }) => {
    const { crewId, night } = getState().session;
    if (typeof document !== "undefined") document.documentElement.classList.toggle("night", night);
    tellHolder(crewId);
    // What limits whoever flies is on the device before it is wanted on an apron without a network.
    if (crewId) void ownDue(crewId);
    // What was only read is not written back: another window may have been told who flies in the meantime.
    if (!sessionRestored.match(action)) {
      const set = crewPicked.match(action) ? { crewId } : { night };
      await keepChange<KeptSession>("session", (before) => ({ ...NOBODY_YET, ...before, ...set }));
    }
    // Somebody holds this device: from now on its answers are worth a promise of the browser's.
    if (crewId && !asked) {
      asked = true;
      void askToPersist();
    }
  },
});

const setsPlan = isAnyOf(planned, planUsed, preferencesSet);
listen({
  matcher: setsPlan,
  effect: (action, { getState }) => {
    if (!setsPlan(action)) return;
    const now = getState().planned;
    return keepChange<PlannedState>("planned", (before) => withPlan(before, now, action));
  },
});
