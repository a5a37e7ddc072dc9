import { type AircraftBundle, type Fleet, newId } from "@cravix/contract/client";
import { deviceDatabase } from "../device/log/database";
import { eventsOfPreflight } from "../device/log/event-log";
import { changeNote, hearWaitingNotes, noteKeys, readNote } from "../device/log/notes";
import { pruneSent } from "../device/log/prune-sent";
import { hearTabs } from "../device/tabs";
import type { AppDispatch, RootState } from "./root-state";
import { serverApi } from "./server/server-api";
import { bundleOf } from "./server/server-state";
import { sessionRestored } from "./session-slice";
import { sendAgain } from "./sync/sync-actions";
import { draftsWait } from "./sync/sync-slice";
import { OPEN_WALKS } from "./walk/open-walks";
import { type PlannedState, plannedRestored } from "./walk/planned-slice";
import { openPreflight } from "./walk/preflight-actions";
import { eventsSeen, type OpenPreflight, openPreflightsKnown } from "./walk/preflight-slice";

/** Brings back what the device remembers: after a reload, a closed tab or a killed browser everything is where it was. */
export function restore(dispatch: AppDispatch): Promise<void> {
  return dispatch(restoring());
}

const restoring = () => async (dispatch: AppDispatch, getState: () => RootState) => {
  listenToOthers(dispatch, getState);
  // Where nothing can be kept nothing is begun: the page says so in its place.
  await deviceDatabase();
  // All at once: the first page waits for this.
  const [deviceId, session, fleet, planned, openWalks] = await Promise.all([
    changeNote<string>("device id", (before) => before ?? newId(Date.now())).catch(() => newId(Date.now())),
    readNote<{ crewId: string | null; night: boolean }>("session"),
    readNote<Fleet>("fleet"),
    readNote<PlannedState>("planned"),
    readNote<OpenPreflight[]>(OPEN_WALKS),
  ]);
  if (fleet) await dispatch(serverApi.util.upsertQueryData("fleet", undefined, inTodaysShape(fleet)));
  if (planned) dispatch(plannedRestored(planned));
  const open = openWalks ?? [];
  dispatch(openPreflightsKnown(open));
  dispatch(sessionRestored({ deviceId, crewId: session?.crewId ?? null, night: session?.night ?? false }));
  dispatch(sendAgain());
  dispatch(restoreBundles());
  // What the group has had for weeks need not fill this device; nobody waits for it.
  const openIds = new Set(open.map(({ preflightId }) => preflightId));
  void pruneSent(openIds, Date.now()).catch(() => undefined);
};

/** What is kept of each aircraft, one after another: they are large, and the first page stands without them. */
const restoreBundles = () => async (dispatch: AppDispatch, getState: () => RootState) => {
  for (const key of await noteKeys("bundle:")) {
    const bundle = await readNote<AircraftBundle>(key);
    // What the server has said meanwhile is newer.
    if (!bundle || bundleOf(getState(), bundle.aircraft.registration)) continue;
    await dispatch(
      serverApi.util.upsertQueryData("bundle", bundle.aircraft.registration, {
        ...bundle,
        // One that was kept before walks and laps were told with it.
        walks: bundle.walks ?? [],
        laps: bundle.laps ?? {},
      }),
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
