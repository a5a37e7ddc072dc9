import type { AircraftBundle, Fleet } from "@cravix/contract/client";
import { eventsOfPreflight } from "../device/log/event-log";
import { hearWaitingNotes, noteKeys, readNote } from "../device/log/notes";
import { pruneSent } from "../device/log/prune-sent";
import { loadStartupData } from "../device/log/startup-data";
import { hearTabs } from "../device/tabs";
import { openPreflight } from "./preflight/open-preflight";
import { OPEN_PREFLIGHTS } from "./preflight/open-preflights";
import { retryUntilLoaded } from "./server/retry-until-loaded";
import { bundleOf } from "./server/server-state";
import { type PlannedState, plannedRestored } from "./state/planned-slice";
import { eventsSeen, type OpenPreflight, openPreflightsKnown } from "./state/preflight-slice";
import type { AppDispatch, RootState } from "./state/root-state";
import { serverApi } from "./state/server-api";
import { sessionRestored } from "./state/session-slice";
import { sendAgain } from "./state/sync-actions";
import { draftsWait } from "./state/sync-slice";

/** Restores stored state after a reload, a closed tab or a killed browser. */
export function restore(dispatch: AppDispatch): Promise<void> {
  return dispatch(restoring());
}

const restoring = () => async (dispatch: AppDispatch, getState: () => RootState) => {
  listenToOthers(dispatch, getState);
  // Without storage nothing can be started: the page says so.
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
  // A new device has nothing to show before the server responds.
  if (!fleet) void dispatch(retryUntilLoaded());
};

/** Background work after the first page: send pending data, restore aircraft, delete old data. */
export function restoreRest(dispatch: AppDispatch): Promise<void> {
  return dispatch(restoringRest());
}

const restoringRest = () => async (dispatch: AppDispatch, getState: () => RootState) => {
  dispatch(sendAgain());
  await dispatch(restoreBundles());
  // Old preflights are deleted in the background.
  const openIds = new Set(getState().preflight.open.map(({ preflightId }) => preflightId));
  await pruneSent(openIds, Date.now()).catch(() => undefined);
};

/** Restores aircraft one by one, because they are large. */
const restoreBundles = () => async (dispatch: AppDispatch, getState: () => RootState) => {
  for (const key of await noteKeys("bundle:")) {
    const bundle = await readNote<AircraftBundle>(key);
    // The server's newer response is kept.
    if (!bundle || bundleOf(getState(), bundle.aircraft.registration)) continue;
    // Older bundles lack these fields.
    const value = { ...bundle, walks: bundle.walks ?? [], laps: bundle.laps ?? {} };
    dispatch(
      serverApi.util.upsertQueryEntries([
        { endpointName: "bundle", arg: bundle.aircraft.registration, value },
      ]),
    );
  }
};

/** Upgrades a group stored before these fields existed: unknown until loaded again. */
const inTodaysShape = (fleet: Fleet): Fleet => ({
  ...fleet,
  aircraft: fleet.aircraft.map((aircraft) => ({
    ...aircraft,
    open: aircraft.open ?? [],
    fluids: aircraft.fluids ?? { oil: [] },
    lastFlown: aircraft.lastFlown ?? null,
  })),
});

/** Applies changes of this device's other windows immediately. */
function listenToOthers(dispatch: AppDispatch, getState: () => RootState): void {
  hearWaitingNotes((count) => dispatch(draftsWait(count)));
  hearTabs((message) => {
    switch (message.kind) {
      case "events":
        dispatch(eventsSeen(message.events));
        return;
      case "open walks":
        void readNote<OpenPreflight[]>(OPEN_PREFLIGHTS).then((open) =>
          dispatch(openPreflightsKnown(open ?? [])),
        );
        return;
      case "changed":
        if (getState().preflight.id === message.preflightId)
          void dispatch(openPreflight(message.preflightId));
        return;
    }
  });
}

/** Reads a preflight again, for changes made by another window in the meantime. */
export function readAgain(preflightId: string) {
  return async (dispatch: AppDispatch) => {
    dispatch(eventsSeen(await eventsOfPreflight(preflightId)));
  };
}
