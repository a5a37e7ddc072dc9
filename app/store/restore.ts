import type { AircraftBundle, Fleet } from "@cravix/contract/client";
import { eventsOfPreflight } from "../device/log/event-log";
import { hearWaitingNotes, noteKeys, readNote } from "../device/log/notes";
import { pruneSent } from "../device/log/prune-sent";
import { loadStartupData } from "../device/log/startup-data";
import { hearTabs } from "../device/tabs";
import { openPreflight } from "./preflight/open-preflight";
import { OPEN_WALKS } from "./preflight/open-preflights";
import { type PlannedState, plannedRestored } from "./preflight/planned-slice";
import { eventsSeen, type OpenPreflight, openPreflightsKnown } from "./preflight/preflight-slice";
import type { AppDispatch, RootState } from "./root-state";
import { retryUntilLoaded } from "./server/retry-until-loaded";
import { serverApi } from "./server/server-api";
import { bundleOf } from "./server/server-state";
import { sessionRestored } from "./session-slice";
import { sendAgain } from "./sync/sync-actions";
import { draftsWait } from "./sync/sync-slice";

/** Brings back what the device remembers: after a reload, a closed tab or a killed browser everything is where it was. */
export function restore(dispatch: AppDispatch): Promise<void> {
  return dispatch(restoring());
}

const restoring = () => async (dispatch: AppDispatch, getState: () => RootState) => {
  listenToOthers(dispatch, getState);
  // Where nothing can be kept nothing is begun: the page says so in its place.
  const kept = await loadStartupData();
  const { deviceId, session, fleet } = kept;
  const planned = kept.planned as PlannedState | undefined;
  if (fleet)
    dispatch(
      serverApi.util.upsertQueryEntries([
        { endpointName: "fleet", arg: undefined, value: inTodaysShape(fleet) },
      ]),
    );
  if (planned) dispatch(plannedRestored(planned));
  const open = (kept.openWalks as OpenPreflight[] | undefined) ?? [];
  dispatch(openPreflightsKnown(open));
  dispatch(sessionRestored({ deviceId, crewId: session?.crewId ?? null, night: session?.night ?? false }));
  // On a new device nothing can be shown before the server has been asked.
  if (!fleet) void dispatch(retryUntilLoaded());
};

/** What the first page stands without: what waits is sent, the aircraft are brought back, and what nobody needs any more is let go. */
export function restoreRest(dispatch: AppDispatch): Promise<void> {
  return dispatch(restoringRest());
}

const restoringRest = () => async (dispatch: AppDispatch, getState: () => RootState) => {
  dispatch(sendAgain());
  await dispatch(restoreBundles());
  // What the group has had for weeks need not fill this device; nobody waits for it.
  const openIds = new Set(getState().preflight.open.map(({ preflightId }) => preflightId));
  await pruneSent(openIds, Date.now()).catch(() => undefined);
};

/** What is kept of each aircraft, one after another: they are large. */
const restoreBundles = () => async (dispatch: AppDispatch, getState: () => RootState) => {
  for (const key of await noteKeys("bundle:")) {
    const bundle = await readNote<AircraftBundle>(key);
    // What the server has said meanwhile is newer.
    if (!bundle || bundleOf(getState(), bundle.aircraft.registration)) continue;
    // One that was kept before walks and laps were told with it has none.
    const value = { ...bundle, walks: bundle.walks ?? [], laps: bundle.laps ?? {} };
    dispatch(
      serverApi.util.upsertQueryEntries([
        { endpointName: "bundle", arg: bundle.aircraft.registration, value },
      ]),
    );
  }
};

/** A group that was kept before the server told what is open and what was measured: until it is asked again that is not known. */
const inTodaysShape = (fleet: Fleet): Fleet => ({
  ...fleet,
  aircraft: fleet.aircraft.map((aircraft) => ({
    ...aircraft,
    open: aircraft.open ?? [],
    fluids: aircraft.fluids ?? { oil: [] },
    lastFlown: aircraft.lastFlown ?? null,
  })),
});

/** What the other windows of this device do is seen here at once. */
function listenToOthers(dispatch: AppDispatch, getState: () => RootState): void {
  hearWaitingNotes((count) => dispatch(draftsWait(count)));
  hearTabs((message) => {
    switch (message.kind) {
      case "events":
        dispatch(eventsSeen(message.events));
        return;
      case "open walks":
        void readNote<OpenPreflight[]>(OPEN_WALKS).then((open) => dispatch(openPreflightsKnown(open ?? [])));
        return;
      case "changed":
        if (getState().preflight.id === message.preflightId)
          void dispatch(openPreflight(message.preflightId));
        return;
    }
  });
}

/** Reads a walk from the disk again: what another window did while this one slept. */
export function readAgain(preflightId: string) {
  return async (dispatch: AppDispatch) => {
    dispatch(eventsSeen(await eventsOfPreflight(preflightId)));
  };
}
