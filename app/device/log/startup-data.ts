import { type Fleet, newId } from "@cravix/contract/client";
import { deviceDatabase } from "./database";
import { changeNote } from "./notes";

/** Crew member of this device, and day or night colours. */
export interface KeptSession {
  crewId: string | null;
  night: boolean;
}

/** Reads what the first page needs in one transaction. Rejects if this browser has no storage. */
async function read() {
  const { store } = (await deviceDatabase()).transaction("notes");
  const [device, session, fleet, planned, openWalks] = await Promise.all([
    store.get("device id") as Promise<string | undefined>,
    store.get("session") as Promise<KeptSession | undefined>,
    store.get("fleet") as Promise<Fleet | undefined>,
    store.get("planned"),
    store.get("open preflights"),
  ]);
  // Written only if absent, because writers block all readers.
  const deviceId =
    device ??
    (await changeNote<string>("device id", (before) => before ?? newId(Date.now())).catch(() =>
      newId(Date.now()),
    ));
  return { deviceId, session, fleet, planned, openWalks };
}

let early: ReturnType<typeof read> | undefined;

/** Starts reading before anything is drawn, while the program is still loading. */
export function readEarly(): void {
  if (typeof indexedDB === "undefined") return;
  early = read();
  // Ignore here; callers receive the error.
  early.catch(() => undefined);
}

/** Startup data: the early read the first time, then from storage. */
export function loadStartupData(): ReturnType<typeof read> {
  const first = early ?? read();
  early = undefined;
  return first;
}
