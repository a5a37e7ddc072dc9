import { test as base } from "@playwright/test";
import { NOTHING_AHEAD } from "../../tools/src/site/disable-prefetch";
import { Cravix } from "./cravix";

export { expect, type Page } from "@playwright/test";

/** A page fetches nothing ahead; tests that go off the network say that they need it. */
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
    if (!fetchesAhead) await context.addInitScript(NOTHING_AHEAD);
    await use(context);
  },
});
