import { test as base } from "@playwright/test";
import { NOTHING_AHEAD } from "../../tools/src/site/disable-prefetch";
import { Cravix } from "./cravix";
import { byDay } from "./daylight";

export { expect, type Page } from "@playwright/test";
export { byDay, lastNoon } from "./daylight";

/** Prefetching is blocked; tests that go offline enable it. */
export const test = base.extend<{ fetchesAhead: boolean; daylight: boolean }, { keptServer: undefined }>({
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
  // Verdicts by night are others. Without it the clock is untouched.
  daylight: [true, { option: true }],
  context: async ({ context, fetchesAhead, daylight }, use) => {
    if (daylight) await byDay(context);
    if (!fetchesAhead) await context.addInitScript(NOTHING_AHEAD);
    await use(context);
  },
});
