import { test as base } from "@playwright/test";
import { NOTHING_AHEAD } from "../../tools/src/site/disable-prefetch";
import { Cravix } from "./cravix";

export { expect, type Page } from "@playwright/test";

/** Prefetching is blocked; tests that go offline enable it. */
export const test = base.extend<{ fetchesAhead: boolean }, { keptServer: undefined }>({
  // Instances kept between test files end with the worker.
  keptServer: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads a fixture's dependencies from its pattern.
    async ({}, use) => {
      Cravix.keepFree();
      await use(undefined);
      await Cravix.removeFree();
    },
    { scope: "worker", auto: true },
  ],
  fetchesAhead: [false, { option: true }],
  context: async ({ context, fetchesAhead }, use) => {
    if (!fetchesAhead) await context.addInitScript(NOTHING_AHEAD);
    await use(context);
  },
});
