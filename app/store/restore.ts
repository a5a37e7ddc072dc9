import { type AircraftBundle, type Fleet, newId } from "@cravix/contract";
import { deviceDatabase } from "../device/database";
import { readNote, writeNote } from "../device/notes";
import { bundleKnown, fleetKnown } from "./fleet-slice";
import { type PlannedState, plannedRestored } from "./planned-slice";
import { type OpenPreflight, openPreflightsKnown } from "./preflight-slice";
import type { AppDispatch } from "./root-state";
import { sessionRestored } from "./session-slice";
import { sendAgain } from "./sync-actions";

/** Brings back what the device remembers: after a reload, a closed tab or a killed browser everything is where it was. */
export async function restore(dispatch: AppDispatch): Promise<void> {
  let deviceId = await readNote<string>("device id");
  if (!deviceId) {
    deviceId = newId(Date.now());
    await writeNote("device id", deviceId);
  }
  const session = await readNote<{ crewId: string | null; night: boolean }>("session");
  const fleet = await readNote<Fleet>("fleet");
  if (fleet) dispatch(fleetKnown(fleet));
  const db = await deviceDatabase();
  for (const key of await db.getAllKeys("notes", IDBKeyRange.bound("bundle:", "bundle:\uffff"))) {
    const bundle = await readNote<AircraftBundle>(key);
    // One that was kept before walks and laps were told with it.
    if (bundle) dispatch(bundleKnown({ ...bundle, walks: bundle.walks ?? [], laps: bundle.laps ?? {} }));
  }
  const before = await readNote<PlannedState>("planned");
  if (before) dispatch(plannedRestored(before));
  dispatch(openPreflightsKnown((await readNote<OpenPreflight[]>("open preflights")) ?? []));
  dispatch(sessionRestored({ deviceId, crewId: session?.crewId ?? null, night: session?.night ?? false }));
  dispatch(sendAgain());
}
