import { test as base } from "@playwright/test";
import { Cravix } from "./cravix";

export { expect, type Page } from "@playwright/test";

/**
 * Without a service worker each opened page fetches all parts of the interface ahead: some twenty thousand requests in one run, for pages that are
 * never opened. Tests that go off the network say that they need them.
 */
export const test = base.extend<{ fetchesAhead: boolean }, { keptServer: undefined }>({
  // What a worker keeps from one file of tests to the next goes with the worker.
  keptServer: [
    // biome-ignore lint/correctness/noEmptyPattern: what a fixture needs is read from its pattern.
    async ({}, use) => {
      Cravix.keepFree();
      await use(undefined);
      await Cravix.removeFree();
    },
    { scope: "worker", auto: true },
  ],
  fetchesAhead: [false, { option: true }],
  context: async ({ context, fetchesAhead }, use) => {
    if (!fetchesAhead)
      await context.addInitScript(() =>
        document.addEventListener("DOMContentLoaded", () => document.getElementById("later")?.remove()),
      );
    await use(context);
  },
});
