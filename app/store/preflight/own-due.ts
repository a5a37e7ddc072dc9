import { readNote } from "../../device/log/notes";
import type { AppDispatch } from "../state/root-state";
import { type KeptRecord, OWN_DUE_ITEMS, serverApi } from "../state/server-api";

/** Stored due items of the current crew member; undefined if never loaded. */
export const savedDueItems = (personId: string): Promise<KeptRecord | undefined> =>
  readNote<KeptRecord>(OWN_DUE_ITEMS + personId).catch(() => undefined);

/** Maximum wait before a preflight starts, ms. */
const MAX_MS = 4000;

/** Due items of the current crew member, stored or from the server; undefined if it does not respond in time. */
export async function ownDue(dispatch: AppDispatch, personId: string): Promise<KeptRecord | undefined> {
  const kept = await savedDueItems(personId);
  if (kept) return kept;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<undefined>((resolve) => {
    timer = setTimeout(resolve, MAX_MS);
  });
  const loading = dispatch(
    serverApi.endpoints.personDue.initiate({ personId, own: true }, { forceRefetch: true, subscribe: false }),
  );
  return Promise.race([loading.then(({ data }) => data), late]).finally(() => clearTimeout(timer));
}
