import { deviceDatabase } from "../device/log/database";
import { readNote } from "../device/log/notes";
import { type PlannedState, planned, planUsed, preferencesSet } from "./state/planned-slice";
import { crewPicked, nightSet, sessionRestored } from "./state/session-slice";
import { createStore } from "./store";

/** Two windows of one device: separate states, shared storage. */
const windows = () => [createStore(), createStore()] as const;
/** A write waits for all earlier ones. */
const written = async () => {
  for (let i = 0; i < 3; i++) {
    await new Promise((resolve) => setTimeout(resolve, 5));
    await (await deviceDatabase()).transaction("notes", "readwrite").done;
  }
};
const NOBODY = { deviceId: "d", crewId: null, night: false };

beforeEach(async () => (await deviceDatabase()).clear("notes"));

test("opening a second window, or switching it to night colours, does not change who is picked", async () => {
  const [one, other] = windows();
  one.dispatch(crewPicked("ines"));
  await written();
  // It had read storage before the selection.
  other.dispatch(sessionRestored(NOBODY));
  await written();
  expect(await readNote("session")).toEqual({ crewId: "ines", night: false });
  other.dispatch(nightSet(true));
  await written();
  expect(await readNote("session")).toEqual({ crewId: "ines", night: true });
});

test("plans for two aircraft in two windows are both kept, and a used plan is removed", async () => {
  const [one, other] = windows();
  one.dispatch(planned({ registration: "QX-TAR", flightMin: 90 }));
  one.dispatch(
    preferencesSet({ crewId: "ines", registration: "QX-TAR", preferences: { method: "flow" } as never }),
  );
  await written();
  other.dispatch(planned({ registration: "QX-HLD", flightMin: 45 }));
  await written();
  const kept = await readNote<PlannedState>("planned");
  expect(kept?.byRegistration).toMatchObject({ "QX-TAR": { flightMin: 90 }, "QX-HLD": { flightMin: 45 } });
  expect(Object.keys(kept?.preferences ?? {})).toEqual(["ines:QX-TAR"]);
  one.dispatch(planUsed("QX-TAR"));
  await written();
  expect(Object.keys((await readNote<PlannedState>("planned"))?.byRegistration ?? {})).toEqual(["QX-HLD"]);
});

test("a pick that could not be written is written with the next change and does not undo another window's", async () => {
  const [one, other] = windows();
  const full = jest.spyOn(IDBObjectStore.prototype, "put").mockImplementationOnce(() => {
    throw new DOMException("full", "QuotaExceededError");
  });
  one.dispatch(crewPicked("ines"));
  await written();
  expect(full).toHaveBeenCalledTimes(1);
  expect(await readNote("session")).toBeUndefined();
  full.mockRestore();
  other.dispatch(planned({ registration: "QX-HLD", flightMin: 45 }));
  one.dispatch(nightSet(true));
  await written();
  expect(await readNote("session")).toEqual({ crewId: "ines", night: true });
  expect(Object.keys((await readNote<PlannedState>("planned"))?.byRegistration ?? {})).toEqual(["QX-HLD"]);
});
