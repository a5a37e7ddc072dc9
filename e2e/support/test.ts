import { test as base } from "@playwright/test";

export { expect, type Page } from "@playwright/test";

/**
 * A browser that saves data, as a phone on a bad line: without a service worker every opened page would fetch all parts of the interface ahead, some
 * twenty thousand requests in one run, and each part is fetched when its page is opened all the same.
 */
export const test = base.extend({
  context: async ({ context }, use) => {
    await context.addInitScript(() =>
      Object.defineProperty(navigator, "connection", { value: { saveData: true } }),
    );
    await use(context);
  },
});
