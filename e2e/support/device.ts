import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import type { Page } from "@playwright/test";

export interface OnDevice {
  event: PreflightEvent;
  sync: "to send" | "sent" | "refused";
  reason?: string;
}

/** Events of one preflight, queried from the browser's database. */
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

/** Number of items of a preflight's pinned checklist, from the browser's database. */
export async function itemsAsked(page: Page, streamId: string): Promise<number> {
  return (await walkOnDevice(page, streamId)).list.items.length;
}

/** Checklist and events of a preflight stored on the device. */
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

/** Stores events on the device as answers: saved, and to be sent. */
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

/** Notifies the page of stored events, as another window would; they are then displayed and sent. */
export async function seenFromAnotherWindow(page: Page, events: readonly PreflightEvent[]): Promise<void> {
  await page.evaluate(
    (seen) =>
      new Promise<void>((resolve) => {
        const other = new BroadcastChannel("cravix");
        // Opened later, it receives later: by then the page has received it.
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

/** Waits until the device has stored everything: a test may act within a millisecond of typing. */
export async function written(page: Page): Promise<void> {
  await page.evaluate(
    () =>
      new Promise<void>((resolve, reject) => {
        const open = indexedDB.open("cravix");
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          // A write waits for all earlier ones.
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
