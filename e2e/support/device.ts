import type { ComposedList, PreflightEvent } from "@cravix/core";
import type { Page } from "@playwright/test";

export interface OnDevice {
  event: PreflightEvent;
  sync: "to send" | "sent" | "refused";
  reason?: string;
}

/** The events of one preflight as they lie in the browser's own database, asked for directly. */
export function eventsOnDevice(page: Page, streamId: string): Promise<OnDevice[]> {
  return page.evaluate(
    (id) =>
      new Promise<OnDevice[]>((resolve, reject) => {
        const open = indexedDB.open("cravix");
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          const query = open.result.transaction("events").objectStore("events").index("byStream").getAll(id);
          query.onsuccess = () => {
            open.result.close();
            resolve(query.result);
          };
        };
      }),
    streamId,
  );
}

/** How many items the pinned list of a preflight asks, from the browser's own database. */
export async function itemsAsked(page: Page, streamId: string): Promise<number> {
  return (await walkOnDevice(page, streamId)).list.items.length;
}

/** A walk as it lies on the device: the list that it asks, and what was done so far. */
export async function walkOnDevice(
  page: Page,
  streamId: string,
): Promise<{ list: ComposedList; events: PreflightEvent[] }> {
  const events = (await eventsOnDevice(page, streamId)).map(({ event }) => event);
  const started = events.find((event) => event.type === "preflight.started");
  const { listHash } = started?.data as { listHash: string };
  const list = await page.evaluate(
    (hash) =>
      new Promise<unknown>((resolve, reject) => {
        const open = indexedDB.open("cravix");
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          const query = open.result.transaction("lists").objectStore("lists").get(hash);
          query.onsuccess = () => {
            open.result.close();
            resolve((query.result as { list: unknown }).list);
          };
        };
      }),
    listHash,
  );
  return { list: list as ComposedList, events };
}

/** Puts events on the device as an answer would lie there: kept, and waiting to be sent. */
export async function putOnDevice(page: Page, events: readonly PreflightEvent[]): Promise<void> {
  await page.evaluate(
    (more) =>
      new Promise<void>((resolve, reject) => {
        const open = indexedDB.open("cravix");
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          const tx = open.result.transaction("events", "readwrite");
          for (const event of more)
            tx.objectStore("events").put({
              event,
              id: event.id,
              streamId: event.streamId,
              sync: "to send",
            });
          tx.onerror = () => reject(tx.error);
          tx.oncomplete = () => {
            open.result.close();
            resolve();
          };
        };
      }),
    events as PreflightEvent[],
  );
}

/** Tells the page of events that lie on the device, as another window of it would; they are on the screen then, and on their way to the server. */
export async function seenFromAnotherWindow(page: Page, events: readonly PreflightEvent[]): Promise<void> {
  await page.evaluate(
    (seen) =>
      new Promise<void>((resolve) => {
        const other = new BroadcastChannel("cravix");
        // Whoever listens later hears it later: the page has heard it by then.
        const last = new BroadcastChannel("cravix");
        last.onmessage = () => {
          other.close();
          last.close();
          // The other window would send them itself.
          window.dispatchEvent(new Event("online"));
          requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(resolve)));
        };
        other.postMessage({ kind: "events", events: seen });
      }),
    events as PreflightEvent[],
  );
}

/** Waits until the device has written down everything that it was given so far: what a test does within a millisecond of typing nobody does by hand. */
export async function written(page: Page): Promise<void> {
  await page.evaluate(
    () =>
      new Promise<void>((resolve, reject) => {
        const open = indexedDB.open("cravix");
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          // One that writes waits for all that were begun before it.
          const tx = open.result.transaction(["notes", "events"], "readwrite");
          tx.onerror = () => reject(tx.error);
          tx.oncomplete = () => {
            open.result.close();
            resolve();
          };
          tx.objectStore("notes").count();
        };
      }),
  );
}
