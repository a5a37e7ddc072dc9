import type { PreflightEvent } from "@cravix/core";
import type { Page } from "@playwright/test";

export interface OnDevice {
  event: PreflightEvent;
  sync: "to send" | "sent" | "refused";
  reason?: string;
}

/** The events of one preflight as they lie in the browser's own database, asked for directly. */
export function eventsOnDevice(page: Page, preflightId: string): Promise<OnDevice[]> {
  return page.evaluate(
    (id) =>
      new Promise<OnDevice[]>((resolve, reject) => {
        const open = indexedDB.open("cravix");
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          const query = open.result
            .transaction("events")
            .objectStore("events")
            .index("byPreflight")
            .getAll(id);
          query.onsuccess = () => {
            open.result.close();
            resolve(query.result);
          };
        };
      }),
    preflightId,
  );
}

/** How many items the pinned list of a preflight asks, from the browser's own database. */
export async function itemsAsked(page: Page, preflightId: string): Promise<number> {
  const events = await eventsOnDevice(page, preflightId);
  const started = events.find(({ event }) => event.type === "preflight.started")?.event;
  const { listHash } = started?.data as { listHash: string };
  return page.evaluate(
    (hash) =>
      new Promise<number>((resolve, reject) => {
        const open = indexedDB.open("cravix");
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          const query = open.result.transaction("lists").objectStore("lists").get(hash);
          query.onsuccess = () => {
            open.result.close();
            resolve((query.result as { list: { items: unknown[] } }).list.items.length);
          };
        };
      }),
    listHash,
  );
}
