import type { PersonRecord } from "@cravix/core/airworthiness/people/person-due";
import { api } from "../../device/api";
import { readNote, saveNote } from "../../device/log/notes";

/** Key prefix of a person's stored due items. */
const OWN_DUE_ITEMS = "own due items:";

/** Due items of a person including personal minimums and authorisations, with the time received. */
export interface KeptRecord {
  record: PersonRecord;
  saidAt: number;
}

/** Stored due items of the current crew member; undefined if never loaded. */
export const savedDueItems = (personId: string): Promise<KeptRecord | undefined> =>
  readNote<KeptRecord>(OWN_DUE_ITEMS + personId).catch(() => undefined);

/** Loads due items from the server; rejects on failure. Only one's `own` are stored. */
export async function askDue(personId: string, own: boolean): Promise<KeptRecord> {
  const saidAt = Date.now();
  const told = { record: (await api.personDue(personId)) as PersonRecord, saidAt };
  // Saving is retried in the background.
  if (own) void saveNote(OWN_DUE_ITEMS + personId, told);
  return told;
}

/** Maximum wait before a preflight starts, ms. */
const MAX_MS = 4000;

/** Due items of the current crew member, stored or from the server; undefined if it does not respond in time. */
export async function ownDue(personId: string): Promise<KeptRecord | undefined> {
  const kept = await savedDueItems(personId);
  if (kept) return kept;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<undefined>((resolve) => {
    timer = setTimeout(resolve, MAX_MS);
  });
  return Promise.race([askDue(personId, true).catch(() => undefined), late]).finally(() =>
    clearTimeout(timer),
  );
}
