import { test as base } from "@playwright/test";

export { expect, type Page } from "@playwright/test";

/**
 * Without a service worker each opened page fetches all parts of the interface ahead: some twenty thousand requests in one run, for pages that are
 * never opened. Tests that go off the network say that they need them.
 */
export const test = base.extend<{ fetchesAhead: boolean }>({
  fetchesAhead: [false, { option: true }],
  context: async ({ context, fetchesAhead }, use) => {
    if (!fetchesAhead)
      await context.addInitScript(() =>
        document.addEventListener("DOMContentLoaded", () => document.getElementById("later")?.remove()),
      );
    await use(context);
  },
});
