import type { PersonRecord } from "@cravix/core";
import { api } from "../../device/api";
import { keepNote, readNote } from "../../device/log/notes";

/** Under this name a person's own due items are kept on the device, by the person. */
const OWN_DUE_ITEMS = "own due items:";

/** What is due of a person, own limits and authorisations among it, and when the server said it. */
export interface KeptRecord {
  record: PersonRecord;
  saidAt: number;
}

/** What this device keeps of its holder; undefined where the server never told it. */
export const keptDue = (personId: string): Promise<KeptRecord | undefined> =>
  readNote<KeptRecord>(OWN_DUE_ITEMS + personId).catch(() => undefined);

/** Asks the server anew; rejects as it does. Only one's `own` is kept on the device. */
export async function askDue(personId: string, own: boolean): Promise<KeptRecord> {
  const saidAt = Date.now();
  const told = { record: (await api.personDue(personId)) as PersonRecord, saidAt };
  // Nobody waits for the disk: what the server has said is known, and is tried again where it is not taken.
  if (own) void keepNote(OWN_DUE_ITEMS + personId, told);
  return told;
}

/** Nobody waits longer at the aircraft for what has to be known before a walk begins, ms. */
const LONGEST_MS = 4000;

/** The same of whoever holds the device, from the device, or from the server where it never told it; undefined where it does not answer soon. */
export async function ownDue(personId: string): Promise<KeptRecord | undefined> {
  const kept = await keptDue(personId);
  if (kept) return kept;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<undefined>((resolve) => {
    timer = setTimeout(resolve, LONGEST_MS);
  });
  return Promise.race([askDue(personId, true).catch(() => undefined), late]).finally(() =>
    clearTimeout(timer),
  );
}
