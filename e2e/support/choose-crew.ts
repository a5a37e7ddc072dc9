import type { Page } from "@playwright/test";

/** Chooses a person on the first page and waits until the device has stored the choice: a page opened at once would not know it. */
export async function chooseCrew(page: Page, name: RegExp): Promise<void> {
  await page.getByRole("button", { name }).click();
  await page.waitForFunction(
    () =>
      new Promise<boolean>((resolve, reject) => {
        const open = indexedDB.open("cravix");
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          const query = open.result.transaction("notes").objectStore("notes").get("session");
          query.onerror = () => reject(query.error);
          query.onsuccess = () => {
            open.result.close();
            resolve(Boolean((query.result as { crewId?: string } | undefined)?.crewId));
          };
        };
      }),
  );
}
