import { type Fleet, newId } from "@cravix/contract/client";
import { deviceDatabase } from "./database";
import { changeNote } from "./notes";

/** Who holds this device, and whether it is night. */
export interface KeptSession {
  crewId: string | null;
  night: boolean;
}

/** What the first page waits for, read at one go. Rejects where this browser keeps nothing. */
async function read() {
  const { store } = (await deviceDatabase()).transaction("notes");
  const [device, session, fleet, planned, openWalks] = await Promise.all([
    store.get("device id") as Promise<string | undefined>,
    store.get("session") as Promise<KeptSession | undefined>,
    store.get("fleet") as Promise<Fleet | undefined>,
    store.get("planned"),
    store.get("open preflights"),
  ]);
  // Written only where there is none: whoever writes is waited for by all who read.
  const deviceId =
    device ??
    (await changeNote<string>("device id", (before) => before ?? newId(Date.now())).catch(() =>
      newId(Date.now()),
    ));
  return { deviceId, session, fleet, planned, openWalks };
}

let early: ReturnType<typeof read> | undefined;

/** Begins to read before anything is drawn: the disk works while the program is still being made ready. */
export function readEarly(): void {
  if (typeof indexedDB === "undefined") return;
  early = read();
  // Whoever asks is told; nobody asking is no fault.
  early.catch(() => undefined);
}

/** What this device remembers: as it was read early, once, and from the disk after that. */
export function loadStartupData(): ReturnType<typeof read> {
  const first = early ?? read();
  early = undefined;
  return first;
}
